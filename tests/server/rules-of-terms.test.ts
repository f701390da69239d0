import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { group, sum } from 'd3';
import { shrinkRates, type Condition, type Rule, type RuleAction } from '@/core';
import { TrialViewSchema } from '@/contracts/rules';
import { setOwnTargets } from '@/server/use-cases/account/own-targets';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { decideFindings } from '@/server/use-cases/rules/decide-findings';
import { giveVerdictsOfFindings } from '@/server/use-cases/rules/give-verdicts-of-findings';
import { keepRule } from '@/server/use-cases/rules/keep-rules';
import { bringRules, writeRuleFile } from '@/server/use-cases/rules/rule-files';
import { tryRule } from '@/server/use-cases/rules/try-rule';
import { viewRules } from '@/server/use-cases/rules/view-rules';
import { workByRules } from '@/server/use-cases/rules/work-by-rules';
import { viewKept } from '@/server/use-cases/sift/set-verdict';
import { rulesOf } from '../support/rules';
import { makeWorld, type World } from '../support/world';

/** What a rule can say of search terms besides their figures, and what it can do but stop them. */

let world: World;
beforeAll(async () => (world = await makeWorld()));
afterAll(() => world.close());

const at = () => [world.deps, world.slug] as const;
const by = () => [world.deps, world.slug, world.personId] as const;
const { findings, whileOn, found } = rulesOf(() => world);
const clicks = (value: number): Condition => ({ of: 'clicks', is: 'at least', value });
const aRule = (over: Partial<Rule> = {}): Rule => ({
  ...{ when: [clicks(1)], lookBack: { days: 60, lagDays: 0 } },
  ...{ where: { is: 'everywhere', campaigns: [] }, then: { do: 'tell' } },
  ...{ how: { is: 'by approval' }, often: 'after each report' },
  ...over,
});
type Row = { adGroup: number; key: string; clicks: number; conversions: number; cost: number };
const STOP: RuleAction = { do: 'stop', at: 'ad group' };
const KEEP: RuleAction = { do: 'keep' };

async function trial(rule: Rule, ruleId?: number) {
  const view = await tryRule(...at(), { rule, ruleId });
  expect(v.parse(TrialViewSchema, view)).toEqual(view);
  return view;
}
/** Terms with a click, by plain SQL. */
async function terms(where: string, bindings: object = {}): Promise<string[]> {
  const { rows } = await world.db.raw<{ rows: { key: string }[] }>(
    `select t.key from term_day d
       join term t using (account_id, term_id)
       join ad_group g on g.account_id = d.account_id and g.ad_group_id = d.ad_group_id
       left join keyword k on k.account_id = d.account_id and k.keyword_id = d.keyword_id
      where d.account_id = :id and t.kind in ('query', 'code') and ${where}
      group by t.key having sum(d.clicks) >= 1`,
    { id: world.accountId, ...bindings },
  );
  return rows.map(({ key }) => key).sort();
}
const touch = () =>
  world.db('account').where({ account_id: world.accountId }).increment({ data_version: 1, facts_version: 1 });
const lastEntry = async () => {
  const row = await world.db('ledger_entry').orderBy('ledger_entry_id', 'desc').first();
  return { id: row.ledger_entry_id as number, what: row.what as string };
};

