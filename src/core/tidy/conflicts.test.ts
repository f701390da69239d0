import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { noFigures } from '../figures';
import { classifyConflict, compileAccountGate, type AccountShape, type PlacedNegative } from '../gate';
import { anAccount, aText } from '../gate/testing';
import type { OnProgress } from '../progress';
import { findConflicts } from './conflicts';
import { compileDuplicates } from './duplicates';
import { findRedundant } from './redundant';

const account = (...negatives: PlacedNegative[]) => ({
  campaigns: [{ id: 'c1', adGroups: [{ id: 'g1' }, { id: 'g2' }] }],
  lists: [],
  negatives,
});
const free: PlacedNegative = { id: 'n1', text: 'free', match: 'broad', place: { kind: 'adGroup', id: 'g1' } };

test('what is looked for tells how far it is, and ends when it is told to', () => {
  const shape = account(free);
  const keyword = {
    id: 'k1',
    adGroupId: 'g1',
    text: 'free hive',
    match: 'exact' as const,
    status: 'live' as const,
  };
  const segments = { location: [], audience: [], device: [], language: [] };
  const campaigns = shape.campaigns.map((campaign) => ({
    ...{ ...campaign, ...segments, status: 'live' as const, endDate: null },
    adGroups: campaign.adGroups.map((group) => ({ ...group, status: 'live' as const, keywords: [keyword] })),
  }));
  const searches: ((onProgress: OnProgress) => unknown)[] = [
    (onProgress) => findConflicts({ account: shape, keywords: [keyword], served: [], onProgress }),
    (onProgress) => findRedundant(shape, onProgress),
    (onProgress) => compileDuplicates({ today: '2026-11-29', campaigns }, ['live'], onProgress),
  ];
  const told = searches.map((search) => {
    const heard: [number, number][] = [];
    search((...progress) => heard.push(progress));
    const end = new Error('nobody waits');
    expect(() =>
      search(() => {
        throw end;
      }),
    ).toThrow(end);
    return heard;
  });
  const ofOne = [
    [0, 1],
    [1, 1],
  ];
  expect(told.map((progress) => [progress[0], progress.at(-1)])).toEqual([
    ofOne,
    ofOne,
    [
      [0, 2],
      [2, 2],
    ],
  ]);
});

