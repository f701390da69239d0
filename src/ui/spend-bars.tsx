'use client';

import { max, scaleBand, scaleLinear } from 'd3';
import { formatDay } from './format';

export type SpendDay = { day: string; returnedMicros: number; openMicros: number; stoppedMicros: number };

const [WIDTH, HEIGHT] = [270, 36];
const LAYERS = [
  { key: 'returnedMicros', tone: 'fill-moss', name: 'returned' },
  { key: 'openMicros', tone: 'fill-line', name: 'not returned' },
  { key: 'stoppedMicros', tone: 'fill-timber', name: 'stopped by the tray' },
] as const;

/** Spend of each day, split into what returned, what did not, and what would be stopped; with its table. */
export function SpendBars({
  days,
  money,
}: {
  days: readonly SpendDay[];
  /** writes micro-units as an amount */
  money: (micros: number) => string;
}) {
  const x = scaleBand(
    days.map((d) => d.day),
    [0, WIDTH],
  ).padding(0.15);
  const total = (d: SpendDay) => d.returnedMicros + d.openMicros + d.stoppedMicros;
  const y = scaleLinear([0, max(days, total) ?? 1], [0, HEIGHT]);
  return (
    <figure>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="block h-9 w-full"
        preserveAspectRatio="none"
        aria-hidden
      >
        {days.map((d) => {
          let top = HEIGHT;
          return LAYERS.map(({ key, tone }) => {
            const height = y(d[key]);
            top -= height;
            return (
              <rect
                key={d.day + key}
                className={tone}
                x={x(d.day)}
                y={top}
                width={x.bandwidth()}
                height={height}
              />
            );
          });
        })}
      </svg>
      <figcaption>
        <details className="text-small text-soft">
          <summary>
            {LAYERS.map(({ key, name }, i) => (
              <span key={key}>
                {i > 0 && ', '}
                <svg
                  viewBox="0 0 8 8"
                  width="8"
                  height="8"
                  className={`mr-1 inline ${LAYERS[i]!.tone}`}
                  aria-hidden
                >
                  <rect width="8" height="8" />
                </svg>
                {name}
              </span>
            ))}
          </summary>
          <div
            className="max-h-40 overflow-y-auto"
            tabIndex={0}
            role="group"
            aria-label="Spend by day as a table"
          >
            <table className="w-full text-right">
              <thead>
                <tr>
                  <th className="text-left font-normal">day</th>
                  {LAYERS.map(({ key, name }) => (
                    <th key={key} className="font-normal">
                      {name}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {days.map((d) => (
                  <tr key={d.day}>
                    <td className="text-left">{formatDay(d.day)}</td>
                    {LAYERS.map(({ key }) => (
                      <td key={key}>{money(d[key])}</td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </details>
      </figcaption>
    </figure>
  );
}
