'use client';

import { extent, scaleBand, scaleLinear } from 'd3';
import { ChartTable } from './chart-table';
import { balance, formatDay } from './format';

/** Amounts of a week in micro-units: what was said before, if anything, and what became of it. */
export type Week = { from: string; days: number; said: number | null; real: number };

const [WIDTH, HEIGHT] = [270, 36];

/** A bar for what each week brought, and a line across it for what was said before; with its table. */
export function WeekBars({
  weeks,
  names,
  money,
}: {
  weeks: readonly Week[];
  /** what the lines and the bars are */
  names: { said: string; real: string };
  /** writes micro-units as an amount */
  money: (micros: number) => string;
}) {
  const x = scaleBand(
    weeks.map((week) => week.from),
    [0, WIDTH],
  ).padding(0.25);
  const [least = 0, most = 1] = extent([0, ...weeks.flatMap(({ said, real }) => [real, said ?? 0])]);
  const y = scaleLinear([least, most === least ? least + 1 : most], [HEIGHT - 1, 1]);
  return (
    <figure>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="block h-9 w-full"
        preserveAspectRatio="none"
        aria-hidden
      >
        <line className="stroke-line" x2={WIDTH} y1={y(0)} y2={y(0)} />
        {weeks.map(({ from, said, real }) => (
          <g key={from}>
            <rect
              className={real < 0 ? 'fill-rust' : 'fill-moss'}
              x={x(from)}
              y={Math.min(y(real), y(0))}
              width={x.bandwidth()}
              height={Math.abs(y(real) - y(0))}
            />
            {said !== null && (
              <line
                className="stroke-ink [stroke-width:1.5px]"
                vectorEffect="non-scaling-stroke"
                x1={x(from)! - x.step() * 0.08}
                x2={x(from)! + x.bandwidth() + x.step() * 0.08}
                y1={y(said)}
                y2={y(said)}
              />
            )}
          </g>
        ))}
      </svg>
      <ChartTable
        summary={`${names.real} by week; line: ${names.said}`}
        label="Weeks as a table"
        head={['week from', 'days', names.said, names.real]}
        rows={weeks.map(({ from, days, said, real }) => [
          formatDay(from),
          days,
          said === null ? '–' : balance(said, money),
          balance(real, money),
        ])}
      />
    </figure>
  );
}
