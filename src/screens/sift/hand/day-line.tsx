'use client';

import { useMoney } from '@/screens/frame/money';
import { area, curveStep, max, scaleLinear } from 'd3';
import type { TermDetail } from '@/contracts/hand';
import { formatConversions, formatCount, formatDay } from '@/ui/format';

const [WIDTH, HEIGHT] = [272, 26];

/** Clicks of a term day by day, with a dot where it converted and a rule where its keyword was changed; and its table. */
export function DayLine({ days, changedOn }: { days: TermDetail['days']; changedOn: string | null }) {
  const formatMoney = useMoney();
  if (days.length < 2) return null;
  const x = scaleLinear([0, days.length], [0, WIDTH]);
  const y = scaleLinear([0, Math.max(1, max(days, (d) => d.clicks) ?? 1)], [HEIGHT - 2, 4]);
  const shape = area<number>()
    .x((i) => x(i))
    .y0(HEIGHT - 2)
    .y1((i) => y(days[Math.min(i, days.length - 1)]!.clicks))
    .curve(curveStep);
  const changed = changedOn === null ? -1 : days.findIndex((d) => d.day >= changedOn);
  return (
    <details className="mt-1 text-small text-soft">
      <summary className="list-none" title="Clicks day by day; open for the figures">
        <svg
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          className="block h-[26px] w-full"
          aria-hidden
          preserveAspectRatio="none"
        >
          <path
            d={shape(days.map((_, i) => i)) ?? ''}
            className="fill-timber/35 stroke-timber"
            strokeWidth="0.8"
          />
          {changed > 0 && (
            <path d={`M${x(changed)} 0V${HEIGHT}`} className="stroke-ink" strokeDasharray="2 2" />
          )}
          {days.map((d, i) =>
            d.conversions > 0 ? (
              <circle key={d.day} cx={x(i + 0.5)} cy={y(d.clicks)} r="2.4" className="fill-moss" />
            ) : null,
          )}
        </svg>
        <span className="sr-only">
          Clicks by day, {formatDay(days[0]!.day)} to {formatDay(days.at(-1)!.day)}
        </span>
      </summary>
      <div
        className="max-h-32 overflow-y-auto"
        tabIndex={0}
        role="group"
        aria-label="Days of this term as a table"
      >
        <table className="w-full text-right">
          <thead>
            <tr>
              <th className="text-left font-normal">day</th>
              <th className="font-normal">clicks</th>
              <th className="font-normal">cost</th>
              <th className="font-normal">conv.</th>
            </tr>
          </thead>
          <tbody>
            {days
              .filter((d) => d.clicks > 0 || d.costMicros > 0)
              .map((d) => (
                <tr key={d.day}>
                  <td className="text-left">{formatDay(d.day)}</td>
                  <td>{formatCount(d.clicks)}</td>
                  <td>{formatMoney(d.costMicros)}</td>
                  <td>{formatConversions(d.conversions)}</td>
                </tr>
              ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}
