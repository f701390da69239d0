import { addFigures, noFigures, writeCsv, type Figures, type ReportRow } from '@/core';
import { drawFrom } from './random';

const HEADER = [
  ...['Day', 'Campaign', 'Ad group', 'Keyword', 'Match type', 'Bid', 'Quality rating', 'Impression share'],
  ...['Impressions', 'Clicks', 'Cost', 'Conversions', 'Newsletter sign-ups', 'Phone calls'],
];

/** Where a keyword stands, and its bid in micro-units. */
type Bid = Pick<ReportRow, 'campaign' | 'adGroup' | 'keyword'> & { bidMicros: number | null };

const [SIGN_UPS, CALLS] = [0.04, 0.012]; // by click

/**
 * The keyword report that goes with a search term report, as CSV: the same figures by keyword and day, and what only
 * keywords have. The same rows always give the same report.
 */
export function makeKeywordReport(rows: readonly ReportRow[], bids: readonly Bid[]): string {
  const nameOf = (row: Pick<ReportRow, 'campaign' | 'adGroup' | 'keyword'>) =>
    JSON.stringify([row.campaign, row.adGroup, row.keyword]);
  const bidOf = new Map(bids.map((bid) => [nameOf(bid), bid.bidMicros]));
  const sums = new Map<string, { row: ReportRow; figures: Figures }>();
  for (const row of rows) {
    if (row.keyword === null) continue;
    const key = `${row.day} ${row.match} ${nameOf(row)}`;
    let sum = sums.get(key);
    if (!sum) sums.set(key, (sum = { row, figures: noFigures() }));
    addFigures(sum.figures, row);
  }
  const draw = drawFrom(0.291);
  const ofKeyword = new Map<string, { quality: number; share: number }>();
  const lines = [...sums.values()].map(({ row, figures }) => {
    const name = nameOf(row);
    let known = ofKeyword.get(name);
    if (!known)
      ofKeyword.set(
        name,
        (known = { quality: 3 + Math.floor(7 * draw.next()), share: 0.2 + 0.7 * draw.next() }),
      );
    const clicks = figures.clicks ?? 0;
    const some = (rate: number) => Math.floor(clicks * rate + draw.next());
    const share = Math.min(1, known.share * draw.spread(0.05));
    const micros = (value: number | null | undefined) => (value == null ? '' : (value / 1e6).toFixed(2));
    return [
      ...[row.day, row.campaign, row.adGroup, row.keyword ?? '', row.match ?? ''],
      ...[micros(bidOf.get(name)), known.quality, `${(100 * share).toFixed(1)} %`],
      ...[figures.impressions ?? '', clicks, micros(figures.costMicros), figures.conversions ?? ''],
      ...[some(SIGN_UPS), some(CALLS)],
    ];
  });
  return writeCsv(HEADER, lines);
}