describe('a rule says', () => {
  test('which keywords served the term', async () => {
    for (const match of ['broad', 'automatic'] as const) {
      const rule = aRule({ where: { is: 'everywhere', campaigns: [], servedBy: [match] } });
      const expected = await terms('k.match = :match', { match });
      expect(expected.length).toBeGreaterThan(0);
      expect(await found(rule)).toEqual(expected);
      expect((await trial(rule)).stopped.map(({ term }) => term).sort()).toEqual(expected);
    }
    expect(await terms("k.match = 'broad'")).not.toContain('lk-2041');
  });

  test('of which product group it is, and which label its campaign has; what is gone is waited for', async () => {
    const { rows } = await world.db.raw<{ rows: { id: number; campaign: number }[] }>(
      `select ad_group_id as id, campaign_id as campaign from ad_group where name in ('Starter', 'Weekend') order by name`,
    );
    const [starter, weekend] = rows;
    await setOwnTargets(...by(), {
      campaigns: [],
      productGroups: [{ name: 'Hives', target: '', adGroupIds: [String(starter!.id)] }],
    });
    await world
      .db('campaign')
      .where({ campaign_id: weekend!.campaign })
      .update({ label: ['season'] });
    await touch();
    const { labels, productGroups } = await viewRules(...at());
    expect([labels, productGroups]).toEqual([['season'], ['Hives']]);
    const named = { campaigns: [], labels: ['season'], productGroups: ['Hives'] };
    const isThere = 'd.ad_group_id in (:starter, :weekend)';
    const ids = { starter: starter!.id, weekend: weekend!.id };
    const inside = await terms(isThere, ids);
    expect(inside.length).toBeGreaterThan(1);
    expect(await found(aRule({ where: { is: 'in', ...named } }))).toEqual(inside);
    expect(await found(aRule({ where: { is: 'not in', ...named } }))).toEqual(
      await terms(`not ${isThere}`, ids),
    );
    const waits = async (where: Partial<Rule['where']>) =>
      (await trial(aRule({ where: { is: 'in', campaigns: [], ...where } }))).waitsFor;
    expect(await waits({ labels: ['winter'] })).toBe('a label that no campaign has');
    expect(await waits({ productGroups: ['Suits', 'Boots'] })).toBe('2 product groups that are gone');
    expect(await waits({})).toBe('campaigns: none is named');
  });

  test('whether it is words or a product code', async () => {
    expect(await found(aRule({ when: [clicks(1), { of: 'kind', is: 'codes' }] }))).toEqual(['lk-2041']);
    const words = await found(aRule({ when: [clicks(1), { of: 'kind', is: 'words' }] }));
    expect(words).toEqual((await terms('true')).filter((term) => term !== 'lk-2041'));
  });

  test('how often it is searched for; what nobody knows meets nothing', async () => {
    const [sheet] = await world
      .db('research_sheet')
      .insert({ account_id: world.accountId, name: 'Hives', made_by: world.personId })
      .returning<{ research_sheet_id: number }[]>('research_sheet_id');
    const volumes: Record<string, number> = {
      'bee hive kit': 900,
      'bee hive movie': 90,
      'no such term': 900,
    };
    for (const [key, volume] of Object.entries(volumes))
      await world
        .db('research_idea')
        .insert({ account_id: world.accountId, ...sheet!, key, volume, sources: [1] });
    const searched = (is: 'at least' | 'at most') =>
      found(aRule({ when: [clicks(1), { of: 'searches', is, value: 500 }] }));
    expect(await searched('at least')).toEqual(['bee hive kit']);
    expect(await searched('at most')).toEqual(['bee hive movie']);
  });

  test('what its ad groups pay as a whole, whatever the target is', async () => {
    const { rows } = await world.db.raw<{ rows: Row[] }>(
      `select d.ad_group_id as "adGroup", t.key, sum(d.clicks)::float as clicks, sum(d.conversions)::float as conversions,
              sum(d.cost_micros)::float as cost
         from term_day d join term t using (account_id, term_id) join account a using (account_id)
        where d.account_id = :id and t.kind = 'query'
          and d.day <= (select max(day) from term_day where account_id = :id) - a.lag_days
        group by 1, 2`,
      { id: world.accountId },
    );
    const adGroups = [...new Set(rows.map(({ adGroup }) => adGroup))];
    const sums = (what: (row: Row) => number) =>
      Float64Array.from(adGroups, (id) =>
        sum(
          rows.filter(({ adGroup }) => adGroup === id),
          what,
        ),
      );
    const clicks = sums((row) => row.clicks);
    const { rates } = shrinkRates(
      clicks,
      sums((row) => Math.min(row.conversions, row.clicks)),
    )!;
    const pays = sums((row) => row.cost).map((cost, g) => cost / clicks[g]! / rates[g]!);
    const dear = await world.db.raw<{ rows: Row[] }>(
      `select d.ad_group_id as "adGroup", t.key, sum(d.clicks)::float as clicks, sum(d.conversions)::float as conversions,
              sum(d.cost_micros)::float as cost
         from term_day d join term t using (account_id, term_id)
        where d.account_id = :id and t.kind = 'query' group by 1, 2`,
      { id: world.accountId },
    );
    const expected = [...group(dear.rows, ({ key }) => key)].flatMap(([key, of]) => {
      const own =
        sum(of, (row) => row.clicks) / sum(of, (row) => row.clicks / pays[adGroups.indexOf(row.adGroup)]!);
      const may =
        1.5 *
        own *
        Math.max(
          1,
          sum(of, (row) => row.conversions),
        );
      return sum(of, (row) => row.cost) > may ? [key] : [];
    });
    expect(expected.length).toBeGreaterThan(0);
    const is: Condition[] = [
      { of: 'ad groups', is: 'above', times: 1.5 },
      { of: 'kind', is: 'words' },
    ];
    expect(await found(aRule({ when: is }))).toEqual(expected.sort());
  });

  test('how many days ago it was seen first, though the rule looks at fewer', async () => {
    await world.load(
      'Day,Campaign,Ad group,Search term,Clicks,Cost\n2026-11-10,Hives,Starter,old lamp,3,1.20\n2026-11-19,Hives,Starter,old lamp,3,1.20\n2026-11-19,Hives,Starter,new lamp,3,1.20\n',
    );
    const lamps = (is: 'at least' | 'at most') =>
      found(
        aRule({
          when: [clicks(3), { of: 'words', is: 'any of', words: ['lamp'] }, { of: 'age', is, days: 5 }],
          lookBack: { days: 3, lagDays: 0 },
        }),
      );
    expect(await lamps('at least')).toEqual(['old lamp']);
    expect(await lamps('at most')).toEqual(['new lamp']);
  });
});

