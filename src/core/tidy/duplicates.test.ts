import { randomGamma, randomLcg } from 'd3';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { stemOf, words } from '../text';
import {
  campaignsOverlap,
  compileDuplicates,
  type DuplicatesAccount,
  type DuplicatesOptions,
  type Status,
} from './duplicates';
import { certaintyOfSurvivor, rankSurvivors } from './survivor';

type Campaign = DuplicatesAccount['campaigns'][number];
type Keyword = Campaign['adGroups'][number]['keywords'][number];

const keyword = (id: string, text: string, over: Partial<Keyword> = {}): Keyword => ({
  ...{ id, text, match: 'phrase', status: 'live' },
  ...over,
});
const campaign = (id: string, groups: Keyword[][], over: Partial<Campaign> = {}): Campaign => ({
  ...{ id, status: 'live', endDate: null, location: [], audience: [], device: [], language: [] },
  adGroups: groups.map((keywords, i) => ({ id: `${id}-${i}`, status: 'live', keywords })),
  ...over,
});
const find = (campaigns: Campaign[], options: Partial<DuplicatesOptions> = {}, statuses?: Status[]) =>
  compileDuplicates({ today: '2026-11-22', campaigns }, statuses).find({
    ...{ wordOrder: 'same', matchType: 'same', reach: 'all', ...options },
  });

