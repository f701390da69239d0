import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { MATCH_TYPES, stops, textSeverity, type AccountShape, type MatchType } from '../gate';
import { isInForceIn, type PlacedNegative } from '../gate';
import { anAccount, aText } from '../gate/testing';
import { compilePromotions, type PromotionPlan, type Seats } from './plan';

const account = (...negatives: Omit<PlacedNegative, 'id'>[]): AccountShape => ({
  campaigns: [{ id: 'c1', adGroups: ['e', 'p', 'b', 's'].map((id) => ({ id })) }],
  lists: [],
  negatives: negatives.map((one, i) => ({ ...one, id: `n${i}` })),
});
const seats: Seats = { exact: 'e', phrase: 'p', broad: 'b' };
const at = (id: string) => ({ kind: 'adGroup', id }) as const;
const told = ({ parts }: Pick<PromotionPlan, 'parts'>) =>
  parts.map(({ kind, match, adGroupId }) => `${kind === 'keyword' ? '+' : '−'} ${match} ${adGroupId}`);

describe('a plan', () => {
  test('has a keyword in each seat, and negatives that leave the term to the narrower one', () => {
    const plan = compilePromotions(account(), []).plan({ text: 'Bee Hive', seats, missing: ['s'] });
    expect(plan.text).toBe('bee hive');
    expect(told(plan)).toEqual([
      '+ exact e',
      '+ phrase p',
      '+ broad b',
      '− exact p',
      '− phrase b',
      '− exact s',
    ]);
    expect([plan.standing, plan.obstacles, plan.missing]).toEqual([[], [], []]);
  });

  test('leaves out what is there, and keywords of other words in the same ad group', () => {
    const planner = compilePromotions(account({ text: 'bee hive', match: 'phrase', place: at('b') }), [
      { id: 'k1', text: 'bee hive', match: 'exact', adGroupId: 'e' },
      { id: 'k2', text: 'hive', match: 'phrase', adGroupId: 'p' },
    ]);
    const plan = planner.plan({ text: 'bee hive', seats, missing: [] });
    expect(told(plan)).toEqual(['+ phrase p', '+ broad b', '− exact p']);
    expect(told({ parts: plan.standing })).toEqual(['+ exact e', '− phrase b']);
  });

  test('does with the seats that there are', () => {
    const plan = (some: Partial<Seats>) =>
      compilePromotions(account(), []).plan({
        text: 'bee hive',
        seats: { exact: null, phrase: null, broad: null, ...some },
        missing: ['s', 'b'],
      });
    expect(told(plan({ exact: 'e', broad: 'b' }))).toEqual([
      '+ exact e',
      '+ broad b',
      '− exact b',
      '− exact s',
    ]);
    expect(plan({ exact: 'e', broad: 'b' }).missing).toEqual(['phrase']);
    // Nothing is stopped at its source where no seat would serve it.
    expect(told(plan({ broad: 'b' }))).toEqual(['+ broad b']);
    expect(told(plan({ exact: 'e', phrase: 'e', broad: 'e' }))).toEqual([
      ...['+ exact e', '+ phrase e', '+ broad e', '− exact s', '− exact b'],
    ]);
  });

  test('stops nothing for a seat that is stopped itself, and says by what', () => {
    const planner = compilePromotions(account({ text: 'hive', match: 'broad', place: at('e') }), []);
    const plan = planner.plan({ text: 'bee hive', seats, missing: ['s'] });
    expect(told(plan)).toEqual(['+ phrase p', '+ broad b', '− phrase b']);
    expect(plan.obstacles).toEqual([
      {
        ...{ part: { kind: 'keyword', match: 'exact', adGroupId: 'e', at: 'exact' }, why: 'is stopped' },
        negativeIds: ['n0'],
      },
    ]);
  });

  test('shuts out no keyword, and names the one that it would', () => {
    const planner = compilePromotions(account(), [
      { id: 'k1', text: 'blue bee hive', match: 'phrase', adGroupId: 'b' },
    ]);
    const plan = planner.plan({ text: 'bee hive', seats, missing: [] });
    expect(told(plan)).toEqual(['+ exact e', '+ phrase p', '+ broad b', '− exact p']);
    expect(plan.obstacles).toMatchObject([{ why: 'shuts out', keywordIds: ['k1'], part: { at: 'broad' } }]);
  });

  test('leaves nothing to a seat that serves nothing yet, and says which', () => {
    const planner = compilePromotions(account(), []);
    const waiting = (...idle: string[]) => {
      const plan = planner.plan({ text: 'bee hive', seats, missing: ['s'], idle: new Set(idle) });
      return [
        told(plan),
        plan.obstacles.map((one) => [
          ...told({ parts: [one.part] }),
          one.why === 'serves nothing' && one.seat,
        ]),
      ];
    };
    const keywords = ['+ exact e', '+ phrase p', '+ broad b'];
    expect(waiting('e')).toEqual([
      [...keywords, '− phrase b'],
      [
        ['− exact p', 'exact'],
        ['− exact s', 'exact'],
      ],
    ]);
    expect(waiting('p')).toEqual([[...keywords, '− exact b', '− exact s'], [['− exact p', 'phrase']]]);
    expect(waiting('e', 'p')).toEqual([
      keywords,
      [
        ['− exact p', 'exact'],
        ['− exact b', 'exact'],
        ['− exact s', 'exact'],
      ],
    ]);
  });

  test('of a term without a word is empty', () => {
    const plan = compilePromotions(account(), []).plan({ text: '?!', seats, missing: ['s'] });
    expect([plan.parts, plan.obstacles]).toEqual([[], []]);
  });
});