describe('a rule that does not stop', () => {
  const KIT = { of: 'words' as const, is: 'any of' as const, words: ['kit'] };

  test('keeps a term open with a yes; the Ledger has it, with its undo', async () => {
    await whileOn(aRule({ when: [clicks(1), KIT], then: KEEP }), async () => {
      const [line] = await findings();
      expect(line).toMatchObject({
        ...{ term: 'bee hive kit', changes: [], verdict: { is: 'kept' }, place: 'kept open', against: [] },
      });
      const give = (is: 'given' | 'taken back') => giveVerdictsOfFindings(...by(), { ids: [line!.id], is });
      expect(await give('given')).toEqual({ said: 'Keep 1 term open' });
      expect((await viewKept(...at())).kept).toMatchObject([
        { text: 'bee hive kit', note: 'found by the rule “Rule to keep”', by: 'Maren Oakes' },
      ]);
      expect(await findings()).toEqual([]);
      await undoEntry(...by(), (await lastEntry()).id);
      expect((await findings()).map(({ term }) => term)).toEqual(['bee hive kit']);
      await give('given');
      await give('taken back');
      expect((await viewKept(...at())).kept).toEqual([]);
      await expect(giveVerdictsOfFindings(...by(), { ids: [99_999], is: 'given' })).rejects.toThrow(
        'None of these findings is there any more',
      );
    });
  });

  test('sets a term aside until it has more clicks, a product code as it is written', async () => {
    const then: RuleAction = { do: 'set aside', moreClicks: 12 };
    await whileOn(aRule({ when: [clicks(1), { of: 'kind', is: 'codes' }], then }), async () => {
      const [line] = await findings();
      expect(line).toMatchObject({ verdict: { is: 'aside', moreClicks: 12 }, changes: [] });
      await giveVerdictsOfFindings(...by(), { ids: [line!.id], is: 'given' });
      expect(await world.db('set_aside').select('key', 'raw', 'more_clicks')).toEqual([
        { key: 'lk-2041', raw: 'LK-2041', more_clicks: 12 },
      ]);
      expect(await findings()).toEqual([]);
      await undoEntry(...by(), (await lastEntry()).id);
      expect(await findings()).toHaveLength(1);
    });
  });

  test('does not propose to keep a product code: no negative stops it', async () => {
    expect(await found(aRule({ when: [clicks(1), { of: 'kind', is: 'codes' }], then: KEEP }))).toEqual([]);
  });
});

