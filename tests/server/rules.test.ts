import { sum } from 'd3';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import type { Change, Condition, Rule } from '@/core';
import { FindingsViewSchema, type FindingPile } from '@/contracts/findings';
import { RulesViewSchema, RuleVersionsViewSchema, TrialViewSchema } from '@/contracts/rules';
import { addAccount } from '@/server/use-cases/account/add-account';
import { askForLoad, takeIn } from '@/server/use-cases/intake/take-in';
import { fetchReport, moveClock } from '@/server/use-cases/intake/fetch-report';
import { askToTakeBack } from '@/server/use-cases/intake/take-back-load';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { decideFindings } from '@/server/use-cases/rules/decide-findings';
import { viewFindings } from '@/server/use-cases/rules/findings';
import { changeRule, keepRule, setRuleStates } from '@/server/use-cases/rules/keep-rules';
import { bringRules, writeRuleFile } from '@/server/use-cases/rules/rule-files';
import { runRules } from '@/server/use-cases/rules/run-rules';
import { tryRule } from '@/server/use-cases/rules/try-rule';
import { viewRules, viewVersions } from '@/server/use-cases/rules/view-rules';
import { setVerdict } from '@/server/use-cases/sift/set-verdict';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => (world = await makeWorld()));
afterAll(() => world.close());

const at = () => [world.deps, world.slug] as const;
const by = () => [world.deps, world.slug, world.personId] as const;
const NOTHING: Condition = { of: 'conversions', is: 'at most', value: 0 };
const clicks = (value: number): Condition => ({ of: 'clicks', is: 'at least', value });
const aRule = (over: Partial<Rule> = {}): Rule => ({
  ...{ when: [clicks(15), NOTHING], lookBack: { days: 30, lagDays: 2 } },
  ...{ where: { is: 'everywhere', campaigns: [] }, then: { do: 'stop', at: 'ad group' } },
  ...{ how: { is: 'by approval' }, often: 'after each report' },
  ...over,
});

async function findings(pile: FindingPile = 'open') {
  const view = await viewFindings(...at(), { pile });
  expect(v.parse(FindingsViewSchema, view)).toEqual(view);
  return view;
}
async function trial(rule: Rule) {
  const view = await tryRule(...at(), { rule });
  expect(v.parse(TrialViewSchema, view)).toEqual(view);
  return view;
}
const terms = async (pile?: FindingPile) => (await findings(pile)).lines.map(({ term }) => term).sort();
/** With the days and the clicks that the rules saw. */
const found = async () =>
  (await findings()).lines.map(({ term, to, clicks: seen }) => `${term} ${to} ${seen}`);
const lastEntry = async () => {
  const row = await world.db('ledger_entry').orderBy('ledger_entry_id', 'desc').first();
  return { id: row.ledger_entry_id as number, what: row.what as string };
};
/** Terms with so many clicks and no conversion in the days of a look-back, by plain SQL. */
async function expected(least: number, from: string, to: string): Promise<string[]> {
  const { rows } = await world.db.raw<{ rows: { key: string }[] }>(
    `select term.key from term_day join term using (account_id, term_id)
      where day between :from and :to and kind in ('query', 'code')
      group by term.key having sum(clicks) >= :least and sum(conversions) = 0 order by 1`,
    { from, to, least },
  );
  return rows.map(({ key }) => key).sort();
}

