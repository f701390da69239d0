'use client';

import { useMoney } from '@/screens/frame/money';
import type { AnyRow, ElementRow, IdeaRow, KeywordRow, Reading, ReportRow } from '@/core';
import { formatConversions, formatCount, formatDay, formatShare } from '@/ui/format';

type Money = (micros: number | null) => string;
type Shown<Row> = { name: string; isFigure?: boolean; cell: (row: Row, money: Money) => string };

const TERMS: Shown<ReportRow>[] = [
  { name: 'search term', cell: (r) => r.term },
  { name: 'campaign', cell: (r) => r.campaign },
  { name: 'ad group', cell: (r) => r.adGroup },
  { name: 'keyword', cell: (r) => r.keyword ?? '–' },
  { name: 'match', cell: (r) => r.match ?? '–' },
  { name: 'day', isFigure: true, cell: (r) => (r.day === '' ? '–' : formatDay(r.day, true)) },
  { name: 'impr.', isFigure: true, cell: (r) => formatCount(r.impressions) },
  { name: 'clicks', isFigure: true, cell: (r) => formatCount(r.clicks) },
  { name: 'cost', isFigure: true, cell: (r, money) => money(r.costMicros) },
  { name: 'conv.', isFigure: true, cell: (r) => formatConversions(r.conversions) },
  { name: 'value', isFigure: true, cell: (r, money) => money(r.valueMicros) },
];

const KEYWORDS: Shown<KeywordRow>[] = [
  { name: 'keyword', cell: (r) => r.keyword },
  { name: 'match', cell: (r) => r.match ?? '–' },
  { name: 'campaign', cell: (r) => r.campaign },
  { name: 'ad group', cell: (r) => r.adGroup },
  { name: 'day', isFigure: true, cell: (r) => (r.day === '' ? '–' : formatDay(r.day, true)) },
  { name: 'bid', isFigure: true, cell: (r, money) => money(r.bidMicros) },
  { name: 'impr. share', isFigure: true, cell: (r) => formatShare(r.impressionShare) },
  { name: 'quality', isFigure: true, cell: (r) => formatCount(r.quality) },
  { name: 'clicks', isFigure: true, cell: (r) => formatCount(r.clicks) },
  { name: 'cost', isFigure: true, cell: (r, money) => money(r.costMicros) },
  { name: 'conv.', isFigure: true, cell: (r) => formatConversions(r.conversions) },
  { name: 'other kinds', cell: (r) => sayKinds(r.otherConversions) },
];

/** @example sayKinds({ Leads: 2 }) // 'Leads 2' */
function sayKinds(kinds: KeywordRow['otherConversions']): string {
  const told = Object.entries(kinds).map(
    ([kind, conversions]) => `${kind} ${formatConversions(conversions)}`,
  );
  return told.join(', ') || '–';
}

const IDEAS: Shown<IdeaRow>[] = [
  { name: 'keyword idea', cell: (r) => r.text },
  { name: 'searches a month', isFigure: true, cell: sayVolume },
  { name: 'competition', cell: (r) => r.competition ?? '–' },
  { name: 'low bid', isFigure: true, cell: (r, money) => money(r.lowBidMicros) },
  { name: 'high bid', isFigure: true, cell: (r, money) => money(r.highBidMicros) },
];

/** The middle of a range, with its ends. */
function sayVolume({ volume, volumeFrom, volumeTo }: IdeaRow): string {
  const middle = formatCount(volume);
  return volumeFrom === volumeTo
    ? middle
    : `${middle} (${formatCount(volumeFrom)} – ${formatCount(volumeTo)})`;
}

const ELEMENTS: Shown<ElementRow>[] = [
  { name: 'element', cell: (r) => r.element },
  { name: 'campaign', cell: (r) => ('campaign' in r ? r.campaign : '') },
  { name: 'ad group', cell: (r) => ('adGroup' in r ? r.adGroup : '') },
  { name: 'list', cell: (r) => ('list' in r ? r.list : '') },
  { name: 'text', cell: (r) => ('text' in r ? r.text : '') },
  { name: 'match', cell: (r) => ('match' in r ? r.match : '') },
  { name: 'status', cell: (r) => r.status },
];

/** The first rows as they will be stored. */
export function Preview({ reading: { kind, preview } }: { reading: Reading }) {
  switch (kind) {
    case 'search terms':
      return <Rows shown={TERMS} rows={preview as ReportRow[]} />;
    case 'keywords':
      return <Rows shown={KEYWORDS} rows={preview as KeywordRow[]} />;
    case 'keyword ideas':
      return <Rows shown={IDEAS} rows={preview as IdeaRow[]} />;
    case 'structure':
      return <Rows shown={ELEMENTS} rows={preview as ElementRow[]} />;
  }
}

function Rows<Row extends AnyRow>({ shown, rows }: { shown: Shown<Row>[]; rows: Row[] }) {
  const money = useMoney();
  return (
    <table className="w-full text-table">
      <caption className="px-4 pb-1 text-left text-base font-semibold">Rows as they will be stored</caption>
      <thead className="text-left text-small text-soft">
        <tr>
          {shown.map(({ name, isFigure }) => (
            <th
              key={name}
              className={`px-2 font-normal first:pl-4 last:pr-4 ${isFigure ? 'text-right' : ''}`}
            >
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.slice(0, 15).map((row) => (
          <tr key={row.line} className="border-t border-line">
            {shown.map(({ name, isFigure, cell }, i) => (
              <td
                key={name}
                className={`px-2 py-1 first:pl-4 last:pr-4 ${isFigure ? 'text-right whitespace-nowrap' : 'max-w-40 truncate'} ${i > 0 && !isFigure ? 'text-soft' : ''}`}
              >
                {cell(row, money)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