test('queries go to the narrowest seat that gets them, or are named where none does', () => {
  const planner = compilePromotions(account({ text: 'free', match: 'broad', place: at('p') }), []);
  const plan = planner.plan({ text: 'bee hive', seats, missing: ['s'] });
  const fates = planner.foresee(plan, [
    { text: 'bee hive', adGroupId: 's' },
    { text: 'bee hive', adGroupId: 'p' },
    { text: 'blue bee hive', adGroupId: 'b' },
    { text: 'hive for a bee', adGroupId: 'b' },
    { text: 'free bee hive', adGroupId: 'b' },
    { text: 'blue bee hive', adGroupId: 's' },
  ]);
  expect(fates).toEqual(['exact', 'exact', 'phrase', 'stays', 'nowhere', 'stays']);
});

describe('of any account', () => {
  const anAdGroup = fc.constantFrom('g1', 'g2', 'g3');
  const aSeat = fc.option(anAdGroup, { nil: null });
  const question = fc.record({
    text: aText(3),
    seats: fc.record({ exact: aSeat, phrase: aSeat, broad: aSeat }),
    missing: fc.array(anAdGroup, { maxLength: 3 }),
    idle: fc.array(anAdGroup, { maxLength: 2 }).map((all) => new Set(all)),
  });
  const aKeyword = fc.record({
    text: aText(3),
    match: fc.constantFrom(...MATCH_TYPES),
    adGroupId: anAdGroup,
  });
  const keywords = fc
    .array(aKeyword, { maxLength: 6 })
    .map((all) => all.map((one, i) => ({ ...one, id: `k${i}` })));

  type Keyword = { id: string; text: string; match: MatchType; adGroupId: string };
  /** What the plan makes of an account. */
  function done(shape: AccountShape, live: readonly Keyword[], { text, parts }: PromotionPlan) {
    const made = parts.map((part, i) => ({ ...part, text, id: `made${i}` }));
    return {
      keywords: [...live, ...made.filter(({ kind }) => kind === 'keyword')],
      added: made.filter(({ kind }) => kind === 'negative'),
      account: {
        ...shape,
        negatives: [
          ...shape.negatives,
          ...made
            .filter(({ kind }) => kind === 'negative')
            .map(({ id, match, adGroupId }) => ({ id, text, match, place: at(adGroupId) })),
        ],
      },
    };
  }

  /** Whether anything in force in an ad group stops a query, asked one by one. */
  function isStopped({ campaigns, lists, negatives }: AccountShape, query: string, adGroupId: string) {
    const campaignId = campaigns.find(({ adGroups }) => adGroups.some(({ id }) => id === adGroupId))!.id;
    const hangsOn = (listId: string, campaign: string) => {
      const { hungOn } = lists.find(({ id }) => id === listId)!;
      return hungOn === 'account' || hungOn.includes(campaign);
    };
    return negatives.some(
      (one) => isInForceIn(one.place, { id: adGroupId, campaignId }, hangsOn) && stops(one, query),
    );
  }

  test('no live keyword is shut out by a plan, and none of its own', () => {
    fc.assert(
      fc.property(anAccount(), keywords, question, (shape, live, asked) => {
        const { keywords: all, added } = done(shape, live, compilePromotions(shape, live).plan(asked));
        for (const negative of added)
          for (const keyword of all)
            if (keyword.adGroupId === negative.adGroupId)
              expect(textSeverity(keyword, negative)).not.toBe('shut out');
      }),
    );
  });

  test('what a plan stops is served by the seat that it says', () => {
    const aQuery = fc.record({ text: aText(), adGroupId: anAdGroup });
    fc.assert(
      fc.property(anAccount(), keywords, question, fc.array(aQuery), (shape, live, asked, queries) => {
        const planner = compilePromotions(shape, live);
        const plan = planner.plan(asked);
        const after = done(shape, live, plan);
        const of = new Set(
          [...plan.parts, ...plan.standing].map((p) => `${p.kind} ${p.match} ${p.adGroupId}`),
        );
        const own = [...queries, ...['g1', 'g2', 'g3'].map((adGroupId) => ({ text: plan.text, adGroupId }))];
        planner.foresee(plan, own).forEach((fate, q) => {
          const { text, adGroupId } = own[q]!;
          const isStoppedByPlan =
            !isStopped(shape, text, adGroupId) &&
            after.added.some(
              (one) => one.adGroupId === adGroupId && stops({ text: one.text, match: one.match }, text),
            );
          expect(fate !== 'stays').toBe(isStoppedByPlan);
          if (!isStoppedByPlan) return;
          const serving = (['exact', 'phrase', 'broad'] as const).find((match) => {
            const seat = asked.seats[match];
            return (
              seat !== null &&
              !asked.idle.has(seat) &&
              of.has(`keyword ${match} ${seat}`) &&
              stops({ text: plan.text, match }, text) &&
              !isStopped(after.account, text, seat)
            );
          });
          expect(fate).toBe(serving ?? 'nowhere');
          if (text === plan.text) expect(fate).not.toBe('nowhere');
        });
      }),
    );
  });

  test('what was promoted is not promoted again', () => {
    fc.assert(
      fc.property(anAccount(), keywords, question, (shape, live, asked) => {
        const after = done(shape, live, compilePromotions(shape, live).plan(asked));
        expect(compilePromotions(after.account, after.keywords).plan(asked).parts).toEqual([]);
      }),
    );
  });
});