describe('a trial', () => {
  test('tells day by day what a rule would have saved and lost, and what its neighbours would have', async () => {
    const view = await trial(aRule());
    expect(view).toMatchObject({ from: '2026-11-12', to: '2026-11-20', waitsFor: null });
    expect(view.lines.map(({ rule, isOwn }) => [rule.when[0], isOwn])).toEqual([
      [clicks(10), false],
      [clicks(15), true],
      [clicks(20), false],
    ]);
    const [looser, own, tighter] = view.lines;
    expect(own!.terms).toBeGreaterThan(0);
    expect(looser!.terms).toBeGreaterThanOrEqual(own!.terms);
    expect(own!.terms).toBeGreaterThanOrEqual(tighter!.terms);
    expect(sum(view.savedMicros)).toBe(own!.savedMicros);
    expect(sum(view.lostMicros)).toBeCloseTo(own!.lostMicros);
    expect(sum(view.stops)).toBe(own!.terms);
    expect(view.stopped).toHaveLength(own!.terms);
    // By the plain figures: the first evening on which the days before the lag hold 15 clicks, and no conversion.
    const [first] = view.stopped;
    const { rows } = await world.db.raw<{ rows: { day: string; clicks: number; cost: number }[] }>(
      `select to_char(day, 'YYYY-MM-DD') as day, sum(clicks) as clicks, sum(cost_micros) as cost
         from term_day join term using (account_id, term_id) where key = :key group by day order by day`,
      { key: first!.term },
    );
    const known = (evening: string) =>
      sum(
        rows.filter(({ day }) => day <= shift(evening, -2)),
        (row) => Number(row.clicks),
      );
    expect(known(first!.day)).toBe(first!.clicks);
    expect(known(first!.day)).toBeGreaterThanOrEqual(15);
    expect(known(shift(first!.day, -1))).toBeLessThan(15);
    const later = rows.filter(({ day }) => day > first!.day);
    expect(first!.savedMicros).toBe(sum(later, (row) => Number(row.cost)));
  });

  test('names who was wrongly stopped, with what came later', async () => {
    const view = await trial(aRule({ when: [clicks(1)], lookBack: { days: 30, lagDays: 0 } }));
    const own = view.lines.find(({ isOwn }) => isOwn)!;
    expect(own.lostConversions).toBeGreaterThan(0);
    expect(own.wrong.total).toBeGreaterThan(0);
    for (const { lostConversions } of own.wrong.first) expect(lostConversions).toBeGreaterThan(0);
    expect(own.lostMicros).toBeCloseTo(18_000_000 * own.lostConversions);
    expect(view.worst).not.toBeNull();
  });

  test('looks where the rule says, and at the words that it names', async () => {
    const { campaigns } = await viewRules(...at());
    const courses = campaigns.find(({ name }) => name === 'Courses')!.id;
    const loose = { when: [clicks(1)], lookBack: { days: 30, lagDays: 0 } };
    const all = (await trial(aRule(loose))).stopped.map(({ term }) => term).sort();
    const inIt = await trial(aRule({ ...loose, where: { is: 'in', campaigns: [courses] } }));
    const notInIt = await trial(aRule({ ...loose, where: { is: 'not in', campaigns: [courses] } }));
    const both = [...inIt.stopped, ...notInIt.stopped].map(({ term }) => term);
    expect(inIt.stopped.length).toBeGreaterThan(0);
    expect([...new Set(both)].sort()).toEqual(all);
    const holds = (is: 'any of' | 'none of') =>
      trial(aRule({ ...loose, when: [clicks(1), { of: 'words', is, words: ['movie', 'bee course'] }] }));
    const [any, none] = [await holds('any of'), await holds('none of')];
    for (const { term } of any.stopped) expect(term).toMatch(/\bmovie\b|\bbee course\b/);
    expect(any.stopped.length).toBeGreaterThan(0);
    expect(any.stopped.length + none.stopped.length).toBe(all.length);
  });

  test('says what a rule waits for, and does nothing until then', async () => {
    expect(await trial(aRule({ where: { is: 'in', campaigns: ['999'] } }))).toMatchObject({
      ...{ waitsFor: 'a campaign that is gone', lines: [], stopped: [] },
    });
    const { campaigns } = await viewRules(...at());
    const { id } = campaigns[0]!;
    const turn = async (status: string) => {
      await world.db('campaign').where({ campaign_id: id }).update({ status });
      await world.db('account').where({ account_id: world.accountId }).increment({ data_version: 1 });
    };
    await turn('removed');
    expect((await trial(aRule({ where: { is: 'in', campaigns: [id] } }))).waitsFor).toBe(
      'a campaign that is gone',
    );
    expect((await viewRules(...at())).campaigns).toHaveLength(campaigns.length - 1);
    await turn('live');
    expect((await trial(aRule({ then: { do: 'stop in list', list: '999' } }))).waitsFor).toBe(
      'a list that is gone',
    );
  });
});

