import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { inverse, type Condition, type Rule } from '@/core';
import { TrialViewSchema } from '@/contracts/rules';
import { tryRule } from '@/server/use-cases/rules/try-rule';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { refusalOf, rulesOf } from '../support/rules';
import { makeWorld, type World } from '../support/world';

/** Rules on campaigns: what they spend of their budgets, and the budgets that a yes sets. */

const DAYS = 60;
let world: World;
/** live campaigns by what they cost, the costliest first */
let spent: { id: number; name: string; share: number }[];

beforeAll(async () => {
  world = await makeWorld();
  const { rows } = await world.db.raw<{ rows: typeof spent }>(
    `select c.campaign_id as id, c.name,
            cast(sum(d.cost_micros) as double precision) / :days / c.budget_micros as share
       from term_day d join ad_group using (account_id, ad_group_id) join campaign c using (account_id, campaign_id)
      where d.account_id = :id and c.status = 'live' group by c.campaign_id, c.name, c.budget_micros
      order by sum(d.cost_micros) desc`,
    { id: world.accountId, days: DAYS },
  );
  spent = rows;
  expect(spent.length).toBeGreaterThan(1);
});
afterAll(() => world.close());

const at = () => [world.deps, world.slug] as const;
const by = () => [world.deps, world.slug, world.personId] as const;
const { findings, whileOn, found } = rulesOf(() => world);
const spends = (share: number): Condition => ({ of: 'budget', is: 'at least', share });
const aRule = (over: Partial<Rule> = {}): Rule => ({
  ...{ about: 'campaigns', when: [spends(0)], lookBack: { days: DAYS, lagDays: 0 } },
  ...{ where: { is: 'everywhere', campaigns: [] }, how: { is: 'by approval' }, often: 'after each report' },
  then: { do: 'raise budget', byShare: 0.2, mostMicros: 100_000_000 },
  ...over,
});
const names = () => spent.map(({ name }) => name);

describe('a rule on campaigns', () => {
  test('finds live ones by what share of their budget they spend; tried, it says the same', async () => {
    expect(await found(aRule())).toEqual(names().sort());
    expect(await found(aRule({ when: [spends(spent[0]!.share * 0.999)] }))).toEqual([names()[0]]);
    expect(await found(aRule({ when: [spends(spent[0]!.share * 1.001)] }))).toEqual([]);
    const trial = await tryRule(...at(), { rule: aRule() });
    expect(v.parse(TrialViewSchema, trial)).toEqual(trial);
    expect(trial.stopped.map(({ term }) => term).sort()).toEqual(names().sort());
  });

  test('looks where it is told', async () => {
    const where: Rule['where'] = { is: 'not in', campaigns: [String(spent[0]!.id)] };
    expect(await found(aRule({ where }))).toEqual(names().slice(1).sort());
  });

  test('proposes a budget up to its most; a yes is sent, read back, and undone', async () => {
    const mostMicros = 55_000_000;
    await whileOn(aRule({ then: { do: 'raise budget', byShare: 0.2, mostMicros } }), async () => {
      const [first] = await findings();
      const change = {
        ...{ kind: 'set budget' as const, campaignId: String(spent[0]!.id) },
        ...{ budgetMicros: mostMicros, wasMicros: 50_000_000 },
      };
      expect(first).toMatchObject({ about: 'campaigns', changes: [change], place: expect.any(String) });
      expect(first!.place).toContain('55.00');
      await draftChanges(...by(), [{ change }]);
      expect((await findings()).map(({ term }) => term)).toEqual(names().slice(1));
      await sendTray(...by());
      await world.work();
      const budgetOf = async () =>
        (await world.db('campaign').where({ campaign_id: spent[0]!.id }).first('budget_micros'))
          .budget_micros;
      expect(await budgetOf()).toBe(mostMicros);
      const line = (await viewLedger(...at())).lines.find((one) => one.change !== null)!;
      expect(line.change).toMatchObject({ state: 'there', undo: inverse(change) });
      await draftChanges(...by(), [{ change: inverse(change) }]);
      await sendTray(...by());
      await world.work();
      expect(await budgetOf()).toBe(50_000_000);
    });
  });

  test('finds none without a budget of its own, and only tells of them', async () => {
    const campaigns = () => world.db('campaign').where({ campaign_id: spent[0]!.id });
    await campaigns().update({ shared_budget: 'Both' });
    await world.db('account').where({ account_id: world.accountId }).increment('data_version');
    try {
      expect(await found(aRule())).toEqual(names().slice(1).sort());
      const tells = aRule({ when: [{ of: 'clicks', is: 'at least', value: 1 }], then: { do: 'tell' } });
      expect(await found(tells)).toEqual(names().sort());
    } finally {
      await campaigns().update({ shared_budget: null });
      await world.db('account').where({ account_id: world.accountId }).increment('data_version');
    }
  });

  test.each<[Partial<Rule>, string]>([
    [{ then: { do: 'pause' } }, 'Keywords are paused'],
    [{ then: { do: 'keep' } }, 'Of a campaign the budget is raised'],
    [{ about: undefined }, 'A condition on “budget” means nothing for terms.'],
    [{ when: [{ of: 'words', is: 'any of', words: ['bee'] }] }, 'A condition on “words” means nothing'],
    [{ where: { is: 'in', campaigns: [], productGroups: ['Hives'] } }, 'A campaign is looked at as a whole'],
    [
      {
        then: { do: 'tell' },
        how: { is: 'by itself', bounds: { changesADay: 1, costADayMicros: 1, leastKept: 0.5 } },
      },
      'does so after a yes.',
    ],
  ])('a sentence that makes no sense is refused: %j', (over, says) => {
    expect(refusalOf(aRule(over))).toContain(says);
  });
});
