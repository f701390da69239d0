import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compileAccountGate, covers, type AccountShape, type PlacedNegative } from '../gate';
import { anAccount, aText } from '../gate/testing';
import { compileReach } from './reach';
import { findRedundant } from './redundant';

const CAMPAIGNS = [
  { id: 'c1', adGroups: [{ id: 'g1' }, { id: 'g2' }] },
  { id: 'c2', adGroups: [{ id: 'g3' }] },
];
const LISTS = [
  { id: 'l1', hungOn: ['c1'] },
  { id: 'l2', hungOn: 'account' as const },
  { id: 'l3', hungOn: [] },
];
let next = 0;
const at = (
  place: string,
  text: string,
  match: PlacedNegative['match'] = 'broad',
  createdAt = '2026-01-01',
): PlacedNegative => ({ ...{ id: `n${++next}`, text, match, createdAt }, place: toPlace(place) });
const toPlace = (short: string): PlacedNegative['place'] => {
  if (short === 'account') return { kind: 'account', id: null };
  const kind = ({ c: 'campaign', g: 'adGroup', l: 'list' } as const)[short[0] as 'c'];
  return { kind, id: short };
};
const find = (...negatives: PlacedNegative[]) =>
  findRedundant({ campaigns: CAMPAIGNS, lists: LISTS, negatives }).map(({ id, coveredBy, lasting }) => [
    negatives.findIndex((n) => n.id === id),
    negatives.findIndex((n) => n.id === coveredBy),
    lasting,
  ]);

describe('redundant negatives', () => {
  test('one that a shorter one in the same place covers', () => {
    expect(find(at('c1', 'free', 'phrase'), at('c1', 'free plans', 'exact'))).toEqual([[1, 0, true]]);
    expect(find(at('c1', 'free plans', 'exact'), at('c1', 'free', 'phrase'))).toEqual([[0, 1, true]]);
  });

  test('one on the ad group when the campaign, its list or the account has it', () => {
    for (const wide of ['c1', 'l1', 'l2', 'account'])
      expect(find(at('g1', 'free'), at(wide, 'free'))).toEqual([[0, 1, true]]);
  });

  test('of twins the widest place stays, then the older, then the smaller id', () => {
    // c2 has one ad group only, so as the account stands today both reach the same.
    expect(find(at('g3', 'free'), at('c2', 'free'))).toEqual([[0, 1, true]]);
    expect(find(at('c1', 'free', 'broad', '2026-02-02'), at('c1', 'free', 'phrase', '2025-02-02'))).toEqual([
      [0, 1, true],
    ]);
    expect(find(at('c1', 'free'), at('c1', 'Free!'))).toEqual([[1, 0, true]]);
    expect(find(at('c1', 'hive free'), at('c1', 'free hive'))).toEqual([[1, 0, true]]);
  });

  test('what holds only as the account stands today is no lasting redundancy', () => {
    // The list hangs on c1, so it reaches both ad groups; were it taken down, they would be open.
    expect(find(at('l1', 'free'), at('c1', 'free hive'))).toEqual([[1, 0, true]]);
    expect(find(at('g3', 'free'), at('c2', 'free hive'))).toEqual([[1, 0, false]]);
    expect(find(at('c1', 'free'), at('l1', 'free hive'))).toEqual([[1, 0, false]]);
  });

  test('two that cover a third only between them do not make it redundant', () => {
    expect(find(at('g1', 'free'), at('g2', 'free'), at('c1', 'free hive'))).toEqual([]);
  });

  test('one in force nowhere is redundant only by one in its own place', () => {
    expect(find(at('account', 'free'), at('l3', 'free'))).toEqual([]);
    expect(find(at('l3', 'free'), at('l3', 'free hive'))).toEqual([[1, 0, true]]);
    expect(find(at('l3', 'free'), at('c1', 'free hive'))).toEqual([]);
  });

  test('a negative without a word covers nothing and is covered by nothing', () => {
    expect(find(at('account', '??'), at('account', 'free'), at('account', '!'))).toEqual([]);
  });

  test('all can be removed together: no gate answers differently, and what covers stays', () => {
    fc.assert(
      fc.property(anAccount(), fc.array(aText(), { minLength: 1, maxLength: 6 }), (account, queries) => {
        const found = findRedundant(account);
        const gone = new Set(found.map((r) => r.id));
        const left = { ...account, negatives: account.negatives.filter((n) => !gone.has(n.id)) };
        for (const { coveredBy } of found) expect(gone.has(coveredBy)).toBe(false);
        const [before, after] = [compileAccountGate(account), compileAccountGate(left)];
        for (const group of account.campaigns.flatMap((c) => c.adGroups)) {
          // The negatives' own texts are the queries most likely to tell the two apart.
          for (const query of [...queries, ...account.negatives.map((n) => n.text)])
            expect(after.stoppers(query, group.id).length > 0).toBe(
              before.stoppers(query, group.id).length > 0,
            );
        }
      }),
      { numRuns: 1_500 },
    );
  });

  test('they are those that the rule names, asked pair by pair', () => {
    fc.assert(
      fc.property(anAccount(), (account) => {
        expect(new Set(findRedundant(account).map((r) => r.id))).toEqual(plainly(account));
      }),
      { numRuns: 1_500 },
    );
  });

  test('a lasting one stays redundant whatever ad groups are added', () => {
    fc.assert(
      fc.property(anAccount(), (account) => {
        const grown = {
          ...account,
          campaigns: [
            ...account.campaigns.map((c) => ({ ...c, adGroups: [...c.adGroups, { id: `new-${c.id}` }] })),
            { id: 'c9', adGroups: [{ id: 'g9' }] },
          ],
        };
        const reach = compileReach(grown);
        const byId = new Map(account.negatives.map((n) => [n.id, n]));
        for (const { id, coveredBy, lasting } of findRedundant(account)) {
          if (lasting) expect(reach.contains(byId.get(coveredBy)!.place, byId.get(id)!.place)).toBe(true);
        }
      }),
      { numRuns: 1_000 },
    );
  });
});