const shift = (day: string, by: number) =>
  new Date(Date.parse(`${day}T00:00:00Z`) + by * 86_400_000).toISOString().slice(0, 10);

describe('a rule that is switched on', () => {
  let ruleId: number;

  test('finds what meets it, once for each version of the facts', async () => {
    ({ ruleId } = await keepRule(...by(), {
      name: '5 clicks',
      rule: aRule({ when: [clicks(5), NOTHING] }),
      state: 'on',
    }));
    expect((await lastEntry()).what).toBe('Switched on: the rule “5 clicks”');
    const queued = await world.db.raw<{ rows: unknown[] }>(
      `select from graphile_worker.jobs where task_identifier = 'run-rules'`,
    );
    expect(queued.rows.length).toBe(1);
    const looked = await Promise.all([
      runRules(world.deps, world.accountId),
      runRules(world.deps, world.accountId),
    ]);
    expect(looked.sort()).toEqual([0, 1]);
    expect(await runRules(world.deps, world.accountId)).toBe(0);
    expect(await terms()).toEqual(await expected(5, '2026-10-20', '2026-11-18'));
    const view = await viewRules(...at());
    expect(v.parse(RulesViewSchema, view)).toEqual(view);
    expect(view.rules).toMatchObject([{ id: ruleId, state: 'on', looked: '2026-11-20', version: 1 }]);
    expect(view.rules[0]!.open).toBe((await findings()).counts.open);
  });

  test('proposes a stop where the term ran; a yes is a change in the tray, and an undo brings the finding back', async () => {
    const [first] = (await findings()).lines;
    expect(first!.changes).toMatchObject([
      { kind: 'add negative', text: first!.term, match: 'exact', place: { kind: 'adGroup' } },
    ]);
    const outcomes = await draftChanges(
      ...by(),
      first!.changes.map((change) => ({ change })),
    );
    expect(await terms()).not.toContain(first!.term);
    const ids = outcomes.map((one) => (one.outcome === 'drafted' ? one.changeId : 0));
    await removeFromTray(...at(), ids);
    expect(await terms()).toContain(first!.term);
  });

  test('does not propose what ran before the window alone and is stopped by now', async () => {
    const { open } = (await findings()).counts;
    const [first] = (await findings()).lines;
    // In a window of one day the term may not be there: what stops it is asked of the account, not of the window.
    const ofOneDay = await viewFindings(...at(), { pile: 'open', days: 1 });
    expect(ofOneDay.counts.open).toBe(open);
    expect(ofOneDay.lines.find(({ term }) => term === first!.term)!.changes).toEqual(first!.changes);
    const [change] = first!.changes;
    const outcomes = await draftChanges(...by(), [
      { change: { ...change!, match: 'broad', place: { kind: 'account', id: null } } as Change },
    ]);
    expect((await viewFindings(...at(), { pile: 'open', days: 1 })).counts.open).toBeLessThan(open);
    await removeFromTray(
      ...at(),
      outcomes.map((one) => (one.outcome === 'drafted' ? one.changeId : 0)),
    );
  });

  test('excludes a product code as it is written', async () => {
    const code = (await findings()).lines.find(({ term }) => term === 'lk-2041');
    expect(code!.changes).toMatchObject([
      { kind: 'exclude product', code: 'LK-2041', place: { kind: 'adGroup' } },
    ]);
  });

  test('does not propose what was kept', async () => {
    const [first] = (await findings()).lines;
    await setVerdict(...by(), { raw: first!.term, verdict: { is: 'kept', note: null } });
    expect(await terms()).not.toContain(first!.term);
    await undoEntry(...by(), (await lastEntry()).id);
    expect(await terms()).toContain(first!.term);
  });

  test('does not propose again what was refused, and brings back what was to wait', async () => {
    const [refused, later] = (await findings()).lines;
    await decideFindings(...by(), { ids: [refused!.id], is: 'refused', why: 'a brand of ours' });
    await decideFindings(...by(), { ids: [later!.id], is: 'later', why: '' });
    expect(await terms()).not.toContain(refused!.term);
    expect((await findings('refused')).lines).toMatchObject([
      { term: refused!.term, decided: { why: 'a brand of ours', by: 'Maren Oakes', until: null } },
    ]);
    expect(await terms('later')).toEqual([later!.term]);
    await world.db('finding').where({ finding_id: later!.id }).update({ until: '2026-11-01' });
    expect(await terms()).toContain(later!.term);
    await world
      .db('account')
      .where({ account_id: world.accountId })
      .increment({ facts_version: 1, data_version: 1 });
    expect(await runRules(world.deps, world.accountId)).toBe(1);
    expect(await terms('refused')).toEqual([refused!.term]);
    await decideFindings(...by(), { ids: [refused!.id, later!.id], is: 'open', why: '' });
    expect(await terms()).toContain(refused!.term);
    await undoEntry(...by(), (await lastEntry()).id);
    expect(await terms('refused')).toEqual([refused!.term]);
    await decideFindings(...by(), { ids: [refused!.id, later!.id], is: 'open', why: '' });
    await expect(decideFindings(...by(), { ids: [99_999], is: 'open', why: '' })).rejects.toThrow(
      'None of these findings is there any more',
    );
  });

  test('reads otherwise as its next version, and as before by an undo', async () => {
    const stricter = {
      ruleId,
      name: '40 clicks',
      rule: aRule({ when: [clicks(40), NOTHING] }),
      why: 'too many',
    };
    expect(await changeRule(...by(), { ...stricter, version: 1 })).toMatchObject({ version: 2 });
    await expect(changeRule(...by(), { ...stricter, version: 1 })).rejects.toThrow('meanwhile');
    const entry = await lastEntry();
    await runRules(world.deps, world.accountId);
    expect(await terms()).toEqual(await expected(40, '2026-10-20', '2026-11-18'));
    await undoEntry(...by(), entry.id);
    await runRules(world.deps, world.accountId);
    expect(await terms()).toEqual(await expected(5, '2026-10-20', '2026-11-18'));
    const view = await viewVersions(...at(), ruleId);
    expect(v.parse(RuleVersionsViewSchema, view)).toEqual(view);
    expect(view.versions.map(({ version, name, why }) => [version, name, why])).toEqual([
      [3, '5 clicks', ''],
      [2, '40 clicks', 'too many'],
      [1, '5 clicks', ''],
    ]);
    await expect(viewVersions(...at(), 9_999)).rejects.toThrow('There is no such rule.');
  });

  test('is switched off with all others at once, finds nothing then, and is on again by an undo', async () => {
    const other = await keepRule(...by(), { name: 'Another', rule: aRule(), state: 'on' });
    const off = [ruleId, other.ruleId].map((id) => ({ id, state: 'off' as const }));
    const { said, was } = await setRuleStates(...by(), off);
    expect(said).toBe('Switched off: 2 rules');
    expect(was.map(({ state }) => state)).toEqual(['on', 'on']);
    expect(await terms()).toEqual([]);
    expect(await runRules(world.deps, world.accountId)).toBe(0);
    await expect(setRuleStates(...by(), off)).rejects.toThrow('so already');
    await undoEntry(...by(), (await lastEntry()).id);
    expect(await terms()).not.toEqual([]);
    await setRuleStates(...by(), [{ id: other.ruleId, state: 'removed' }]);
    expect((await viewRules(...at())).rules.map(({ name }) => name)).toEqual(['5 clicks']);
    await expect(
      changeRule(...by(), { ruleId: other.ruleId, name: 'x', rule: aRule(), version: 1, why: '' }),
    ).rejects.toThrow('no such rule');
  });

  test('looks again when days come, and when they are taken back', async () => {
    const before = await found();
    await moveClock(...at(), 7);
    const reportFileId = (await fetchReport(...by()))!;
    await world.work();
    await runRules(world.deps, world.accountId);
    const account = await world.db('term_day').max('day as to').first();
    expect((await viewRules(...at())).rules[0]!.looked).toBe(account!.to);
    expect(await found()).not.toEqual(before);
    await askToTakeBack(...at(), reportFileId, world.personId);
    await world.work();
    await runRules(world.deps, world.accountId);
    expect(await found()).toEqual(before);
  });
});

