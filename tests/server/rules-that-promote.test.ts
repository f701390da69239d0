import { afterAll, beforeAll, expect, test } from 'vitest';
import * as v from 'valibot';
import type { Change, Condition, Rule, RuleAction } from '@/core';
import { RuleSchema } from '@/contracts/rule-sentence';
import { giveVerdictsOfFindings } from '@/server/use-cases/rules/give-verdicts-of-findings';
import { tryRule } from '@/server/use-cases/rules/try-rule';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { rulesOf } from '../support/rules';
import { aQuery, aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

/** Rules that promote what converts: keywords in the seats of its group, and negatives where it ran. */

let world: World;
beforeAll(async () => {
  const { structure, queries } = aSeed();
  world = await makeWorld(
    aSeed({
      structure: {
        ...structure,
        adGroups: [...structure.adGroups, { ...structure.adGroups[0]!, id: 'G4', name: 'Hives exact' }],
        keywords: [
          ...structure.keywords,
          { ...structure.keywords[0]!, id: 'K8', text: 'bee hive own', match: 'exact', adGroupId: 'G4' },
        ],
      },
      queries: [
        ...queries,
        aQuery('bee course book', { daily: 60, cvr: 0.3, at: 'G3' }),
        aQuery('dear bee hive kit', { daily: 200, cvr: 0.015, cpcMicros: 900_000 }),
        aQuery('LK-2042', { daily: 60, cvr: 0.4, means: [], automaticIn: ['G1'] }),
      ],
    }),
  );
});
afterAll(() => world.close());

const at = () => [world.deps, world.slug] as const;
const by = () => [world.deps, world.slug, world.personId] as const;
const { findings, whileOn } = rulesOf(() => world);
const CONVERTED: Condition = { of: 'conversions', is: 'at least', value: 1 };
const promoting = (then: RuleAction = { do: 'promote', atSource: true }): Rule => ({
  ...{ when: [CONVERTED], lookBack: { days: 60, lagDays: 0 }, then },
  ...{ where: { is: 'everywhere', campaigns: [] }, how: { is: 'by approval' }, often: 'after each report' },
});
const ofTerm = async (term: string) => (await findings()).find((one) => one.term === term);
const negatives = (changes: readonly Change[]) => changes.filter(({ kind }) => kind === 'add negative');
const keywords = (changes: readonly Change[]) => changes.filter(({ kind }) => kind === 'add keyword');

test('keywords are proposed with their bids, and negatives where the term misses its target', async () => {
  await whileOn(promoting(), async () => {
    const pays = await ofTerm('bee hive kit');
    expect(pays).toMatchObject({ does: 'promote', verdict: null, place: 'exact in Hives exact' });
    expect(pays!.changes).toMatchObject([
      { kind: 'add keyword', text: 'bee hive kit', match: 'exact', bidMicros: expect.any(Number) },
    ]);
    const misses = await ofTerm('dear bee hive kit');
    expect(misses!.place).toBe('exact in Hives exact, with 1 negative');
    expect(negatives(misses!.changes)).toMatchObject([{ text: 'dear bee hive kit', match: 'exact' }]);
  });
});

test('without these negatives the keywords are the same', async () => {
  const changesBy = (atSource: boolean) =>
    whileOn(promoting({ do: 'promote', atSource }), async () => (await ofTerm('dear bee hive kit'))!.changes);
  const [withThem, without] = [await changesBy(true), await changesBy(false)];
  expect([negatives(withThem).length, negatives(without).length]).toEqual([1, 0]);
  expect(keywords(without)).toEqual(keywords(withThem));
});

test('a term whose group has no exact seat waits, and says for what', async () => {
  await whileOn(promoting(), async () => {
    expect(await ofTerm('bee course book')).toMatchObject({
      changes: [],
      place: 'nowhere yet (choose an exact seat in Promote)',
    });
  });
});

test('a term that somebody keeps open is promoted all the same', async () => {
  await whileOn(promoting({ do: 'keep' }), async () => {
    const { id } = (await ofTerm('bee hive kit'))!;
    await giveVerdictsOfFindings(...by(), { ids: [id], is: 'given' });
    expect(await ofTerm('bee hive kit')).toBeUndefined();
  });
  await whileOn(promoting(), async () => expect(await ofTerm('bee hive kit')).toBeDefined());
});

test('what the tray holds is not proposed again', async () => {
  await whileOn(promoting(), async () => {
    const { changes } = (await ofTerm('bee hive kit'))!;
    await draftChanges(
      ...by(),
      changes.map((change) => ({ change })),
    );
    expect(await ofTerm('bee hive kit')).toBeUndefined();
  });
});

test('a trial tells what the terms brought since; a product code can be no keyword', async () => {
  const { stopped, lines } = await tryRule(...at(), { rule: promoting() });
  const terms = stopped.map(({ term }) => term);
  expect(terms).toContain('bee hive kit');
  expect(terms).not.toContain('lk-2042');
  expect(lines.find(({ isOwn }) => isOwn)!.lostConversions).toBeGreaterThan(0);
});

test('nothing is promoted by itself, and no keyword is promoted', () => {
  const bounds = { changesADay: 5, costADayMicros: 1, leastKept: 0.5 };
  const says = (rule: Rule) => v.safeParse(RuleSchema, rule).issues?.[0]!.message;
  expect(says(promoting())).toBeUndefined();
  expect(says({ ...promoting(), how: { is: 'by itself', bounds } })).toContain('does so after a yes.');
  expect(says({ ...promoting(), about: 'keywords' })).toContain('Keywords are paused or bid for');
});
