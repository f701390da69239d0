import { sumFigures, type Figures } from '../figures';

export type Contender = { id: string; createdAt: string } & Pick<
  Figures,
  'clicks' | 'costMicros' | 'conversions'
>;

/** What a keyword of a group can be expected to pay for a conversion; the rates that led there. */
export type Expected = { id: string; cpcMicros: number; cvr: number; costMicros: number };

/** Clicks at the group's rate that each keyword is taken to have had already. */
const PULL = 50;

/**
 * Which keyword of a group of duplicates should stay: the one with the lowest expected cost of a conversion (rules
 * 5.4). Ties go to more conversions, more clicks, the older.
 * @param accountCvr used where the group has no conversion; null or 0 leaves the cost undefined
 * @returns best first, with the numbers that say why; a cost is Infinity where it is undefined
 * @example rankSurvivors([{ id: 'a', createdAt: '2026-01-01', clicks: 10, costMicros: 9, conversions: 0 }, { id: 'b', createdAt: '2026-01-01', clicks: 10, costMicros: 9, conversions: 1 }], null)[0]?.id // 'b'
 */
export function rankSurvivors(group: readonly Contender[], accountCvr: number | null): Expected[] {
  const sum = sumFigures(group);
  const clicks = sum.clicks ?? 0;
  const pooledCvr = (sum.conversions ?? 0) > 0 && clicks > 0 ? sum.conversions! / clicks : (accountCvr ?? 0);
  const pooledCpc = clicks > 0 ? (sum.costMicros ?? 0) / clicks : 0;
  const expected = new Map(
    group.map((keyword): [Contender, Expected] => {
      const own = keyword.clicks ?? 0;
      const cpcMicros = own > 0 ? (keyword.costMicros ?? 0) / own : pooledCpc;
      const cvr = ((keyword.conversions ?? 0) + PULL * pooledCvr) / (own + PULL);
      return [keyword, { id: keyword.id, cpcMicros, cvr, costMicros: cvr > 0 ? cpcMicros / cvr : Infinity }];
    }),
  );
  return [...group]
    .sort((a, b) => {
      const [costA, costB] = [expected.get(a)!.costMicros, expected.get(b)!.costMicros];
      if (costA !== costB) return costA - costB;
      return (
        (b.conversions ?? 0) - (a.conversions ?? 0) ||
        (b.clicks ?? 0) - (a.clicks ?? 0) ||
        (a.createdAt < b.createdAt ? -1 : a.createdAt > b.createdAt ? 1 : 0)
      );
    })
    .map((keyword) => expected.get(keyword)!);
}