test('a daily rule looks once for each day that comes, one that looks after each report also at days that are told anew', async () => {
  const { ruleId } = await keepRule(...by(), {
    ...{ name: 'Daily', rule: { ...aRule(), often: 'daily' }, state: 'on' },
  });
  const on = (await viewRules(...at())).rules.filter(({ state }) => state === 'on').length;
  expect(on).toBeGreaterThan(1);
  async function lookAfterReport(): Promise<number> {
    await fetchReport(...by());
    await world.work();
    return runRules(world.deps, world.accountId);
  }
  expect(await lookAfterReport()).toBe(on);
  expect(await lookAfterReport()).toBe(on - 1);
  await moveClock(...at(), 1);
  expect(await lookAfterReport()).toBe(on);
  await setRuleStates(...by(), [{ id: ruleId, state: 'removed' }]);
});

test('a rule of one’s own is kept to begin others from: it looks at nothing, and goes by an undo', async () => {
  const { rules, ready } = await viewRules(...at());
  const kept = { name: 'Ours', rule: aRule(), state: 'ready' as const, why: 'they served us well' };
  const { ruleId } = await keepRule(...by(), kept);
  const view = await viewRules(...at());
  expect(v.parse(RulesViewSchema, view)).toEqual(view);
  expect(view.rules).toEqual(rules);
  expect(view.ready).toEqual([
    { ruleId, name: 'Ours', rule: aRule(), reason: 'they served us well' },
    ...ready,
  ]);
  expect(await runRules(world.deps, world.accountId)).toBe(0);
  await undoEntry(...by(), (await lastEntry()).id);
  expect((await viewRules(...at())).ready).toEqual(ready);
  await undoEntry(...by(), (await lastEntry()).id);
  expect((await viewRules(...at())).ready[0]).toMatchObject({ ruleId });
  await setRuleStates(...by(), [{ id: ruleId, state: 'removed' }]);
});