/** Rules 3, word for word. */
function plainly({ campaigns, lists, negatives }: AccountShape): Set<string> {
  const force = (n: PlacedNegative) =>
    campaigns
      .flatMap((c) => c.adGroups.map((g) => [g.id, c.id] as const))
      .filter(([g, c]) => {
        if (n.place.kind === 'account') return true;
        if (n.place.kind === 'campaign') return n.place.id === c;
        if (n.place.kind === 'adGroup') return n.place.id === g;
        const hung = lists.find((l) => l.id === n.place.id)?.hungOn ?? [];
        return hung === 'account' || hung.includes(c);
      });
  const samePlace = (a: PlacedNegative, b: PlacedNegative) =>
    a.place.kind === b.place.kind && a.place.id === b.place.id;
  const needless = (b: PlacedNegative, a: PlacedNegative) => {
    if (a === b || !covers(a, b)) return false;
    if (force(b).length === 0) return samePlace(a, b);
    const wide = new Set(force(a).map(([g]) => g));
    return force(b).every(([g]) => wide.has(g));
  };
  const width = ['account', 'list', 'campaign', 'adGroup'];
  const rank = (n: PlacedNegative) => [width.indexOf(n.place.kind), n.createdAt ?? '', n.id] as const;
  const before = (a: PlacedNegative, b: PlacedNegative) => {
    const [ra, rb] = [rank(a), rank(b)];
    for (let i = 0; i < 3; i++) if (ra[i] !== rb[i]) return ra[i]! < rb[i]!;
    return false;
  };
  return new Set(
    negatives
      .filter((b) => negatives.some((a) => needless(b, a) && (!needless(a, b) || before(a, b))))
      .map((n) => n.id),
  );
}
