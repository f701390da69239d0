'use client';

import { DayStrip } from '@/ui/day-strip';
import { formatCount, formatDay, formatDays } from '@/ui/format';
import { countStates, stripOf, type StripDay } from './reading-state';
import { counted } from '@/core';

const LOOKS = {
  there: { tone: 'fill-soft', height: 0.7 },
  both: { tone: 'fill-timber', height: 1 },
  new: { tone: 'fill-pine', height: 1 },
  gap: { tone: 'fill-rust', height: 0.18 },
};
const NAMES: Record<StripDay['state'], string> = {
  there: 'there already',
  both: 'there, and in this file',
  new: 'new',
  gap: 'missing',
};

/** Which days hold data, which a file brings, and which are missing between. */
export function DaysPanel({
  daysThere,
  brought = {},
}: {
  daysThere: readonly string[];
  brought?: Readonly<Record<string, number>>;
}) {
  const days = stripOf(daysThere, brought);
  if (days.length === 0) return null;
  const counts = countStates(days);
  const isFile = Object.keys(brought).length > 0;
  return (
    <figure className="mt-3 border-t border-line pt-2 text-table">
      <figcaption className="mb-1 font-semibold">
        Days{' '}
        <span className="font-normal text-soft">
          {formatDays({ from: days[0]!.day, to: days.at(-1)!.day }, true)}
        </span>
      </figcaption>
      <DayStrip days={days} looks={LOOKS} />
      <p className="mt-1 text-soft" data-testid="days-said">
        {isFile &&
          `${counted(counts.new, 'day')} new, ${formatCount(counts.both)} there already: rows of the same elements are replaced. `}
        {counts.gap > 0 ? (
          <span className="text-rust">{counted(counts.gap, 'day')} missing between.</span>
        ) : (
          'No gap.'
        )}
        {!isFile && ` Data reaches to ${formatDay(days.at(-1)!.day, true)}.`}
      </p>
      <details className="text-small text-soft">
        <summary>As a table</summary>
        <div className="max-h-36 overflow-y-auto" tabIndex={0} role="group" aria-label="Days as a table">
          <table className="w-full">
            <thead className="text-left">
              <tr>
                <th className="font-normal">day</th>
                <th className="font-normal">state</th>
                {isFile && <th className="text-right font-normal">rows here</th>}
              </tr>
            </thead>
            <tbody>
              {days.map(({ day, state, rows }) => (
                <tr key={day}>
                  <td>{formatDay(day, true)}</td>
                  <td className={state === 'gap' ? 'text-rust' : ''}>{NAMES[state]}</td>
                  {isFile && <td className="text-right">{formatCount(rows)}</td>}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </figure>
  );
}