describe('two rules that want the opposite', () => {
  const stopping = aRule({ when: [clicks(1)], then: STOP });
  const keeping = aRule({
    when: [clicks(1), { of: 'words', is: 'any of', words: ['kit', 'movie'] }],
    then: KEEP,
  });

  test('are told before one of them is switched on, and at what both find', async () => {
    await whileOn(keeping, async (ruleId) => {
      const { against } = await trial(stopping);
      expect(against).toMatchObject([{ rule: 'Rule to keep', does: 'keep', terms: 3 }]);
      expect(against[0]!.first).toContain('bee hive kit');
      expect((await trial({ ...keeping, then: STOP }, ruleId)).against).toEqual([]); // of itself it says nothing
      expect((await trial(aRule({ then: { do: 'tell' } }))).against).toEqual([]);
      await whileOn(stopping, async () => {
        const differ = (await findings()).filter((one) => one.against.length > 0);
        expect(differ).toHaveLength(6);
        for (const one of differ)
          expect(one.against).toEqual([one.verdict === null ? 'Rule to keep' : 'Rule to stop']);
      });
    });
  });

  test('leave to somebody what one of them would stop by itself, also when the answer was put off', async () => {
    const bounds = { changesADay: 1_000, costADayMicros: 1e12, leastKept: 0 };
    await whileOn(keeping, async () => {
      const [first] = await findings();
      await decideFindings(...by(), { ids: [first!.id], is: 'later', why: '' });
      await whileOn({ ...stopping, how: { is: 'by itself', bounds } }, async () => {
        await workByRules(world.deps, world.accountId);
        const acted = (await world.db('rule_act').select('term')).map(({ term }) => term as string);
        expect(acted.length).toBeGreaterThan(0);
        for (const term of acted) expect(term).not.toMatch(/kit|movie/);
      });
    });
  });
});

test('a file names labels and product groups, and is refused where they are not here', async () => {
  const where: Rule['where'] = { is: 'in', campaigns: [], labels: ['season'], productGroups: ['Hives'] };
  const rule = aRule({ where: { ...where, servedBy: ['broad'] }, then: { do: 'set aside', moreClicks: 5 } });
  const { ruleId } = await keepRule(...by(), { name: 'Seasonal', rule, state: 'draft' });
  const { content } = await writeRuleFile(...at(), [ruleId]);
  const { ruleIds } = await bringRules(...by(), content);
  expect((await viewRules(...at())).rules.find(({ id }) => id === ruleIds[0])).toMatchObject({ rule });
  await expect(bringRules(...by(), content.replace('"season"', '"winter"'))).rejects.toThrow(
    'rules[0].rule.where.labels: there is no label “winter” in this account.',
  );
  await expect(bringRules(...by(), content.replace('"Hives"', '"Suits"'))).rejects.toThrow(
    'rules[0].rule.where.productGroups: there is no product group “Suits” in this account.',
  );
});

test('stopped as a phrase, a term takes what holds it along, in the trial and in the tray', async () => {
  const words: Condition = { of: 'words', is: 'any of', words: ['bee hive'] };
  const rule = (as?: 'phrase') =>
    aRule({ when: [clicks(1), words], then: { do: 'stop', at: 'campaign', ...(as && { as }) } });
  const [exact, phrase] = [await trial(rule()), await trial(rule('phrase'))];
  const own = ({ lines }: typeof exact) => lines.find(({ isOwn }) => isOwn)!;
  expect(own(phrase).terms).toBe(own(exact).terms);
  expect(own(phrase).savedMicros).toBeGreaterThanOrEqual(own(exact).savedMicros);
  await whileOn(rule('phrase'), async () => {
    const changes = (await findings()).flatMap((one) => one.changes);
    expect(changes.length).toBeGreaterThan(0);
    expect(changes.every((one) => one.kind === 'add negative' && one.match === 'phrase')).toBe(true);
  });
});
