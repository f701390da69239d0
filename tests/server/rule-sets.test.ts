import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import type { Condition, Rule, RuleAction, Where } from '@/core';
import { RulesViewSchema } from '@/contracts/rules';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { decideFindings } from '@/server/use-cases/rules/decide-findings';
import { viewFindings } from '@/server/use-cases/rules/findings';
import { keepRule, setRuleStates } from '@/server/use-cases/rules/keep-rules';
import { bringRules, writeRuleFile } from '@/server/use-cases/rules/rule-files';
import { setRuleSets } from '@/server/use-cases/rules/rule-sets';
import { tryRule } from '@/server/use-cases/rules/try-rule';
import { viewRules } from '@/server/use-cases/rules/view-rules';
import { workByRules } from '@/server/use-cases/rules/work-by-rules';
import { makeWorld, type World } from '../support/world';

let world: World;
/** two rules that want the opposite of the terms with “kit” or “movie” */
let [keeping, stopping]: number[] = [];

const at = () => [world.deps, world.slug] as const;
const by = () => [world.deps, world.slug, world.personId] as const;
const aRule = (then: RuleAction, ...when: Condition[]): Rule => ({
  ...{ when: [{ of: 'clicks', is: 'at least', value: 1 }, ...when], then },
  ...{ lookBack: { days: 60, lagDays: 0 }, where: { is: 'everywhere', campaigns: [] } },
  ...{ how: { is: 'by approval' }, often: 'after each report' },
});
const KIT_OR_MOVIE: Condition = { of: 'words', is: 'any of', words: ['kit', 'movie'] };
const STOP: RuleAction = { do: 'stop', at: 'ad group' };
const KEEP = aRule({ do: 'keep' }, KIT_OR_MOVIE);

beforeEach(async () => {
  world = await makeWorld();
  keeping = await keep('Keep', KEEP);
  stopping = await keep('Stop', aRule(STOP));
  await work();
});
afterEach(() => world.close());

async function keep(name: string, rule: Rule): Promise<number> {
  return (await keepRule(...by(), { name, rule, state: 'on' })).ruleId;
}
const work = () => workByRules(world.deps, world.accountId);
async function found(ruleId: number): Promise<string[]> {
  const { lines } = await viewFindings(...at(), { pile: 'open' });
  return lines.flatMap((one) => (one.ruleId === ruleId ? [one.term] : [])).sort();
}
const setOf = (rules: number[], over: { name?: string; where?: Where | null } = {}) => ({
  ...{ name: 'Hives', where: null, rules },
  ...over,
});
const put = (...sets: ReturnType<typeof setOf>[]) => setRuleSets(...by(), sets);
const sets = async () => {
  const view = await viewRules(...at());
  expect(v.parse(RulesViewSchema, view)).toEqual(view);
  return view.sets;
};
const lastEntry = async () =>
  (await world.db('ledger_entry').orderBy('ledger_entry_id', 'desc').first()).ledger_entry_id as number;
const isDisputed = (term: string) => /kit|movie/.test(term);

describe('of the rules of a set that find the same term', () => {
  test('the first wins, whatever it wants, and nothing is disputed any more', async () => {
    const [kept, stopped] = [await found(keeping!), await found(stopping!)];
    expect(stopped).toEqual(expect.arrayContaining(kept));
    expect((await viewFindings(...at(), { pile: 'open' })).lines.some((one) => one.against.length > 0)).toBe(
      true,
    );
    await put(setOf([keeping!, stopping!]));
    expect(await found(keeping!)).toEqual(kept);
    expect(await found(stopping!)).toEqual(stopped.filter((term) => !isDisputed(term)));
    await put(setOf([stopping!, keeping!]));
    expect([await found(keeping!), await found(stopping!)]).toEqual([[], stopped]);
    const { lines } = await viewFindings(...at(), { pile: 'open' });
    expect(lines.flatMap((one) => one.against)).toEqual([]);
    const trial = await tryRule(...at(), { rule: aRule(STOP), ruleId: stopping! });
    expect(trial.against).toEqual([]);
  });

  test('one that waits still wins, one that was refused leaves the term to the next', async () => {
    await put(setOf([keeping!, stopping!]));
    const { lines } = await viewFindings(...at(), { pile: 'open' });
    const [first, second] = lines.filter((one) => one.ruleId === keeping);
    await decideFindings(...by(), { ids: [first!.id], is: 'later', why: '' });
    await decideFindings(...by(), { ids: [second!.id], is: 'refused', why: 'nobody buys it' });
    const left = await found(stopping!);
    expect(left).toContain(second!.term);
    expect(left).not.toContain(first!.term);
  });

  test('the first one acts by itself, and what it leaves to nobody the others may stop', async () => {
    await setRuleStates(...by(), [{ id: stopping!, state: 'removed' }]);
    const bounds = { changesADay: 1_000, costADayMicros: 1e12, leastKept: 0 };
    const alone = await keep('Alone', { ...aRule(STOP), how: { is: 'by itself', bounds } });
    await put(setOf([keeping!, alone]));
    await work();
    const acted = (await world.db('rule_act').select('term')).map(({ term }) => term as string);
    expect(acted.length).toBeGreaterThan(0);
    expect(acted.filter(isDisputed)).toEqual([]);
  });
});