describe('conflicts', () => {
  test('carry what the stopped terms of the keyword cost', () => {
    const [conflict, ...more] = findConflicts({
      account: account(free),
      keywords: [
        { id: 'k1', adGroupId: 'g1', text: 'free hive', match: 'exact' },
        { id: 'k2', adGroupId: 'g2', text: 'free hive', match: 'exact' },
      ],
      served: [
        { text: 'free hive', keywordId: 'k1', costMicros: 3_000_000, conversions: 0 },
        { text: 'hive', keywordId: 'k1', costMicros: 9_000_000, conversions: 2 },
        { text: 'free hive', keywordId: 'k2', costMicros: 1_000_000, conversions: 1 },
        { text: 'free bee', keywordId: null, costMicros: 1_000_000, conversions: 1 },
      ],
    });
    expect(conflict).toEqual({
      ...{ keywordId: 'k1', negativeId: 'n1', severity: 'shut out', terms: 1 },
      lost: { ...noFigures(), costMicros: 3_000_000, conversions: 0 },
    });
    expect(more).toEqual([]);
  });

  test('a term that never converted makes no conflict by itself, one that did is costly', () => {
    const ask = (conversions: number) =>
      findConflicts({
        account: account(free),
        keywords: [{ id: 'k1', adGroupId: 'g1', text: 'hive', match: 'broad' }],
        served: [{ text: 'free hive', keywordId: 'k1', costMicros: 5, conversions }],
      }).map((c) => c.severity);
    expect(ask(0)).toEqual([]);
    expect(ask(0.5)).toEqual(['costly']);
  });

  describe('are judged by the days before the negative was in force', () => {
    const keywords = [
      { id: 'k1', adGroupId: 'g1', text: 'free hive', match: 'exact' as const },
      { id: 'k2', adGroupId: 'g1', text: 'hive', match: 'broad' as const },
    ];
    const row = (day: string, keywordId: string, conversions: number) => ({
      ...{ text: 'free hive', keywordId, day, conversions, costMicros: 1_000_000, clicks: 1 },
    });
    const served = [row('2026-10-30', 'k1', 1), row('2026-11-08', 'k1', 1), row('2026-11-09', 'k2', 1)];
    const judge = (negative: Partial<PlacedNegative>, lists: AccountShape['lists'] = []) =>
      findConflicts({
        account: { ...account({ ...free, ...negative }), lists },
        ...{ keywords, served, judged: { days: 7, firstDay: '2026-10-30' } },
      }).map((c) => [c.keywordId, c.severity, c.terms, c.lost?.conversions ?? c.lost]);

    test('as many as the window has; later ones say nothing', () => {
      expect(judge({ createdAt: '2026-11-10T09:00:00Z' })).toEqual([
        ['k1', 'shut out', 1, 1],
        ['k2', 'costly', 1, 1],
      ]);
      expect(judge({ createdAt: '2026-11-09' })).toEqual([['k1', 'shut out', 1, 1]]);
      // No term was stopped in those days: it cost nothing.
      expect(judge({ createdAt: '2026-11-08' })).toEqual([['k1', 'shut out', 0, noFigures()]]);
    });

    test('one that was there before the data costs what is not known, and is costly by all rows', () => {
      for (const createdAt of ['2026-10-30', '2020-01-01', '', undefined])
        expect(judge({ createdAt })).toEqual([
          ['k1', 'shut out', 1, null],
          ['k2', 'costly', 1, null],
        ]);
    });

    test('by a list it came into force when the list was hung, if that was later', () => {
      const place = { kind: 'list', id: 'l1' } as const;
      const hung = (since: [string, string][]) => [{ id: 'l1', hungOn: ['c1'], since: new Map(since) }];
      const createdAt = '2020-01-01';
      expect(judge({ place, createdAt }, hung([['c1', '2026-11-10']]))).toHaveLength(2);
      expect(judge({ place, createdAt }, hung([['c1', '2026-11-09']]))).toEqual([['k1', 'shut out', 1, 1]]);
      expect(judge({ place, createdAt }, hung([]))).toMatchObject([
        ['k1', 'shut out', 1, null],
        ['k2', 'costly', 1, null],
      ]);
      const onAccount = [
        { id: 'l1', hungOn: 'account' as const, since: new Map([['account', '2026-11-09']]) },
      ];
      expect(judge({ place, createdAt }, onAccount)).toEqual([['k1', 'shut out', 1, 1]]);
    });
  });

  test('are those that the rule names, keyword by keyword and negative by negative', () => {
    const aKeyword = fc.record({
      adGroupId: fc.constantFrom('g1', 'g2', 'g3'),
      text: aText(3),
      match: fc.constantFrom('broad' as const, 'phrase' as const, 'exact' as const),
    });
    const terms = fc.array(fc.tuple(aText(), fc.nat(3), fc.nat(1)), { maxLength: 6 });
    fc.assert(
      fc.property(anAccount(), fc.array(aKeyword, { maxLength: 4 }), terms, (shape, drawn, rows) => {
        const keywords = drawn.map((k, i) => ({ ...k, id: `k${i}` }));
        const served = rows.map(([text, k, conversions]) => ({
          text,
          keywordId: `k${k}`,
          conversions,
          costMicros: 1,
        }));
        const gate = compileAccountGate(shape);
        const expected = keywords.flatMap((keyword) =>
          shape.negatives
            .filter((negative) => gate.isInForce(negative.id, keyword.adGroupId))
            .flatMap((negative) => {
              const own = served.filter((s) => s.keywordId === keyword.id);
              const { severity, stoppedTerms } = classifyConflict({ keyword, negative, terms: own });
              return severity === 'none'
                ? []
                : [`${keyword.id} ${negative.id} ${severity} ${stoppedTerms.length}`];
            }),
        );
        const found = findConflicts({ account: shape, keywords, served });
        expect(found.map((c) => `${c.keywordId} ${c.negativeId} ${c.severity} ${c.terms}`).sort()).toEqual(
          expected.sort(),
        );
      }),
      { numRuns: 1_500 },
    );
  });
});
