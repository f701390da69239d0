'use client';

import { max, scaleBand, scaleLinear } from 'd3';
import { shiftDay, type RuleAction } from '@/core';
import type { TrialView } from '@/contracts/rules';
import { useMoney } from '@/screens/frame/money';
import { ChartTable } from '@/ui/chart-table';
import { formatCount, formatDay, formatDays } from '@/ui/format';
import { trialWords } from './trial-words';

const [WIDTH, HEIGHT] = [760, 132];

type Props = { trial: TrialView; then: RuleAction };

/** What a rule would have saved on each day, and below it what the conversions that it would have lost were worth; with its table. */
export function TrialChart({ trial, then }: Props) {
  const words = trialWords(then);
  // What a stop loses is bad, what a term that stays brings is good.
  const [fill, dot] = words.ends ? ['fill-rust', 'bg-rust'] : ['fill-pine', 'bg-pine'];
  const money = useMoney();
  const { from, to, savedMicros, lostMicros, stops, worst, approximateTo } = trial;
  if (from === null || to === null) return null;
  const days = savedMicros.map((_, i) => shiftDay(from, i));
  const x = scaleBand(days, [0, WIDTH]).paddingInner(0.3);
  // One scale for both, so that what is lost can be seen against what is saved.
  const [mostSaved, mostLost] = [max(savedMicros) ?? 0, max(lostMicros) ?? 0];
  const y = scaleLinear([mostSaved, -mostLost || -1], [0, HEIGHT]);
  const zero = y(0);
  return (
    <figure className="px-4 pt-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4 text-table">
        <h2 className="font-semibold">
          Tried on {formatDays({ from, to })}, each day with what was known that day
        </h2>
        <p className="flex items-center gap-1.5 text-small text-soft">
          <i className="size-2.5 bg-timber" aria-hidden /> {words.cost}
          <i className={`ml-2 size-2.5 ${dot}`} aria-hidden /> {words.brought}: what its conversions may cost
          by the target
        </p>
      </div>
      <svg viewBox={`0 -1 ${WIDTH} ${HEIGHT + 2}`} className="mt-1 block w-full" aria-hidden>
        {days.map((day, i) => {
          const [top, bottom] = [y(savedMicros[i]!), y(-lostMicros[i]!)];
          const bar = { x: x(day), width: x.bandwidth() };
          return (
            <g key={day}>
              <rect {...bar} y={top} height={zero - top} className="fill-timber" />
              <rect {...bar} y={zero} height={bottom - zero} className={fill} />
            </g>
          );
        })}
        <line x2={WIDTH} y1={zero} y2={zero} className="stroke-soft" />
      </svg>
      <p className="flex justify-between text-small text-soft">
        <span>{formatDay(from)}</span>
        {worst && words.ends && (
          <span>
            Worst day: {formatDay(worst.day)}, {money(worst.lostMicros)} lost beside{' '}
            {money(worst.savedMicros)} saved
          </span>
        )}
        <span>{formatDay(to)}</span>
      </p>
      {approximateTo !== null && (
        <p className="text-small text-soft">
          Approximate up to {formatDay(approximateTo)}: the first report brought these days at once, so that
          conversions which came late are known on their day.
        </p>
      )}
      <ChartTable
        summary="As a table"
        label="The trial by day"
        head={['day', words.did, words.cost, words.brought]}
        rows={days.map((day, i): [string, ...string[]] => [
          formatDay(day, true),
          formatCount(stops[i]!),
          money(savedMicros[i]!),
          money(lostMicros[i]!),
        ])}
      />
    </figure>
  );
}