describe('duplicate keywords', () => {
  const apart = [
    campaign('c1', [
      [keyword('a', 'Bee Hive'), keyword('b', 'hive bee'), keyword('c', 'bee-hive', { match: 'exact' })],
      [keyword('d', 'bee hive')],
    ]),
    campaign('c2', [[keyword('e', 'bee  hive!')]]),
  ];

  test.each([
    [{}, [['a', 'd', 'e']]],
    [{ reach: 'campaign' }, [['a', 'd']]],
    [{ reach: 'adGroup' }, []],
    [{ matchType: 'any', reach: 'adGroup' }, [['a', 'c']]],
    [{ wordOrder: 'any' }, [['a', 'b', 'd', 'e']]],
    [{ wordOrder: 'any', matchType: 'any' }, [['a', 'b', 'c', 'd', 'e']]],
  ] as [Partial<DuplicatesOptions>, string[][]][])('with %o are %j', (options, groups) => {
    expect(find(apart, options)).toEqual({ groups, splits: [], deliberatePairs: 0 });
  });

  test('words in any order are compared with repeats counted', () => {
    const twice = [campaign('c1', [[keyword('a', 'bee bee hive'), keyword('b', 'hive bee')]])];
    expect(find(twice, { wordOrder: 'any' }).groups).toEqual([]);
  });

  test('other forms are the same where that is asked', () => {
    const forms = [campaign('c1', [[keyword('a', 'bee hives'), keyword('b', 'hive bee')]])];
    expect(find(forms, { wordOrder: 'any' }).groups).toEqual([]);
    expect(find(forms, { wordOrder: 'any form' }).groups).toEqual([['a', 'b']]);
  });

  test('what is paused, ended or removed is looked at only when asked', () => {
    const over = { endDate: '2026-11-21' };
    const some = [
      campaign('c1', [[keyword('a', 'hive'), keyword('b', 'hive', { status: 'paused' })]]),
      campaign('c2', [[keyword('c', 'hive')]], over),
      campaign('c3', [[keyword('d', 'hive')]], { endDate: '2026-11-22' }),
      campaign('c4', [[keyword('e', 'hive', { status: 'paused' })]], { status: 'removed' }),
    ];
    expect(find(some).groups).toEqual([['a', 'd']]); // the last day still counts
    expect(find(some, {}, ['live', 'paused', 'ended']).groups).toEqual([['a', 'b', 'c', 'd']]);
    expect(find(some, {}, ['removed', 'ended']).groups).toEqual([['c', 'e']]);
  });

  test('campaigns that never meet are deliberate, pair by pair', () => {
    const split = [
      campaign('c1', [[keyword('a', 'hive')]], { location: ['GB-N'] }),
      campaign('c2', [[keyword('b', 'hive')]], { location: ['GB-S'] }),
      campaign('c3', [[keyword('c', 'hive')]]),
    ];
    // c1 and c2 never meet, but both meet c3: one group, and one pair set aside.
    expect(find(split)).toEqual({ groups: [['a', 'b', 'c']], splits: [], deliberatePairs: 1 });
    expect(find(split.slice(0, 2))).toEqual({
      ...{ groups: [], deliberatePairs: 1 },
      splits: [{ parts: [['a'], ['b']], by: ['location'] }],
    });
  });

  test('a text without a word is no keyword', () => {
    const campaigns = [campaign('c1', [[keyword('a', '?'), keyword('b', '!'), keyword('c', 'hive')]])];
    const finder = compileDuplicates({ today: '2026-11-22', campaigns });
    expect(finder.wordless).toEqual(['a', 'b']);
    expect(finder.find({ wordOrder: 'any', matchType: 'any', reach: 'all' }).groups).toEqual([]);
  });

  test('agree with the rule asked pair by pair', () => {
    const aKeyword = fc.record({
      text: fc.constantFrom('bee hive', 'hive bee', 'hives bee', 'hive', 'Hive', '?'),
      match: fc.constantFrom('broad' as const, 'exact' as const),
      status: fc.constantFrom('live' as const, 'live' as const, 'paused' as const),
    });
    const some = <T>(...of: T[]) => fc.subarray(of);
    const aCampaign = fc.record({
      status: fc.constantFrom('live' as const, 'live' as const, 'paused' as const),
      endDate: fc.constantFrom(null, null, '2026-11-21', '2026-11-22'),
      ...{
        location: some('GB', 'GB-N', 'FR'),
        audience: some('x'),
        device: some('phone', 'desk'),
        language: some('en', 'fr'),
      },
      groups: fc.array(fc.array(aKeyword, { maxLength: 3 }), { maxLength: 2 }),
    });
    const options = fc.record({
      wordOrder: fc.constantFrom('same' as const, 'any' as const, 'any form' as const),
      matchType: fc.constantFrom('same' as const, 'any' as const),
      reach: fc.constantFrom('adGroup' as const, 'campaign' as const, 'all' as const),
    });
    fc.assert(
      fc.property(fc.array(aCampaign, { maxLength: 4 }), options, (drawn, chosen) => {
        let id = 0;
        const campaigns = drawn.map(({ groups, ...over }, c) =>
          campaign(
            `c${c}`,
            groups.map((ks) => ks.map((k) => keyword(`k${id++}`, k.text, k))),
            over,
          ),
        );
        const all = campaigns.flatMap((c) => c.adGroups.flatMap((g) => g.keywords.map((k) => ({ k, g, c }))));
        const live = all.filter(
          ({ k, c }) =>
            k.status === 'live' &&
            c.status === 'live' &&
            (c.endDate ?? '9') >= '2026-11-22' &&
            words(k.text).length > 0,
        );
        const said = (text: string) => {
          if (chosen.wordOrder === 'same') return words(text).join(' ');
          const folded = chosen.wordOrder === 'any' ? words(text) : words(text).map(stemOf);
          return folded.sort().join(' ');
        };
        const alike = live.flatMap((x, i) =>
          live.slice(i + 1).flatMap((y) => {
            if (said(x.k.text) !== said(y.k.text)) return [];
            if (chosen.matchType === 'same' && x.k.match !== y.k.match) return [];
            if (chosen.reach === 'adGroup' && x.g !== y.g) return [];
            return chosen.reach === 'campaign' && x.c !== y.c ? [] : [[x, y] as const];
          }),
        );
        const { groups, splits, deliberatePairs } = find(campaigns, chosen);
        const apart = alike.filter(([x, y]) => x.c !== y.c && !campaignsOverlap(x.c, y.c));
        expect(deliberatePairs).toBe(apart.length);
        for (const [x, y] of apart) {
          const isSplit = splits.some(({ parts }) => {
            const [of, other] = [x, y].map(({ k }) => parts.findIndex((ids) => ids.includes(k.id)));
            return of! >= 0 && other! >= 0 && of !== other;
          });
          expect(isSplit || groups.some((g) => g.includes(x.k.id) && g.includes(y.k.id))).toBe(true);
        }
        for (const { by } of splits) expect(by.length).toBeGreaterThan(0);
        for (const [x, y] of alike) {
          if (x.c !== y.c && !campaignsOverlap(x.c, y.c)) continue;
          expect(groups.filter((g) => g.includes(x.k.id) && g.includes(y.k.id))).toHaveLength(1);
        }
        const competing = new Set(
          alike
            .filter(([x, y]) => x.c === y.c || campaignsOverlap(x.c, y.c))
            .flat()
            .map((x) => x.k.id),
        );
        expect(new Set(groups.flat())).toEqual(competing);
      }),
      { numRuns: 1_500 },
    );
  });
});

describe('campaigns overlap', () => {
  const targets = (location: string[], device: string[] = []) => ({
    location,
    device,
    audience: [],
    language: [],
  });
  test.each([
    [targets(['GB']), targets(['GB-N']), true],
    [targets(['GB-N']), targets(['GB-NW']), false],
    [targets(['GB-N-1']), targets(['GB-N', 'FR']), true],
    [targets([]), targets(['FR']), true],
    [targets(['GB'], ['phone']), targets(['GB'], ['desk']), false],
  ])('%o and %o: %s', (a, b, meet) => {
    expect(campaignsOverlap(a, b)).toBe(meet);
    expect(campaignsOverlap(b, a)).toBe(meet);
  });
});

