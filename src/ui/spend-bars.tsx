'use client';

import { max, scaleBand, scaleLinear } from 'd3';
import { ChartTable } from './chart-table';
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
      <ChartTable
        summary={LAYERS.map(({ key, name, tone }, i) => (
          <span key={key}>
            {i > 0 && ', '}
            <svg viewBox="0 0 8 8" width="8" height="8" className={`mr-1 inline ${tone}`} aria-hidden>
              <rect width="8" height="8" />
            </svg>
            {name}
          </span>
        ))}
        label="Spend by day as a table"
        head={['day', ...LAYERS.map(({ name }) => name)]}
        rows={days.map((d) => [formatDay(d.day), ...LAYERS.map(({ key }) => money(d[key]))])}
      />
    </figure>
  );
}
