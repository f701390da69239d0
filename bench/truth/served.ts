import { normalise } from '@/core';
import type { SeedRequest, Structure } from '@/contracts/platform';
import { servedDays } from '@/standins/ad-platform/clock';

/** A text in an ad group over some days, as reports show it. */
export type ServedRow = {
  text: string;
  adGroupId: string;
  /** the keyword that served it on the most of these days; the ad group where there is none */
  source: string;
  days: number;
  impressions: number;
  clicks: number;
  conversions: number;
  costMicros: number;
};

/**
 * Adds up what a world serves on some days, by text and ad group; queries that are not reported are left out.
 * @param structure as it stands on these days
 */
export function serve(
  { account, queries }: SeedRequest,
  structure: Structure,
  days: readonly string[],
): ServedRow[] {
  const numbered = queries.map((query, id) => ({ ...query, id }));
  const sums = new Map<string, ServedRow & { sources: Map<string, number> }>();
  for (const { served } of servedDays(numbered, structure, account.seed, days)) {
    for (const { queryId, adGroupId, keywordId, impressions, clicks, conversions, costMicros } of served) {
      const { text, unreported } = numbered[queryId]!;
      if (unreported) continue;
      const key = `${queryId} ${adGroupId}`;
      let row = sums.get(key);
      if (!row) {
        row = {
          ...{ text: normalise(text), adGroupId, source: '', sources: new Map() },
          ...{ days: 0, impressions: 0, clicks: 0, conversions: 0, costMicros: 0 },
        };
        sums.set(key, row);
      }
      const source = keywordId ?? adGroupId;
      row.sources.set(source, (row.sources.get(source) ?? 0) + 1);
      row.days += 1;
      row.impressions += impressions;
      row.clicks += clicks;
      row.conversions += conversions[2];
      row.costMicros += costMicros;
    }
  }
  return Array.from(sums.values(), ({ sources, ...row }) => ({
    ...row,
    source: [...sources].reduce((a, b) => (b[1] > a[1] ? b : a))[0],
  }));
}
