'use client';

import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { COLUMN_ROLES, type ColumnRole, type Reading } from '@/core';
import type { ReadingAnswer, ReadOptionsInput, ReportFileView } from '@/contracts/intake';
import { useAccount } from '@/screens/frame/account-context';
import { InHand } from '@/screens/frame/in-hand';
import { ask } from '@/ui/ask';
import { formatConversions, formatCount, formatDay, formatDays, formatMoney, plural } from '@/ui/format';
import { LoadPanel } from './load-panel';
import { Questions } from './questions';

const SEPARATORS: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'pipes' };

/** How one file was read, before anything is stored; corrections show their effect at once. */
export function ReadingView({ file }: { file: ReportFileView }) {
  const { summary, api } = useAccount();
  const client = useQueryClient();
  const [options, setOptions] = useState<ReadOptionsInput>({});
  const { data, error, isPlaceholderData } = useQuery({
    queryKey: ['reading', summary.slug, file.id, options],
    queryFn: ({ signal }) =>
      ask<ReadingAnswer>(api(`intake/${file.id}/reading`), { method: 'POST', body: options, signal }),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  if (error) return <p className="p-4 text-rust">{error.message}</p>;
  if (!data) return <p className="p-4 text-soft">Reading …</p>;
  const { reading } = data;
  const setRole = (index: number, role: ColumnRole | null) =>
    setOptions({ ...options, roles: { ...freed(reading, role, options), [index]: role } });
  return (
    <>
      <div
        className={`min-h-0 flex-1 overflow-y-auto ${isPlaceholderData ? 'opacity-60' : ''}`}
        tabIndex={0}
        role="group"
        aria-label="How the file was read"
      >
        <p className="border-b border-line bg-paper px-4 py-1.5 text-[13px] text-soft">
          {describeForm(reading)}
        </p>
        {reading.error && reading.error.category !== 'undecided' && (
          <p role="alert" className="m-4 border-l-[3px] border-rust bg-rust/10 px-3 py-2">
            <b>{reading.error.category}:</b> {reading.error.message} Nothing was stored.
          </p>
        )}
        {reading.columns.length > 0 && (
          <div className="grid grid-cols-[minmax(0,1fr)_264px] gap-5 px-4 py-3">
            <Columns reading={reading} onRole={setRole} />
            <div>
              <Sums reading={reading} currency={data.currency} />
              <Refused reading={reading} />
            </div>
          </div>
        )}
        {reading.preview.length > 0 && <Preview reading={reading} />}
      </div>
      <InHand title={file.name}>
        <Questions
          questions={reading.questions}
          options={options}
          onAnswer={(answer) => setOptions({ ...options, ...answer })}
        />
        <LoadPanel
          file={file}
          answer={data}
          options={options}
          onLoaded={() => void client.invalidateQueries()}
        />
      </InHand>
    </>
  );
}

/** A role goes to one column only: who had it by a person's word gives it up. */
function freed(
  reading: Reading,
  role: ColumnRole | null,
  options: ReadOptionsInput,
): Record<string, ColumnRole | null> {
  const roles: Record<string, ColumnRole | null> = { ...options.roles };
  if (role === null) return roles;
  for (const column of reading.columns) if (column.role === role) roles[column.index] = null;
  return roles;
}

function describeForm({ encoding, separator, headerLine }: Reading): string {
  if (headerLine === null) return encoding ?? '';
  const above = headerLine > 1 ? `, ${plural(headerLine - 1, 'line')} above it set aside` : '';
  return `${encoding ?? 'rows'}, ${SEPARATORS[separator ?? ''] ?? 'cells'} · header in line ${headerLine}${above}`;
}

function Columns({
  reading,
  onRole,
}: {
  reading: Reading;
  onRole: (index: number, role: ColumnRole | null) => void;
}) {
  return (
    <table className="w-full table-fixed text-[13px]">
      <caption className="pb-1 text-left text-[14px] font-semibold">Columns</caption>
      <thead className="text-left text-[12px] text-soft">
        <tr>
          <th className="w-[26%] font-normal">in the file</th>
          <th className="w-[124px] font-normal">taken for</th>
          <th className="font-normal">because</th>
          <th className="w-[22%] text-right font-normal">first cell</th>
        </tr>
      </thead>
      <tbody>
        {reading.columns.map((c) => (
          <tr key={c.index} className="border-t border-line">
            <td className="truncate py-1 font-semibold" title={c.header}>
              {c.header}
            </td>
            <td>
              <select
                aria-label={`${c.header} is taken for`}
                className={`border-b border-dashed bg-transparent ${c.role ? 'font-semibold text-pine' : 'text-soft'}`}
                value={c.role ?? ''}
                onChange={(e) =>
                  onRole(c.index, e.target.value === '' ? null : (e.target.value as ColumnRole))
                }
              >
                <option value="">left out</option>
                {COLUMN_ROLES.map((role) => (
                  <option key={role} value={role}>
                    {role}
                  </option>
                ))}
              </select>
            </td>
            <td className="truncate text-soft" title={c.because}>
              {c.because}
            </td>
            <td className="truncate text-right text-soft" title={c.sample}>
              {c.sample}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Sums({ reading: { rows, days, sums }, currency }: { reading: Reading; currency: string }) {
  const lines: [string, string][] = [
    ['rows read', formatCount(rows)],
    ['days', days ? formatDays(days, true) : '–'],
    ['impressions', formatCount(sums.impressions)],
    ['clicks', formatCount(sums.clicks)],
    ['cost', sums.costMicros === null ? '–' : `${currency} ${formatMoney(sums.costMicros)}`],
    ['conversions', formatConversions(sums.conversions)],
    ['value', sums.valueMicros === null ? '–' : `${currency} ${formatMoney(sums.valueMicros)}`],
  ];
  return (
    <table className="w-full text-[13px]">
      <caption className="pb-1 text-left text-[14px] font-semibold">To compare with the source</caption>
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
  );
}

function Refused({ reading: { rejected, rejectedCount } }: { reading: Reading }) {
  const aside = rejected.filter((r) => r.category === 'total row').length;
  if (rejected.length === 0) return <p className="mt-3 text-[13px] text-soft">No row was refused.</p>;
  return (
    <table className="mt-3 w-full text-[13px]">
      <caption className="pb-1 text-left text-[14px] font-semibold">
        Refused{' '}
        <span className="font-normal text-soft">
          {plural(rejectedCount, 'row')}
          {aside > 0 && `, ${aside} set aside`}
        </span>
      </caption>
      <tbody>
        {rejected.slice(0, 12).map((r) => (
          <tr key={r.line} className="border-t border-line align-baseline" title={r.raw}>
            <td className="py-1 pr-2 text-right text-soft">{formatCount(r.line)}</td>
            <td className="pr-2 font-semibold">{r.category}</td>
            <td className="break-all text-soft">{r.reason}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Preview({ reading: { preview } }: { reading: Reading }) {
  const names = [
    'search term',
    'campaign',
    'ad group',
    'match',
    'day',
    'impr.',
    'clicks',
    'cost',
    'conv.',
    'value',
  ];
  return (
    <table className="w-full text-[13px]">
      <caption className="px-4 pb-1 text-left text-[14px] font-semibold">Rows as they will be stored</caption>
      <thead className="text-left text-[12px] text-soft">
        <tr>
          {names.map((name, i) => (
            <th key={name} className={`px-2 font-normal first:pl-4 last:pr-4 ${i > 3 ? 'text-right' : ''}`}>
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {preview.slice(0, 12).map((row) => (
          <tr key={row.line} className="border-t border-line">
            <td className="max-w-48 truncate py-1 pr-2 pl-4">{row.term}</td>
            <td className="max-w-32 truncate px-2 text-soft">{row.campaign}</td>
            <td className="max-w-28 truncate px-2 text-soft">{row.adGroup}</td>
            <td className="px-2 text-soft">{row.match ?? '–'}</td>
            <td className="px-2 text-right whitespace-nowrap">{formatDay(row.day, true)}</td>
            <td className="px-2 text-right">{formatCount(row.impressions)}</td>
            <td className="px-2 text-right">{formatCount(row.clicks)}</td>
            <td className="px-2 text-right">{formatMoney(row.costMicros)}</td>
            <td className="px-2 text-right">{formatConversions(row.conversions)}</td>
            <td className="pr-4 pl-2 text-right">{formatMoney(row.valueMicros)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
