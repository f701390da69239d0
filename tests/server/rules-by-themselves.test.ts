import { sum } from 'd3';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import type { Bounds, Change, Rule } from '@/core';
import { RuleActsSchema } from '@/contracts/findings';
import { RulesViewSchema } from '@/contracts/rules';
import { addMember, setRole } from '@/server/use-cases/account/people';
import { setLookRules } from '@/server/use-cases/account/look-rules';
import { fetchReport, moveClock } from '@/server/use-cases/intake/fetch-report';
import { undoSent } from '@/server/use-cases/ledger/undo-sent';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { viewFindings } from '@/server/use-cases/rules/findings';
import { changeRule, keepRule, setRuleStates } from '@/server/use-cases/rules/keep-rules';
import { viewActs } from '@/server/use-cases/rules/promises';
import { viewRules } from '@/server/use-cases/rules/view-rules';
import { lookDaily, workByRules } from '@/server/use-cases/rules/work-by-rules';
import { setVerdict } from '@/server/use-cases/sift/set-verdict';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { viewNext } from '@/server/use-cases/today/what-next';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { makeWorld, type World } from '../support/world';

const WIDE: Bounds = { changesADay: 1_000, costADayMicros: 1e12, leastKept: 0 };
let world: World;
let ruleId: number;
/** what the rule finds, the costliest first */
let found: { term: string; costMicros: number; changes: Change[] }[];

const at = () => [world.deps, world.slug] as const;
const by = () => [world.deps, world.slug, world.personId] as const;
const aRule = (bounds: Partial<Bounds> = {}): Rule => ({
  when: [
    { of: 'clicks', is: 'at least', value: 5 },
    { of: 'conversions', is: 'at most', value: 0 },
  ],
  ...{ lookBack: { days: 30, lagDays: 2 }, where: { is: 'everywhere', campaigns: [] } },
  ...{ then: { do: 'stop', at: 'ad group' }, often: 'after each report' },
  how: { is: 'by itself', bounds: { ...WIDE, ...bounds } },
});
const byApproval = (): Rule => ({ ...aRule(), how: { is: 'by approval' } });

/** The rule has looked, and found so much; nothing is done yet. */
beforeEach(async () => {
  world = await makeWorld();
  ({ ruleId } = await keepRule(...by(), { name: '5 clicks', rule: byApproval(), state: 'on' }));
  await workByRules(world.deps, world.accountId);
  found = (await findings()).map(({ term, costMicros, changes }) => ({
    ...{ term, costMicros: costMicros ?? 0, changes },
  }));
  expect(found.length).toBeGreaterThan(3);
  const { next } = await viewNext(...at());
  expect(next.find(({ kind }) => kind === 'decide findings')).toMatchObject({ count: found.length });
});
afterEach(() => world.close());

const findings = async () => (await viewFindings(...at(), { pile: 'open' })).lines;
const terms = async () => (await findings()).map(({ term }) => term).sort();
const termsFound = () => found.map(({ term }) => term).sort();
const letWork = () => workByRules(world.deps, world.accountId);
/** From now on it acts by itself. */
async function letAct(
  bounds: Partial<Bounds> = {},
  personId = world.personId,
  often: Rule['often'] = 'after each report',
): Promise<void> {
  const { version } = await theRule();
  await changeRule(...at(), personId, {
    ...{ ruleId, name: '5 clicks', rule: { ...aRule(bounds), often }, version, why: '' },
  });
}
const theRule = async () => {
  const view = await viewRules(...at());
  expect(v.parse(RulesViewSchema, view)).toEqual(view);
  return view.rules[0]!;
};
async function acts() {
  const view = await viewActs(...at());
  expect(v.parse(RuleActsSchema, view)).toEqual(view);
  return view;
}
const acted = async () => (await acts()).acts.map(({ term }) => term).sort();
const lines = async () => (await viewLedger(...at())).lines;
const askForLooks = (always: boolean) =>
  setLookRules(...by(), { always, changes: null, costMicros: null, people: [] });

test('it sends what it found, each once, whichever process does it; the Ledger names the rule', async () => {
  await letAct();
  const worked = await Promise.all([letWork(), letWork(), letWork()]);
  expect(sum(worked, (one) => one.acted)).toBe(found.length);
  expect((await acts()).acts.map(({ state }) => state)).toEqual(found.map(() => 'on its way'));
  await world.work();
  const view = await acts();
  expect(await acted()).toEqual(termsFound());
  for (const { state, promisedMicros } of view.acts)
    expect([state, promisedMicros]).toEqual(['in force', null]);
  expect(await terms()).toEqual([]);
  const told = (await lines()).filter(({ change }) => change !== null);
  expect(told).toHaveLength(sum(found, ({ changes }) => changes.length));
  for (const { who, why } of told)
    expect([who, why]).toEqual(['the rule “5 clicks”', 'by the rule “5 clicks”']);
  expect(told.map(({ id }) => id)).toEqual(expect.arrayContaining(view.acts.map(({ entry }) => entry)));
  const ids = async (who: string) => (await viewLedger(...at(), { who })).lines.map(({ id }) => id);
  expect(await ids('rules')).toEqual(told.map(({ id }) => id));
  expect(await ids('nobody')).not.toEqual(expect.arrayContaining([told[0]!.id]));
  expect(await letWork()).toEqual({ stopped: 0, looked: 0, acted: 0 });
});

