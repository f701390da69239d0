import { afterAll, beforeAll, expect, test } from 'vitest';
import { shiftDay, stops, type Change, type NegativeText } from '@/core';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

type Fact = {
  day: string;
  key: string;
  campaign_id: number;
  term_id: number;
  cost_micros: number;
  clicks: number;
};

/** By the readable rule: each fact since the day is held against the negative. */
function plainly(
  facts: readonly Fact[],
  { text, match }: NegativeText,
  campaign: string | null,
  from: string,
) {
  const stopped = facts.filter((f) => f.day >= from && stops({ text, match }, f.key));
  const sum = (some: readonly Fact[]) => ({
    terms: new Set(some.map((f) => f.term_id)).size,
    clicks: some.length === 0 ? null : some.reduce((all, f) => all + f.clicks, 0),
    costMicros: some.length === 0 ? null : some.reduce((all, f) => all + f.cost_micros, 0),
  });
  const isHere = (f: Fact) => campaign === null || f.campaign_id === Number(campaign);
  return { here: sum(stopped.filter(isHere)), elsewhere: sum(stopped.filter((f) => !isHere(f))) };
}

test('what terms cost from the day after their changes were sent is what the facts say, whatever the day of each', async () => {
  const facts: Fact[] = await world
    .db('term_day as f')
    .join('term as t', 't.term_id', 'f.term_id')
    .join('ad_group as g', 'g.ad_group_id', 'f.ad_group_id')
    .where({ 'f.account_id': world.accountId, 't.kind': 'query' })
    .select('f.day', 't.key', 'g.campaign_id', 'f.term_id', 'f.cost_micros', 'f.clicks');
  const newest = facts
    .map(({ day }) => day)
    .sort()
    .at(-1)!;
  const campaigns = await world.db('campaign').where({ account_id: world.accountId }).orderBy('campaign_id');
  const campaign = String(campaigns.find((c) => c.campaign_id !== facts[0]!.campaign_id)!.campaign_id);
  const changes = ['movie', 'plans', 'free bee', 'kit', 'hive'].flatMap((text): Change[] => [
    { kind: 'add negative', text, match: 'phrase', place: { kind: 'account', id: null } },
    { kind: 'add negative', text, match: 'broad', place: { kind: 'campaign', id: campaign } },
  ]);
  await draftChanges(
    world.deps,
    world.slug,
    world.personId,
    changes.map((change) => ({ change, forcedBecause: 'to see what it brings' })),
  );
  await sendTray(world.deps, world.slug, world.personId);
  await world.work();
  const sent = await world.db('change').where({ state: 'there' }).orderBy('change_id');
  expect(sent).toHaveLength(changes.length);
  for (const [i, { change_id }] of sent.entries()) {
    const [set] = await world
      .db('change_set')
      .insert({
        ...{ account_id: world.accountId, state: 'confirmed', sent_at: new Date() },
        ...{ sent_by: world.personId, sent_day: shiftDay(newest, -1 - 4 * i) },
      })
      .returning<{ change_set_id: number }[]>('change_set_id');
    await world.db('change').where({ change_id }).update(set!);
  }

  const { lines } = await viewLedger(world.deps, world.slug);
  const told = lines.filter(({ change }) => change?.since);
  expect(told).toHaveLength(changes.length);
  let elsewhere = 0;
  for (const { change } of told) {
    const { body } = sent.find((row) => row.change_id === change!.id)!;
    const since = change!.since!;
    const plain = plainly(facts, body, body.place.id, shiftDay(change!.sentDay, 1));
    const seen = ({ terms, clicks, costMicros }: typeof since.here) => ({ terms, clicks, costMicros });
    expect({ here: seen(since.here), elsewhere: seen(since.elsewhere) }).toEqual(plain);
    const slipped = since.slips.reduce((sum, slip) => sum + (slip.costMicros ?? 0), 0);
    if (since.slips.length < 12) expect(slipped).toBe(since.elsewhere.costMicros ?? 0);
    elsewhere += since.elsewhere.terms;
  }
  expect(elsewhere).toBeGreaterThan(0);
});