describe('a set', () => {
  test('looks in its campaigns at most; its rules look anew, and waits where one is gone', async () => {
    const before = await found(keeping!);
    const courses = (await viewRules(...at())).campaigns.find(({ name }) => name === 'Courses')!.id;
    await put(setOf([keeping!, stopping!], { where: { is: 'in', campaigns: [courses] } }));
    expect(await found(stopping!)).toEqual([]);
    await work();
    const inCourses = await found(stopping!);
    expect(inCourses.length).toBeGreaterThan(0);
    for (const term of inCourses) expect(term).toContain('course');
    const trial = await tryRule(...at(), { rule: aRule(STOP), ruleId: stopping! });
    expect(trial.stopped.map(({ term }) => term).every((term) => term.includes('course'))).toBe(true);
    await put(setOf([stopping!], { where: { is: 'not in', campaigns: [courses] } }));
    await work();
    expect(await found(keeping!)).toEqual(before);
    expect((await found(stopping!)).some((term) => term.includes('course'))).toBe(false);
    await put(setOf([stopping!], { where: { is: 'in', campaigns: ['999'] } }));
    const { rules } = await viewRules(...at());
    expect(rules.find(({ id }) => id === stopping)).toMatchObject({
      ...{ waitsFor: 'a campaign that is gone', set: 'Hives' },
    });
  });

  test('stands in the Ledger with what it was, and comes back by its undo without what is gone', async () => {
    const { said } = await put(setOf([keeping!, stopping!]));
    expect(said).toBe('Sets of rules: made Hives');
    expect(await sets()).toEqual([setOf([keeping!, stopping!])]);
    expect((await put(setOf([stopping!]), setOf([keeping!], { name: 'Winter' }))).said).toBe(
      'Sets of rules: made Winter, changed Hives',
    );
    const entry = await lastEntry();
    await setRuleStates(...by(), [{ id: keeping!, state: 'removed' }]);
    expect(await sets()).toEqual([setOf([stopping!]), setOf([], { name: 'Winter' })]);
    await undoEntry(...by(), entry);
    expect(await sets()).toEqual([setOf([stopping!])]);
  });

  test('is refused where it can not be: nothing is changed then', async () => {
    await put(setOf([keeping!]));
    await expect(put(setOf([keeping!]), setOf([stopping!]))).rejects.toThrow('Two sets are called “Hives”.');
    await expect(put(setOf([keeping!]), setOf([keeping!], { name: 'Winter' }))).rejects.toThrow(
      'The rule “Keep” would be in two sets.',
    );
    await expect(put(setOf([keeping!, 9_999]))).rejects.toThrow('One of these rules is gone.');
    expect(await sets()).toEqual([setOf([keeping!])]);
  });
});

test('swapping two sets is one entry that says what went off and what on', async () => {
  await setRuleStates(...by(), [{ id: keeping!, state: 'off' }]);
  const { said } = await setRuleStates(...by(), [
    { id: stopping!, state: 'off' },
    { id: keeping!, state: 'on' },
  ]);
  expect(said).toBe('Switched off: the rule “Stop”; switched on: the rule “Keep”');
  await undoEntry(...by(), await lastEntry());
  const states = (await viewRules(...at())).rules.map(({ name, state }) => `${name} ${state}`);
  expect(states).toEqual(['Keep off', 'Stop on']);
});

describe('sets in a file', () => {
  const hives = async (): Promise<Where> => {
    const { campaigns } = await viewRules(...at());
    return { is: 'in', campaigns: [campaigns.find(({ name }) => name === 'Hives')!.id] };
  };

  test('keep their order and where they look; one whose name is taken gets a number', async () => {
    await put(setOf([stopping!, keeping!], { where: await hives() }));
    const { content } = await writeRuleFile(...at(), undefined);
    expect(JSON.parse(content)).toMatchObject({
      rules: [
        { name: 'Stop', set: 'Hives' },
        { name: 'Keep', set: 'Hives' },
      ],
      sets: [{ name: 'Hives', where: { is: 'in', campaigns: ['Hives'] } }],
    });
    const before = await sets();
    const { ruleIds, setsBefore } = await bringRules(...by(), content);
    expect(setsBefore).toEqual(before);
    expect(await sets()).toEqual([...before, { name: 'Hives 2', where: await hives(), rules: ruleIds }]);
    await undoEntry(...by(), await lastEntry());
    expect(await sets()).toEqual(before);
  });

  test('a place that is not here, and a set of no rule, are refused, and nothing is brought', async () => {
    await put(setOf([stopping!], { where: await hives() }));
    const { content } = await writeRuleFile(...at(), undefined);
    const before = await viewRules(...at());
    const file = JSON.parse(content);
    file.sets[0].where.campaigns = ['Suits'];
    await expect(bringRules(...by(), JSON.stringify(file))).rejects.toThrow(
      'sets[0].where.campaigns: there is no campaign “Suits” in this account.',
    );
    file.sets[0].name = 'Nobody';
    await expect(bringRules(...by(), JSON.stringify(file))).rejects.toThrow(
      'sets[0].name: no rule of the file is in a set “Nobody”.',
    );
    expect(await viewRules(...at())).toEqual(before);
  });

  test('a file without sets leaves those that are there', async () => {
    const { content } = await writeRuleFile(...at(), [keeping!]);
    expect(JSON.parse(content)).not.toHaveProperty('sets');
    expect(await bringRules(...by(), content)).toMatchObject({ setsBefore: null });
    expect(await sets()).toEqual([]);
  });
});