test('ready rules have their numbers by the account, and each can be kept as it is', async () => {
  const { ready } = await viewRules(...at());
  expect(ready.length).toBeGreaterThanOrEqual(10);
  for (const one of ready) {
    expect(one.reason).toMatch(/\.$/);
    await trial(one.rule);
  }
});

describe('rules as a file', () => {
  test('are read back as they were, by the names of campaigns and lists', async () => {
    const { campaigns, lists } = await viewRules(...at());
    const where = { is: 'not in' as const, campaigns: [campaigns[0]!.id] };
    const then = { do: 'stop in list' as const, list: lists[0]!.id };
    const kept = await keepRule(...by(), { name: 'Shared', rule: aRule({ where, then }), state: 'draft' });
    const { content, name } = await writeRuleFile(...at(), [kept.ruleId]);
    expect(name).toBe('rule Shared.json');
    expect(content).toContain(`"${campaigns[0]!.name}"`);
    const { said, ruleIds } = await bringRules(...by(), content);
    expect(said).toBe('1 rule brought from a file, as a draft');
    const { rules } = await viewRules(...at());
    expect(rules.find(({ id }) => id === ruleIds[0])).toMatchObject({
      ...{ name: 'Shared', state: 'draft', rule: aRule({ where, then }) },
    });
    await undoEntry(...by(), (await lastEntry()).id);
    expect((await viewRules(...at())).rules.map(({ id }) => id)).not.toContain(ruleIds[0]);
    expect(JSON.parse((await writeRuleFile(...at(), undefined)).content).rules.length).toBe(rules.length - 1);
    await expect(writeRuleFile(...at(), [9_999])).rejects.toThrow('There is no rule to save.');
  });

  test.each([
    ['{', /^This is no JSON: .* Nothing was brought\.$/],
    ['[]', /Nothing was brought\.$/],
    ['{"holds":"lists"}', /^holds: This is no file of rules/],
    [fileOf({ ...aRule(), when: [] }), /^rules\[0\]\.rule\.when: A rule needs a condition\./],
    [fileOf(aRule({ when: [clicks(-1)] })), /^rules\[0\]\.rule\.when\[0\]\.value: A figure is 0 or more\./],
    [
      fileOf(aRule(), aRule({ where: { is: 'in', campaigns: ['Nowhere'] } })),
      /^rules\[1\]\.rule\.where\.campaigns: there is no campaign “Nowhere” in this account\. Take it out/,
    ],
    [fileOf(aRule({ then: { do: 'stop in list', list: 'None' } })), /there is no list “None”/],
  ])('a broken one is refused with place and reason: %#', async (text, reason) => {
    const before = (await viewRules(...at())).rules.length;
    await expect(bringRules(...by(), text)).rejects.toThrow(reason);
    expect((await viewRules(...at())).rules).toHaveLength(before);
  });
});

