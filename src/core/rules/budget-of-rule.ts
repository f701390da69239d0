import type { CampaignAction } from './rule';

/**
 * The budget that a rule proposes for a campaign, micro-units a day, in whole smallest units of the currency.
 * @param unitMicros the currency's smallest unit
 * @returns null where that is no higher than now
 * @example budgetOfRule({ do: 'raise budget', byShare: 0.2, mostMicros: 50_000_000 }, 40_000_000, 10_000) // 48_000_000
 */
export function budgetOfRule(
  { byShare, mostMicros }: CampaignAction,
  wasMicros: number,
  unitMicros: number,
): number | null {
  const budget = Math.min(mostMicros, Math.round((wasMicros * (1 + byShare)) / unitMicros) * unitMicros);
  return budget > wasMicros ? budget : null;
}
