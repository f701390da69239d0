import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { stops, USUAL_LIMITS, type Change } from '@/core';
import { SettingsSchema } from '@/contracts/account';
import { changeSettings } from '@/server/use-cases/account/change-settings';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { draftPass } from '@/server/use-cases/sift/pass/draft-pass';
import { viewPass } from '@/server/use-cases/sift/pass/view-pass';
import { tagWords } from '@/server/use-cases/sift/remember';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { makePassWorld } from '../support/pass-report';
import type { World } from '../support/world';

let world: World;
beforeAll(async () => {
  world = await makePassWorld();
});
afterAll(() => world.close());

const pass = () => viewPass(world.deps, world.slug, {});
const put = (words: { ngram: string }[], terms?: number[]) =>
  draftPass(world.deps, world.slug, world.personId, { words, terms });
const wordOf = async (ngram: string) => (await pass()).words.find((word) => word.ngram === ngram);
const tray = () => viewTray(world.deps, world.slug);
async function emptyTray() {
  const { changes } = await tray();
  if (changes.length > 0)
    await removeFromTray(
      world.deps,
      world.slug,
      changes.map(({ id }) => id),
    );
}

describe('the pass', () => {
  const name = (typed: string) =>
    changeSettings(
      world.deps,
      world.slug,
      world.personId,
      v.parse(SettingsSchema, { brandWords: typed.split(',') }),
    );

  test('offers what can be stopped, and says what stands against the rest', async () => {
    await name('Larkfell, larkfell ');
    const { words, barred } = await pass();
    expect(words.map(({ ngram }) => ngram)).toEqual(expect.arrayContaining(['jobs', 'wholesale']));
    expect(barred.map(({ ngram, by }) => [ngram, by])).toEqual(
      expect.arrayContaining([
        ['larkfell', 'brand word'],
        ['maps', 'live keyword'],
      ]),
    );
    expect(words.some(({ ngram }) => ['larkfell', 'maps'].includes(ngram))).toBe(false);
  });

  test('brand words are a setting with its entry and its undo', async () => {
    const { lines } = await viewLedger(world.deps, world.slug);
    const entry = lines.find(({ what }) => what.startsWith('Brand words'))!;
    expect(entry.what).toBe('Brand words: larkfell (before: none)');
    await undoEntry(world.deps, world.slug, world.personId, entry.id);
    expect((await pass()).barred.some(({ by }) => by === 'brand word')).toBe(false);
    await name('larkfell');
  });

  test('around a protected term, longer negatives leave it open', async () => {
    const wholesale = (await wordOf('wholesale'))!;
    expect(wholesale.leavesOpen).toEqual({ count: 1, first: ['hive wholesale 3'] });
    expect(wholesale.negatives.count).toBe(7);
    await put([{ ngram: 'wholesale' }]);
    const { changes } = await tray();
    expect(changes).toHaveLength(7);
    for (const { change } of changes) expect(stopsText(change, 'hive wholesale 3')).toBe(false);
    expect(await wordOf('wholesale')).toBeUndefined();
    await emptyTray();
  });

  test('what is put in the tray is no longer to be gained, and the sums of both are exact', async () => {
    const before = await pass();
    const jobs = before.words.find(({ ngram }) => ngram === 'jobs')!;
    expect(jobs.places[0]).toMatchObject({ name: 'the whole account', stops: { terms: 8, clicks: 80 } });
    expect(jobs.places[0]!.stops.costMicros).toBe(40_000_000);
    expect(before.stoppedMicros).toBe(0);
    const [outcome] = await put([{ ngram: 'jobs' }]);
    expect(outcome).toMatchObject({ outcome: 'drafted', said: 'Stop “jobs” (phrase) in the whole account' });
    const after = await pass();
    expect(after.stoppedMicros).toBe(40_000_000);
    expect(after.gain.words.costMicros).toBe(before.gain.words.costMicros - 40_000_000);
    expect(after.gain.words.risks).toBeLessThan(before.gain.words.risks);
    const [change] = (await tray()).changes;
    expect(change!.why).toMatch(
      /^“jobs” is at fault: its ad groups would have brought \d+\.\d conversions, it brought 0$/,
    );
    await expect(put([{ ngram: 'jobs' }])).rejects.toThrow('not offered any more');
    await emptyTray();
  });

  test('a list that holds a word alike is the likely place, where it stops enough', async () => {
    const campaign = String(
      (await world.db('campaign').where({ name: 'Hives', account_id: world.accountId }).first('campaign_id'))
        .campaign_id,
    );
    const listId = 'new:11111111-1111-4111-8111-111111111111';
    const made: Change[] = [
      { kind: 'make list', listId, name: 'Work' },
      { kind: 'add negative', text: 'summer job', match: 'phrase', place: { kind: 'list', id: listId } },
      { kind: 'hang list', listId, campaignId: campaign },
    ];
    await draftChanges(
      world.deps,
      world.slug,
      world.personId,
      made.map((change) => ({ change })),
    );
    const [list, everywhere] = (await wordOf('jobs'))!.places;
    expect(list).toMatchObject({ name: 'the list Work', place: { kind: 'list', id: listId } });
    expect(list!.note).toContain('“summer job” stands there');
    expect(everywhere!.name).toBe('the whole account');
    await draftPass(world.deps, world.slug, world.personId, {
      words: [{ ngram: 'jobs', place: { kind: 'account', id: null } }],
    });
    expect((await tray()).changes.at(-1)!.said).toBe('Stop “jobs” (phrase) in the whole account');
    await emptyTray();
  });

  test('then terms that surely miss and are worse than their neighbours; ad groups that miss are named for their bids', async () => {
    const { terms: missing, groups, left } = await pass();
    expect(missing.map(({ raw }) => raw)).toContain('starter hive kit large');
    expect(missing.some(({ raw }) => raw.startsWith('silver'))).toBe(false);
    expect(groups.map(({ name }) => name)).toEqual(['Silver']);
    expect(left.first.some(({ raw }) => raw === 'starter hive kit large')).toBe(false);
    const { id } = missing.find(({ raw }) => raw === 'starter hive kit large')!;
    const outcomes = await put([], [id]);
    expect(outcomes).toMatchObject([
      { outcome: 'drafted', said: 'Stop “starter hive kit large” (exact) in campaign Hives' },
    ]);
    expect((await pass()).terms.some(({ raw }) => raw === 'starter hive kit large')).toBe(false);
    await emptyTray();
  });

  test('what has no room at its place is left out, and said', async () => {
    const limits = (accountNegatives: number) =>
      changeSettings(world.deps, world.slug, world.personId, {
        limits: { ...USUAL_LIMITS, accountNegatives },
      });
    await limits(3);
    const outcomes = await put([{ ngram: 'wholesale' }, { ngram: 'jobs' }]);
    expect(outcomes.map(({ outcome }) => outcome)).toEqual(['drafted', 'refused']);
    expect(outcomes[1]).toMatchObject({
      said: '“wholesale” was left out: the account may hold 3 negatives, and it would be 7. Choose another place for it.',
    });
    await emptyTray();
    await expect(put([{ ngram: 'wholesale' }])).rejects.toThrow('the account may hold 3 negatives');
    await limits(USUAL_LIMITS.accountNegatives);
  });

  test('a word that a person calls neutral is offered no more', async () => {
    await tagWords(world.deps, world.slug, world.personId, { text: 'jobs', tag: 'neutral' });
    expect(await wordOf('jobs')).toBeUndefined();
    await tagWords(world.deps, world.slug, world.personId, { text: 'jobs', tag: null });
    expect(await wordOf('jobs')).toBeDefined();
  });

  test('all of a step at a press stops no protected term and no live keyword', async () => {
    const { words } = await pass();
    const outcomes = await put(words.map(({ ngram }) => ({ ngram })));
    expect(outcomes.every(({ outcome }) => outcome === 'drafted' || outcome === 'already there')).toBe(true);
    const after = await pass();
    expect([after.words, after.gain.words.costMicros]).toEqual([[], 0]);
    const { changes } = await tray();
    for (const { change, touched } of changes) {
      expect(stopsText(change, 'hive wholesale 3') || stopsText(change, 'starter hive')).toBe(false);
      expect(touched).toEqual([]);
    }
    await emptyTray();
  });
});

const stopsText = (change: Change, text: string) =>
  change.kind === 'add negative' && stops({ text: change.text, match: change.match }, text);