test('one on words stops each of them once, with all that holds it', async () => {
  await setRuleStates(...by(), [{ id: ruleId, state: 'removed' }]);
  const rule: Rule = {
    ...{ ...aRule(), about: 'words', when: [{ of: 'clicks', is: 'at least', value: 1 }] },
    then: { do: 'stop', at: 'account' },
  };
  await keepRule(...by(), { name: 'Words', rule: { ...rule, how: { is: 'by approval' } }, state: 'on' });
  await letWork();
  const proposed = await findings();
  expect(proposed.length).toBeGreaterThan(0);
  const { id, version } = await theRule();
  await changeRule(...by(), { ruleId: id, name: 'Words', rule, version, why: '' });
  expect(await letWork()).toMatchObject({ acted: proposed.length });
  await world.work();
  expect(await acted()).toEqual(proposed.map(({ term }) => term).sort());
  expect((await acts()).acts.map(({ state }) => state)).toEqual(proposed.map(() => 'in force'));
  const sent = (await lines()).flatMap(({ change }) => (change ? [change.undo] : []));
  expect(sent.length).toBeGreaterThanOrEqual(proposed.length);
  for (const undo of sent) expect(undo).toMatchObject({ kind: 'remove negative', match: 'phrase' });
  expect(await terms()).toEqual([]);
  expect(await letWork()).toMatchObject({ acted: 0 });
});

test('a stop that somebody takes back is not made again: the finding waits for somebody', async () => {
  await letAct();
  await letWork();
  await world.work();
  const line = (await lines()).find(({ change }) => change !== null)!;
  await undoSent(...by(), line.change!.id);
  await sendTray(...by());
  await world.work();
  expect(await letWork()).toMatchObject({ acted: 0 });
  expect(await terms()).toHaveLength(1);
  expect((await viewTray(...at())).changes).toEqual([]);
});

describe('within its bounds', () => {
  test('it makes no more changes a day; the costliest come first, the rest on the next day', async () => {
    await letAct({ changesADay: 2 });
    await letWork();
    const first = found.slice(0, 2).map(({ term }) => term);
    expect(await acted()).toEqual(first.sort());
    expect(await letWork()).toMatchObject({ acted: 0 });
    expect(await terms()).toEqual(termsFound().filter((term) => !first.includes(term)));
    await world.db('rule_act').update({ day: '2026-11-01' });
    await lookDaily(world.deps);
    const queued = await world.db.raw<{ rows: unknown[] }>(
      `select from graphile_worker.jobs where task_identifier = 'run-rules'`,
    );
    expect(queued.rows).toHaveLength(1);
    expect(await letWork()).toMatchObject({ looked: 0, acted: 2 });
  });

  test('it does nothing about days that it has not looked at: a weekly rule waits for its next look', async () => {
    await letAct({ changesADay: 2 }, world.personId, 'weekly');
    expect(await letWork()).toMatchObject({ looked: 1, acted: 2 });
    await world.db('rule_act').update({ day: '2026-11-01' });
    await moveClock(...at(), 2);
    await fetchReport(...by());
    await world.work();
    expect(await letWork()).toEqual({ stopped: 0, looked: 0, acted: 0 });
  });

  test('it stops no more a day than so much cost', async () => {
    const [first, second] = found;
    await letAct({ costADayMicros: second!.costMicros });
    await letWork();
    const did = await acted();
    expect(did).not.toContain(first!.term);
    expect(did).toContain(second!.term);
    const cost = sum(found, ({ term, costMicros }) => (did.includes(term) ? costMicros : 0));
    expect(cost).toBeLessThanOrEqual(second!.costMicros);
  });

  test.each(['add negative', 'exclude product'])(
    'it never stops what a live keyword says: %s',
    async (kind) => {
      const query = found.find(({ changes }) => changes[0]!.kind === kind)!;
      const keyword = await world.db('keyword').where({ account_id: world.accountId }).first();
      await world
        .db('keyword')
        .where({ account_id: world.accountId, keyword_id: keyword.keyword_id })
        .update({ text: query.term, status: 'live' });
      await world.db('account').where({ account_id: world.accountId }).increment({ data_version: 1 });
      await letAct();
      await letWork();
      expect(await acted()).toEqual(termsFound().filter((term) => term !== query.term));
      expect(await terms()).toEqual([query.term]);
    },
  );

  test('it stops no protected term, and leaves to somebody what is in the tray', async () => {
    const [kept, drafted] = found.filter(({ changes }) => changes[0]!.kind === 'add negative');
    await letAct();
    await setVerdict(...by(), { raw: kept!.term, verdict: { is: 'kept', note: null } });
    const [change] = drafted!.changes;
    await draftChanges(...by(), [{ change: change! }]);
    await letWork();
    expect(await acted()).toEqual(termsFound().filter((term) => ![kept!.term, drafted!.term].includes(term)));
    const inTray = (await viewTray(...at())).changes;
    expect(inTray).toHaveLength(1);
    expect(inTray[0]).toMatchObject({ change });
  });
});

