import type { SeedRequest } from '@/contracts/platform';
import { normalise, shiftDay } from '@/core';
import { servedDays } from '@/standins/ad-platform/clock';
import { gateOn } from '@/standins/ad-platform/store';

/** A term in one of its ad groups, over all days that are kept less the lag, as the reports show it. */
export type PlayedRow = {
  text: string;
  adGroupId: string;
  campaignId: string;
  clicks: number;
  /** as known when the newest report was made */
  conversions: number;
  costMicros: number;
};

/** What a world's reports show, and the truth behind it. */
export type Played = {
  rows: PlayedRow[];
  /** of each text, the true rate at which its clicks convert */
  rateOf: ReadonlyMap<string, number>;
  /** mean value of a conversion, micro-units */
  meanValueMicros: number;
  /** a text as it is compared (rules 1.1) */
  keyOf: (text: string) => string;
  keywords: { text: string; match: 'broad' | 'phrase' | 'exact' }[];
};

/** A day is reported two days late, and the newest two days of reports are left out as their conversions still grow. */
const REPORT_LAG = 2;
const WINDOW_LAG = 2;

/**
 * Lets a world's days pass and adds its reports up. Unreported queries and what the account stops today are left out.
 * @param isWanted whether a text counts; product codes do not
 */
export function play(
  { account, structure, queries }: SeedRequest,
  isWanted: (text: string) => boolean = () => true,
): Played {
  const days: string[] = [];
  const last = shiftDay(account.today, -REPORT_LAG - WINDOW_LAG);
  for (let day = account.firstDay; day <= last; day = shiftDay(day, 1)) days.push(day);
  const numbered = queries.map((query, id) => ({ ...query, id }));
  const campaignOf = new Map(structure.adGroups.map(({ id, campaignId }) => [id, campaignId]));
  const sums = new Map<string, PlayedRow>();
  for (const { served } of servedDays(numbered, structure, account.seed, days)) {
    for (const { queryId, adGroupId, clicks, conversions, costMicros } of served) {
      const { text, unreported } = numbered[queryId]!;
      if (unreported || !isWanted(text)) continue;
      const key = `${queryId} ${adGroupId}`;
      let row = sums.get(key);
      if (!row)
        sums.set(
          key,
          (row = {
            ...{ text, adGroupId, campaignId: campaignOf.get(adGroupId)! },
            clicks: 0,
            conversions: 0,
            costMicros: 0,
          }),
        );
      row.clicks += clicks;
      row.conversions += conversions[2]; // two days are enough for all of them
      row.costMicros += costMicros;
    }
  }
  const gate = gateOn(structure, account.today);
  const live = new Set(structure.campaigns.filter((c) => c.status === 'live').map((c) => c.id));
  const groups = new Set(structure.adGroups.filter((g) => live.has(g.campaignId)).map((g) => g.id));
  const rows = [...sums.values()].filter(
    ({ text, adGroupId, clicks }) => clicks > 0 && gate.stoppers(text, adGroupId).length === 0,
  );
  const valueOf = new Map(queries.map(({ text, valueMicros }) => [text, valueMicros]));
  const sum = (of: (row: PlayedRow) => number) => rows.reduce((all, row) => all + of(row), 0);
  return {
    rows,
    meanValueMicros: sum((r) => r.conversions * valueOf.get(r.text)!) / sum((r) => r.conversions),
    keyOf: normalise,
    rateOf: new Map(queries.map(({ text, cvr }) => [text, cvr])),
    keywords: structure.keywords.flatMap(({ text, match, status, adGroupId }) =>
      status === 'live' &&
      groups.has(adGroupId) &&
      (match === 'broad' || match === 'phrase' || match === 'exact')
        ? [{ text, match }]
        : [],
    ),
  };
}
