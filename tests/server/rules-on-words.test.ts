import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { shiftDay, type Condition, type Rule, type RuleAction } from '@/core';
import { RuleSchema } from '@/contracts/rule-sentence';
import { TrialViewSchema } from '@/contracts/rules';
import { changeSettings } from '@/server/use-cases/account/change-settings';
import { tryRule } from '@/server/use-cases/rules/try-rule';
import { viewPass } from '@/server/use-cases/sift/pass/view-pass';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { rulesOf } from '../support/rules';
import { makePassWorld, OLD } from '../support/pass-report';
import type { World } from '../support/world';

/** Rules on words at fault: what they find by the facts as they are, and what they would have found week by week. */

let world: World;
beforeAll(async () => {
  world = await makePassWorld();
  await changeSettings(...by(), { brandWords: ['larkfell'] });
});
afterAll(() => world.close());

const at = () => [world.deps, world.slug] as const;
const by = () => [world.deps, world.slug, world.personId] as const;
const { findings, whileOn, found } = rulesOf(() => world);
const clicks = (value: number): Condition => ({ of: 'clicks', is: 'at least', value });
const surely = (probability: number): Condition => ({ of: 'fault', is: 'at least', probability });
const aRule = (over: Partial<Rule> = {}): Rule => ({
  ...{ about: 'words', when: [clicks(1)], lookBack: { days: 120, lagDays: 0 } },
  ...{ where: { is: 'everywhere', campaigns: [] }, then: { do: 'stop', at: 'campaign' } },
  ...{ how: { is: 'by approval' }, often: 'after each report' },
  ...over,
});

describe('a rule on words at fault', () => {
  test('finds those that Sift offers: no brand word, and none that a live keyword says', async () => {
    const { words } = await viewPass(...at(), {});
    expect(await found(aRule())).toEqual(words.map(({ ngram }) => ngram).sort());
    expect(await found(aRule())).toEqual(['bee', 'jobs', 'wholesale']);
  });

  test('by what their terms brought in the look-back, and by how surely they are at fault', async () => {
    // 320 and 80 clicks of “jobs”, 480 and 80 of “wholesale”.
    expect(await found(aRule({ when: [clicks(401)] }))).toEqual(['wholesale']);
    expect(await found(aRule({ when: [{ of: 'conversions', is: 'at most', value: 0 }] }))).toEqual([
      'bee',
      'jobs',
    ]);
    expect(await found(aRule({ lookBack: { days: 30, lagDays: 0 }, when: [clicks(81)] }))).toEqual(['bee']);
    expect(await found(aRule({ when: [surely(1)] }))).toEqual([]);
    expect(await found(aRule({ when: [{ of: 'words', is: 'none of', words: ['jobs', 'bee'] }] }))).toEqual([
      'wholesale',
    ]);
  });

  test.each<[RuleAction, object, string]>([
    [{ do: 'stop', at: 'campaign' }, { kind: 'campaign' }, 'Hives'],
    [{ do: 'stop', at: 'ad group' }, { kind: 'adGroup' }, 'Starter'],
    [{ do: 'stop', at: 'account' }, { kind: 'account', id: null }, 'the whole account'],
  ])('stops them as phrases: %j', async (then, place, says) => {
    await whileOn(aRule({ then }), async () => {
      const jobs = (await findings()).find(({ term }) => term === 'jobs')!;
      expect(jobs).toMatchObject({ about: 'words', clicks: 400, costMicros: 200_000_000, conversions: 0 });
      expect(jobs.changes).toEqual([
        { kind: 'add negative', text: 'jobs', match: 'phrase', place: expect.objectContaining(place) },
      ]);
      expect(jobs.place).toContain(says);
    });
  });

  test('proposes nothing once the tray holds it, and again when it is taken out', async () => {
    await whileOn(aRule(), async () => {
      const jobs = (await findings()).find(({ term }) => term === 'jobs')!;
      const [drafted] = await draftChanges(
        ...by(),
        jobs.changes.map((change) => ({ change })),
      );
      expect((await findings()).map(({ term }) => term)).not.toContain('jobs');
      if (drafted?.outcome !== 'drafted') throw new Error('it was not drafted');
      await removeFromTray(...at(), [drafted.changeId]);
      expect((await findings()).map(({ term }) => term)).toContain('jobs');
    });
  });

  test('only tells where it stops nothing', async () => {
    await whileOn(aRule({ then: { do: 'tell' } }), async () => {
      expect((await findings())[0]).toMatchObject({ changes: [], place: 'nowhere: the rule only tells' });
    });
  });
});

test('tried, it stops a word in the first week in which it was at fault by what was known', async () => {
  const view = await tryRule(...at(), { rule: aRule() });
  expect(v.parse(TrialViewSchema, view)).toEqual(view);
  const stopped = new Map(view.stopped.map(({ term, ...one }) => [term, one]));
  expect([...stopped.keys()].sort()).toEqual(['bee', 'jobs', 'wholesale']);
  // All that came in the first days was known a week later; what came afterwards is saved.
  expect(stopped.get('jobs')).toMatchObject({
    day: shiftDay(OLD, 7),
    savedMicros: 40_000_000,
    lostConversions: 0,
  });
  expect(stopped.get('wholesale')).toMatchObject({ savedMicros: 32_000_000 });
  expect(view.lines.map(({ isOwn }) => isOwn)).toContain(true);
});

test('tried again, it says the same by weeks that were fitted before, and something else by another target', async () => {
  const first = await tryRule(...at(), { rule: aRule() });
  expect((await tryRule(...at(), { rule: aRule({ when: [surely(1)] }) })).stopped).toEqual([]);
  expect(await tryRule(...at(), { rule: aRule() })).toEqual(first);
  // Where a conversion may cost that much, whatever words bring is enough.
  await changeSettings(...by(), { target: '100000' });
  const cheap = await tryRule(...at(), { rule: aRule() });
  expect(cheap.stopped.length).toBeLessThan(first.stopped.length);
});

test.each<[Partial<Rule>, string]>([
  [{ when: [surely(0.7)] }, 'A word is at fault from 80 % on.'],
  [
    { when: [{ of: 'evidence', is: 'at least', probability: 0.9 }] },
    'A condition on “evidence” means nothing for words.',
  ],
  [{ then: { do: 'keep' } }, 'Words are stopped, or only told.'],
  [{ where: { is: 'everywhere', campaigns: [], servedBy: ['broad'] } }, 'all keywords that served it'],
  [{ about: undefined, then: { do: 'stop', at: 'account' } }, 'stopped where it ran, or in a list'],
  [{ about: undefined, when: [surely(0.9)] }, 'A condition on “fault” means nothing for terms.'],
  [
    {
      ...{ about: undefined, then: { do: 'stop', at: 'campaign', as: 'phrase' } },
      how: { is: 'by itself', bounds: { changesADay: 1, costADayMicros: 1, leastKept: 0.5 } },
    },
    'or stops terms as phrases, does so after a yes.',
  ],
])('a sentence that makes no sense is refused: %j', (over, says) => {
  expect(v.safeParse(RuleSchema, aRule(over)).issues?.[0]!.message).toContain(says);
});