function fileOf(...rules: Rule[]): string {
  return JSON.stringify({
    holds: 'rules of Gate Post',
    rules: rules.map((rule, i) => ({ name: `Rule ${i}`, rule })),
  });
}

test('a trial sees what a later load brought from that load on', async () => {
  const slug = await loadTwice();
  // By the figures as they are now the term converted on the first day, and no rule would stop it.
  const rule = aRule({ when: [clicks(10), NOTHING], lookBack: { days: 30, lagDays: 0 } });
  const view = await tryRule(world.deps, slug, { rule });
  expect(view.approximateTo).toBe('2026-10-03');
  expect(view.stopped).toMatchObject([
    { term: 'late hive', day: '2026-10-03', clicks: 12, lostConversions: 0 },
  ]);
  const sooner = await tryRule(world.deps, slug, {
    rule: { ...rule, lookBack: { days: 30, lagDays: 2 } },
  });
  expect(sooner.stopped).toEqual([]);
});

/** An account without a platform. The second report says of the days of the first one that a conversion came late. */
async function loadTwice(): Promise<string> {
  const { deps, personId } = world;
  const { slug } = await addAccount(
    deps,
    { name: 'Late', currency: 'EUR', target: '20', steersBy: 'CPA' },
    personId,
  );
  const report = (conversions: number, days: number) =>
    [
      'Day,Search term,Campaign,Ad group,Impressions,Clicks,Cost,Conversions',
      ...Array.from({ length: days }, (_, i) =>
        [
          `2026-10-0${i + 1}`,
          'late hive',
          'Hives',
          'Starter',
          40,
          4,
          '2.00',
          i === 0 ? conversions : 0,
        ].join(),
      ),
    ].join('\n');
  for (const text of [report(0, 3), report(1, 5)]) {
    async function* bytes() {
      yield Buffer.from(text);
    }
    const [file] = await takeIn(deps, slug, { name: 'days.csv', source: 'file', personId }, bytes());
    await askForLoad(deps, slug, file!.id, {});
    await world.work();
  }
  return slug;
}
