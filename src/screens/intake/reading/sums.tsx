'use client';

import { useMoney } from '@/screens/frame/money';
import type { ColumnRole, Reading } from '@/core';
import type { ReportFileView } from '@/contracts/intake';
import { formatConversions, formatCount, formatDays } from '@/ui/format';
import { counted } from '@/core';

/** What a person compares with the source of the file. */
export function Sums({
  reading: { kind, rows, days, sums, bounds, columns, currency: own },
  currency: ofAccount,
  isPart,
}: {
  reading: Reading;
  currency: string;
  isPart: boolean;
}) {
  const formatMoney = useMoney();
  const currency = own !== null && own.length === 3 ? own : ofAccount;
  const money = (micros: number | null) => (micros === null ? '–' : `${currency} ${formatMoney(micros)}`);
  const figures: [string, string][] = [
    ['days', days ? formatDays(days, true) : '–'],
    ['impressions', formatCount(sums.impressions)],
    ['clicks', formatCount(sums.clicks)],
    ['cost', money(sums.costMicros)],
    ['conversions', formatConversions(sums.conversions)],
    ['value', money(sums.valueMicros)],
  ];
  const lines: [string, string][] = [
    ['rows read', formatCount(rows)],
    ...(kind === 'search terms' || kind === 'keywords' ? figures : []),
  ];
  return (
    <>
      <table className="w-full text-table">
        <caption className="pb-1 text-left text-base font-semibold">
          To compare with the source{' '}
          {isPart && <span className="font-normal text-soft">of the first rows only</span>}
        </caption>
        <tbody>
          {lines.map(([name, value]) => (
            <tr key={name} className="border-t border-line">
              <th className="py-1 text-left font-normal text-soft">{name}</th>
              <td className="text-right font-semibold" data-testid={`sum-${name}`}>
                {value}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {kind === 'search terms' && <Grain columns={columns} />}
      {Object.entries(bounds).map(([role, cells]) => (
        <p key={role} className="text-table text-soft">
          Of {role}, {counted(cells, 'cell')} tell{cells === 1 && 's'} only a bound (“&lt; 10”): unknown, and
          not in the sum.
        </p>
      ))}
    </>
  );
}

/** Every row that can not be read, with its line and why. */
export function Refused({ file, reading }: { file: ReportFileView; reading: Reading }) {
  const { rejected, rejectedCount } = reading;
  const aside = rejected.filter((r) => r.category === 'total row').length;
  if (rejected.length === 0) return <p className="mt-3 text-table text-soft">No row was refused.</p>;
  return (
    <div
      className="mt-3 max-h-64 overflow-y-auto"
      tabIndex={0}
      role="group"
      aria-label={`Refused rows of ${file.name}`}
    >
      <table className="w-full text-table">
        <caption className="pb-1 text-left text-base font-semibold">
          Refused{' '}
          <span className="font-normal text-soft">
            {counted(rejectedCount, 'row')}
            {aside > 0 && `, ${aside} set aside`}
            {rejected.length < rejectedCount && `, the first ${formatCount(rejected.length)} here`}
          </span>
        </caption>
        <tbody>
          {rejected.map((r) => (
            <tr key={r.line} className="border-t border-line align-baseline" title={r.raw}>
              <td className="py-1 pr-2 text-right text-soft">{formatCount(r.line)}</td>
              <td className="pr-2 font-semibold">{r.category}</td>
              <td className="[overflow-wrap:anywhere] text-soft">{r.reason}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** At which grain a report is kept that names no campaign, ad group or keyword, and what is not known from it. */
function Grain({ columns }: Pick<Reading, 'columns'>) {
  const has = (role: ColumnRole) => columns.some((column) => column.role === role);
  if (!has('search term')) return null;
  const places = (['campaign', 'ad group'] as const).filter((role) => !has(role));
  const missing = [...places, ...(has('keyword') ? [] : ['keyword'])];
  if (missing.length === 0) return null;
  return (
    <p className="text-table text-soft" data-testid="grain">
      No column names the {missing.join(', the ')}: shown as “not given”.
      {places.length > 0 && ` Nothing can be stopped in a single ${places.at(-1)} then.`}
      {!has('keyword') &&
        ' Which keyword served a term is not known, so none is said to lose its conversions.'}
    </p>
  );
}
