'use client';

import { scaleBand } from 'd3';

export type MarkedDay<State extends string> = { day: string; state: State };

const [WIDTH, HEIGHT] = [270, 22];

/** A bar for each day, told apart by tone and height. What it shows stands in words beside it. */
export function DayStrip<State extends string>({
  days,
  looks,
}: {
  days: readonly MarkedDay<State>[];
  /** class of the fill, and the share of the height, of each state */
  looks: Readonly<Record<State, { tone: string; height: number }>>;
}) {
  const x = scaleBand(
    days.map((d) => d.day),
    [0, WIDTH],
  ).padding(0.25);
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block h-[22px] w-full"
      preserveAspectRatio="none"
      aria-hidden
    >
      {days.map(({ day, state }) => {
        const { tone, height } = looks[state];
        return (
          <rect
            key={day}
            className={tone}
            x={x(day)}
            y={HEIGHT * (1 - height)}
            width={x.bandwidth()}
            height={HEIGHT * height}
          />
        );
      })}
    </svg>
  );
}