describe('the survivor of a group', () => {
  const contender = (
    id: string,
    clicks: number,
    cost: number,
    conversions: number,
    createdAt = '2026-01-01',
  ) => ({
    ...{ id, clicks, conversions, createdAt },
    costMicros: cost * 1e6,
  });

  test('is the one with the lowest expected cost of a conversion, pulled to the rate of the group', () => {
    // cvr0 = 12 / 250. a: 1 / (10 + 50 · 0.048) / 250 …; b has the lower rate and the lower price.
    const [best, second] = rankSurvivors([contender('a', 200, 200, 10), contender('b', 50, 20, 2)], null);
    expect(best).toMatchObject({ id: 'b', cpcMicros: 400_000 });
    expect(best!.cvr).toBeCloseTo((2 + 50 * 0.048) / 100, 12);
    expect(best!.costMicros).toBeCloseTo(400_000 / 0.044, 3);
    expect(second!.costMicros).toBeCloseTo(1_000_000 / ((10 + 2.4) / 250), 3);
  });

  test('without a conversion the account’s rate stands in; without a click the price of the group', () => {
    const [best, other] = rankSurvivors([contender('a', 100, 80, 0), contender('b', 0, 0, 0)], 0.04);
    expect(best).toMatchObject({ id: 'b', cpcMicros: 800_000, cvr: 0.04 });
    expect(other!.cvr).toBeCloseTo(2 / 150, 12);
  });

  test('is as sure as drawing its rates and those of the others says', () => {
    const random = randomLcg(0.4);
    const gamma = randomGamma.source(random);
    const draw = (alpha: number, beta: number) => {
      const [x, y] = [gamma(alpha, 1), gamma(beta, 1)];
      return () => {
        const one = x();
        return one / (one + y());
      };
    };
    for (const [a, b] of [
      [contender('a', 400, 200, 20), contender('b', 300, 180, 9)],
      [contender('a', 40, 20, 2), contender('b', 30, 15, 0)],
      [contender('a', 5, 9, 1), contender('b', 900, 400, 30)],
    ] as const) {
      const cvr = (a.conversions + b.conversions) / (a.clicks + b.clicks);
      const [best] = rankSurvivors([a, b], null);
      const [one, other] = best!.id === 'a' ? [a, b] : [b, a];
      const [x, y] = [one, other].map((k) =>
        draw(k.conversions + 50 * cvr, k.clicks - k.conversions + 50 * (1 - cvr)),
      );
      let less = 0;
      for (let i = 0; i < 20_000; i++)
        if (one.costMicros / one.clicks / x!() < other.costMicros / other.clicks / y!()) less += 1;
      expect(certaintyOfSurvivor([a, b], null)).toBeCloseTo(less / 20_000, 1.5);
    }
  });

  test('is never less sure than even, and surer with more of the same', () => {
    const few = fc.record({
      clicks: fc.integer({ min: 1, max: 300 }),
      share: fc.double({ min: 0, max: 0.2, noNaN: true }),
    });
    fc.assert(
      fc.property(few, few, (one, other) => {
        const at = (times: number) =>
          [one, other].map(({ clicks, share }, i) =>
            contender(['a', 'b'][i]!, times * clicks, times * clicks, times * Math.round(share * clicks)),
          );
        fc.pre(at(1).some(({ conversions }) => conversions > 0));
        const [once, often] = [at(1), at(8)].map((group) => certaintyOfSurvivor(group, null));
        expect(once).toBeGreaterThan(0.4);
        expect(often).toBeGreaterThan(once! - 0.1);
        expect(often).toBeLessThanOrEqual(1 + 1e-9);
      }),
    );
  });

  test('is sure beside what has no click, and not where none has', () => {
    const none = contender('b', 0, 0, 0);
    expect(certaintyOfSurvivor([contender('a', 3, 2, 1), none], null)).toBe(1);
    expect(certaintyOfSurvivor([none, contender('c', 0, 0, 0)], 0.02)).toBe(0);
    expect(certaintyOfSurvivor([contender('a', 3, 2, 0), contender('c', 4, 1, 0)], null)).toBe(0);
    const every = certaintyOfSurvivor([contender('a', 3, 2, 9), contender('c', 4, 3, 12)], null);
    expect(every).toBeGreaterThan(0.9); // more conversions than clicks: the cheaper click decides
  });

  test('ties go to more conversions, more clicks, the older', () => {
    const ids = (...of: Parameters<typeof contender>[]) =>
      rankSurvivors(
        of.map((c) => contender(...c)),
        null,
      ).map((k) => k.id);
    expect(ids(['a', 0, 0, 0, '2026-02-01'], ['b', 0, 0, 0, '2025-02-01'])).toEqual(['b', 'a']);
    expect(ids(['a', 10, 0, 0], ['b', 20, 0, 0])).toEqual(['b', 'a']);
  });
});
