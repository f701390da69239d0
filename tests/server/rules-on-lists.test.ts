import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { inverse, type Condition, type Rule } from '@/core';
import { TrialViewSchema } from '@/contracts/rules';
import { decideFindings } from '@/server/use-cases/rules/decide-findings';
import { keepRule, setRuleStates } from '@/server/use-cases/rules/keep-rules';
import { bringRules, writeRuleFile } from '@/server/use-cases/rules/rule-files';
import { tryRule } from '@/server/use-cases/rules/try-rule';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { refusalOf, rulesOf } from '../support/rules';
import { aQuery, aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

/** Rules on lists: what they would stop where they do not hang, and the campaigns that a yes hangs them on. */

let world: World;
/** ids by name */
let campaign: Record<string, string>;
let list: Record<string, string>;

const EXTRA = [
  aQuery('bee hive salary', { daily: 60 }),
  aQuery('bee hive salary tattoo', { daily: 30 }),
  aQuery('hive stand tattoo', { at: 'G2', daily: 40 }),
];

beforeAll(async () => {
  const seed = aSeed();
  world = await makeWorld({ ...seed, queries: [...seed.queries, ...EXTRA] });
  const idsOf = async (table: string, id: string) =>
    Object.fromEntries(
      (await world.db(table).where({ account_id: world.accountId })).map((row) => [
        row.name,
        String(row[id]),
      ]),
    );
  [campaign, list] = [await idsOf('campaign', 'campaign_id'), await idsOf('shared_list', 'list_id')];
});
afterAll(() => world.close());

const at = () => [world.deps, world.slug] as const;
const by = () => [world.deps, world.slug, world.personId] as const;
const { findings, whileOn, found } = rulesOf(() => world);
const clicks = (value: number): Condition => ({ of: 'clicks', is: 'at least', value });
const aRule = (over: Partial<Rule> = {}): Rule => ({
  ...{ about: 'lists', when: [clicks(1)], lookBack: { days: 60, lagDays: 0 } },
  ...{ where: { is: 'everywhere', campaigns: [] }, how: { is: 'by approval' }, often: 'after each report' },
  then: { do: 'hang', list: null },
  ...over,
});

/** What queries that hold a word brought in a campaign. */
async function broughtBy(word: string, campaignName: string) {
  const { rows } = await world.db.raw<{ rows: { clicks: number; cost: number }[] }>(
    `select cast(sum(d.clicks) as int) as clicks, cast(sum(d.cost_micros) as double precision) as cost
       from term_day d join term t using (account_id, term_id) join ad_group using (account_id, ad_group_id)
       join campaign c using (account_id, campaign_id)
      where d.account_id = :id and c.name = :campaignName and ' ' || t.key || ' ' like '% ' || :word || ' %'`,
    { id: world.accountId, campaignName, word },
  );
  return rows[0]!;
}

describe('a rule on lists', () => {
  test('finds each list where it does not hang and would stop something', async () => {
    expect(await found(aRule())).toEqual(['Old on Courses', 'Old on Hives', 'Work on Hives']);
    const { clicks: brought, cost } = await broughtBy('salary', 'Hives');
    await whileOn(aRule({ when: [clicks(brought)], then: { do: 'hang', list: list.Work! } }), async () => {
      expect(await findings()).toMatchObject([
        {
          ...{ term: 'Work on Hives', about: 'lists', does: 'hang', clicks: brought, costMicros: cost },
          ...{ place: 'hung on Hives', verdict: null },
          changes: [{ kind: 'hang list', listId: list.Work, campaignId: campaign.Hives }],
        },
      ]);
    });
    expect(
      await found(aRule({ when: [clicks(brought + 1)], then: { do: 'hang', list: list.Work! } })),
    ).toEqual([]);
  });

  test('looks where it is told, and at new campaigns only if asked', async () => {
    const where: Rule['where'] = { is: 'not in', campaigns: [campaign.Hives!] };
    expect(await found(aRule({ where }))).toEqual(['Old on Courses']);
    const isNew = (days: number): Condition => ({ of: 'age', is: 'at most', days });
    expect(await found(aRule({ when: [clicks(1), isNew(30)] }))).toHaveLength(3);
    expect(await found(aRule({ when: [clicks(1), isNew(1)] }))).toEqual([]);
  });

  test('leaves out what something else stops there', async () => {
    const change = {
      ...{ kind: 'add negative' as const, text: 'salary', match: 'broad' as const },
      place: { kind: 'campaign' as const, id: campaign.Hives! },
    };
    await draftChanges(...by(), [{ change }]);
    try {
      const tattoo = await broughtBy('hive stand tattoo', 'Hives');
      await whileOn(aRule(), async () => {
        const lines = await findings();
        expect(lines.map(({ term }) => term).sort()).toEqual(['Old on Courses', 'Old on Hives']);
        expect(lines.find(({ term }) => term === 'Old on Hives')!.clicks).toBe(tattoo.clicks);
      });
    } finally {
      const rows = await world.db('change').where({ account_id: world.accountId });
      await removeFromTray(
        ...at(),
        rows.map((row) => row.change_id),
      );
    }
  });

  test('tried on the past, saves what came later, and what two lists stop once', async () => {
    const trial = await tryRule(...at(), { rule: aRule() });
    expect(v.parse(TrialViewSchema, trial)).toEqual(trial);
    expect(trial.stopped.map(({ term }) => term).sort()).toEqual([
      'Old on Courses',
      'Old on Hives',
      'Work on Hives',
    ]);
    const all = await Promise.all([
      ...[broughtBy('salary', 'Hives'), broughtBy('hive stand tattoo', 'Hives')],
      broughtBy('bee course tattoo', 'Courses'),
    ]);
    const total = all.reduce((sum, { cost }) => sum + cost, 0);
    const saved = trial.savedMicros.reduce((sum, micros) => sum + micros, 0);
    expect(saved).toBeGreaterThan(total / 2);
    expect(saved).toBeLessThan(total);
    expect(trial.stopped.reduce((sum, { savedMicros }) => sum + savedMicros, 0)).toBeCloseTo(saved, 0);
  });

  test('a yes hangs it, which is read back and undone; a no names it', async () => {
    await whileOn(aRule({ then: { do: 'hang', list: list.Work! } }), async () => {
      const [only] = await findings();
      const { said } = await decideFindings(...by(), {
        ids: [only!.id],
        is: 'refused',
        why: 'Jobs are sold',
      });
      expect(said).toContain('“Work on Hives”');
      expect(await findings()).toEqual([]);
      await decideFindings(...by(), { ids: [only!.id], is: 'open', why: '' });
      await draftChanges(...by(), [{ change: only!.changes[0]! }]);
      expect(await findings()).toEqual([]);
      await sendTray(...by());
      await world.work();
      const hangsOn = () =>
        world.db('list_hanging').where({ list_id: list.Work, campaign_id: campaign.Hives }).first();
      expect(await hangsOn()).toBeDefined();
      await draftChanges(...by(), [{ change: inverse(only!.changes[0]!) }]);
      await sendTray(...by());
      await world.work();
      expect(await hangsOn()).toBeUndefined();
      expect(await findings()).toHaveLength(1);
    });
  });

  test('names its list in a file, and waits where the list is gone', async () => {
    const rule = aRule({ then: { do: 'hang', list: list.Work! } });
    const { ruleId } = await keepRule(...by(), { name: 'Hang work', rule, state: 'draft' });
    const { content } = await writeRuleFile(...at(), [ruleId]);
    expect(content).toContain('"Work"');
    await setRuleStates(...by(), [{ id: ruleId, state: 'removed' }]);
    const { ruleIds } = await bringRules(...by(), content);
    await setRuleStates(...by(), [{ id: ruleIds[0]!, state: 'removed' }]);
    const gone = await tryRule(...at(), { rule: aRule({ then: { do: 'hang', list: 'nowhere' } }) });
    expect(gone.waitsFor).toBe('a list that is gone');
  });

  test.each<[Partial<Rule>, string]>([
    [{ then: { do: 'keep' } }, 'A list is hung, or only told'],
    [{ about: undefined }, 'A list is hung, or only told'],
    [
      { when: [{ of: 'words', is: 'any of', words: ['bee'] }] },
      'A condition on “words” means nothing for lists.',
    ],
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
