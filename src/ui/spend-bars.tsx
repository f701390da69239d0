'use client';

import { max, scaleBand, scaleLinear } from 'd3';
import { ChartTable } from './chart-table';
import { formatDay } from './format';

export type SpendDay = { day: string; returnedMicros: number; openMicros: number; stoppedMicros: number };

/** A day on which something happened, and the letter that it is called by. */
export type Flag = { day: string; letter: string };

const WIDTH = 270;
const LOOKS = {
  /** what the draft would stop is part of what was spent */
  tray: { height: 36, box: 'h-9', stopped: 'stopped by the tray', tone: 'fill-timber' },
  /** what stopping saved was not spent */
  large: {
    ...{ height: 150, box: 'h-[150px]', stopped: 'stopped, reckoned' },
    tone: 'fill-transparent stroke-timber [stroke-dasharray:2_2]',
  },
};
const layersOf = ({ stopped, tone }: (typeof LOOKS)[keyof typeof LOOKS]) =>
  [
    { key: 'returnedMicros', tone: 'fill-moss', name: 'returned' },
    { key: 'openMicros', tone: 'fill-line', name: 'not returned' },
    { key: 'stoppedMicros', tone, name: stopped },
  ] as const;

/** Spend of each day, split into what returned, what did not, and what is stopped; with its table. */
export function SpendBars({
  days,
  money,
  look = 'tray',
  flags = [],
}: {
  days: readonly SpendDay[];
  /** writes micro-units as an amount */
  money: (micros: number) => string;
  look?: keyof typeof LOOKS;
  flags?: readonly Flag[];
}) {
  const { height, box } = LOOKS[look];
  const layers = layersOf(LOOKS[look]);
  const x = scaleBand(
    days.map((d) => d.day),
    [0, WIDTH],
  ).padding(0.15);
  const total = (d: SpendDay) => d.returnedMicros + d.openMicros + d.stoppedMicros;
  const y = scaleLinear([0, max(days, total) || 1], [0, height]);
  return (
    <figure>
      <div className="relative">
        <svg
          viewBox={`0 0 ${WIDTH} ${height}`}
          className={`block w-full ${box}`}
          preserveAspectRatio="none"
          aria-hidden
        >
          {days.map((d) => {
            let top = height;
            return layers.map(({ key, tone }) => {
              const size = y(d[key]);
              top -= size;
              return (
                <rect
                  key={d.day + key}
                  className={tone}
                  vectorEffect="non-scaling-stroke"
                  x={x(d.day)}
                  y={top}
                  width={x.bandwidth()}
                  height={size}
                />
              );
            });
          })}
        </svg>
        {flags.map(({ day, letter }) => (
          <span
            key={letter}
            aria-hidden
            className="absolute top-0 bottom-0 border-l border-pine pl-0.5 text-small leading-3 text-pine"
            style={{ left: `${(100 * (x(day) ?? 0)) / WIDTH}%` }}
          >
            {letter}
          </span>
        ))}
      </div>
      <ChartTable
        summary={layers.map(({ key, name, tone }, i) => (
          <span key={key}>
            {i > 0 && ', '}
            <svg viewBox="0 0 8 8" width="8" height="8" className={`mr-1 inline ${tone}`} aria-hidden>
              <rect width="8" height="8" />
            </svg>
            {name}
          </span>
        ))}
        label="Spend by day as a table"
        head={['day', ...layers.map(({ name }) => name)]}
        rows={days.map((d) => [formatDay(d.day), ...layers.map(({ key }) => money(d[key]))])}
      />
    </figure>
  );
}