describe('what stands in its way is its trouble, and nothing is half done', () => {
  const stands = async (says: RegExp | string) => {
    expect(await letWork()).toMatchObject({ acted: 0 });
    expect((await theRule()).trouble).toMatch(says);
    expect(await acted()).toEqual([]);
    expect((await viewTray(...at())).changes).toEqual([]);
    expect(await terms()).toEqual(termsFound());
  };

  test('a second look that the account asks for', async () => {
    await letAct();
    await askForLooks(true);
    await stands('Nothing was sent. This tray needs a second look');
    await askForLooks(false);
    await letWork();
    expect(await acted()).toEqual(termsFound());
    expect((await theRule()).trouble).toBeNull();
  });

  test('who switched it on and may not send any more', async () => {
    const { id: petra } = await addMember(...by(), { name: 'Petra Holm', role: 'send' });
    await letAct({}, petra);
    await setRole(...by(), { person: petra, role: 'prepare' });
    await stands('Petra Holm may not send any more');
    // One who may not send lets no rule act by itself either.
    const [on, off] = (['on', 'off'] as const).map((state) => [{ id: ruleId, state }]);
    await setRuleStates(...at(), petra, off!);
    await expect(setRuleStates(...at(), petra, on!)).rejects.toThrow('asks for more');
    await expect(keepRule(...at(), petra, { name: 'Another', rule: aRule(), state: 'on' })).rejects.toThrow(
      'asks for more',
    );
    const draft = await keepRule(...at(), petra, { name: 'Another', rule: aRule(), state: 'draft' });
    await setRuleStates(...by(), [{ id: draft.ruleId, state: 'removed' }]);
    await setRuleStates(...by(), on!);
    await letWork();
    expect(await acted()).toEqual(termsFound());
  });

  test('an account without a platform, whose tray somebody carries out', async () => {
    await letAct();
    await world.db('account').where({ account_id: world.accountId }).update({ platform_account_id: null });
    await stands('handed over as a sheet');
  });
});

describe('what it promised', () => {
  async function letWeeksPass(weeks: number) {
    for (let week = 0; week < weeks; week++) await moveClock(...at(), 7);
    await fetchReport(...by());
    await world.work();
  }

  test('is held against what came; who brings too little stops itself and says so, and may be switched on again', async () => {
    await letAct({ leastKept: 1 });
    await letWork();
    await world.work();
    await letWeeksPass(2);
    const view = await acts();
    const [of] = view.rules;
    expect(of).toMatchObject({ ruleId, name: '5 clicks', terms: found.length });
    expect(of!.days).toBeGreaterThanOrEqual(7);
    expect(of!.promisedMicros).toBeGreaterThan(0);
    expect(sum(view.acts, ({ cameMicros }) => cameMicros ?? 0)).toBe(of!.cameMicros);
    // Little of what was promised came, as far as anybody can tell.
    await world.db.raw(
      `update change set before = jsonb_set(before, '{predicted,netMicros}', to_jsonb(10 * (before #>> '{predicted,netMicros}')::bigint))
        where before -> 'predicted' is not null`,
    );
    await world.db('account').where({ account_id: world.accountId }).increment({ data_version: 1 });
    expect(await letWork()).toMatchObject({ stopped: 1, acted: 0 });
    const rule = await theRule();
    expect(rule.state).toBe('off');
    expect(rule.trouble).toMatch(
      /^It promised [\d,.]+ EUR in \d+ days, and −?[\d,.]+ EUR came: less than the 100 % that have to\.$/,
    );
    const { next } = await viewNext(...at());
    expect(next.find(({ kind }) => kind === 'look at rules')).toMatchObject({
      ...{ count: 1, first: [{ text: `5 clicks: ${rule.trouble}` }] },
    });
    const [line] = await lines();
    expect(line).toMatchObject({
      who: 'the rule “5 clicks”',
      what: 'Switched itself off: the rule “5 clicks”',
    });
    expect(line!.why).toBe(rule.trouble);
    // Who takes that back begins anew: what it promises from now on counts.
    await undoEntry(...by(), line!.id);
    expect(await theRule()).toMatchObject({ state: 'on', trouble: null });
    expect(await letWork()).toMatchObject({ stopped: 0 });
    expect((await theRule()).state).toBe('on');
  });

  test('is kept where enough came', async () => {
    await letAct({ leastKept: 0 });
    await letWork();
    await world.work();
    await letWeeksPass(2);
    expect(await letWork()).toMatchObject({ stopped: 0 });
    expect((await theRule()).state).toBe('on');
  });
});
