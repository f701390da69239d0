'use client';

import { extent, line, max, scaleLinear, scaleUtc, sum } from 'd3';
import { KNOT_KINDS, type KnotKind, type KnotsLook } from '@/contracts/knots';
import { useMoney } from '@/screens/frame/money';
import { Button } from '@/ui/button';
import { ChartTable } from '@/ui/chart-table';
import { DialogFrame } from '@/ui/dialog-frame';
import { formatConversions, formatCount, formatDay } from '@/ui/format';

type Day = KnotsLook['days'][number];

const NAMES: Record<KnotKind, string> = {
  ...{ conflict: 'conflicts', needless: 'needless', misspelt: 'misspelt', duplicate: 'twice' },
  overlap: 'served by several',
};
const [WIDTH, HEIGHT] = [560, 120];

/** All knots of a day, whatever they are. */
export const knotsIn = (day: Day) => sum(KNOT_KINDS, (kind) => day[kind]?.count ?? 0);

/** How many knots there were on each day on which it was noted, and what they cost; with its table. */
export function HealthDialog({ days, onClose }: { days: readonly Day[]; onClose: () => void }) {
  const money = useMoney();
  const timeOf = ({ day }: Day) => Date.parse(day);
  const [from = 0, to = 1] = extent(days, timeOf);
  const x = scaleUtc([from, to], [6, WIDTH - 6]);
  const y = scaleLinear([0, max(days, knotsIn) ?? 1], [HEIGHT - 4, 6]);
  const path = line<Day>()
    .x((day) => x(timeOf(day)))
    .y((day) => y(knotsIn(day)));
  const kinds = KNOT_KINDS.filter((kind) => days.some((day) => day[kind]));
  return (
    <DialogFrame
      title="Knots over time"
      says="As noted after each load, and when somebody looked. Conflicts cost what their terms brought before; the others what was spent in the place that should not have it."
      onClose={onClose}
    >
      <figure>
        <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="block w-full" aria-hidden>
          <line className="stroke-line" x2={WIDTH} y1={y(0)} y2={y(0)} />
          <path d={path(days) ?? ''} className="fill-none stroke-pine" strokeWidth="1.5" />
          {days.map((day) => (
            <circle key={day.day} cx={x(timeOf(day))} cy={y(knotsIn(day))} r="2.5" className="fill-pine" />
          ))}
        </svg>
        <p className="flex justify-between text-small text-soft">
          {[days[0]!, days.at(-1)!].map((day) => (
            <span key={day.day}>
              {formatDay(day.day, true)}: {formatCount(knotsIn(day))}
            </span>
          ))}
        </p>
        <ChartTable
          summary="As a table"
          label="Knots by day"
          head={['day', ...kinds.map((kind) => NAMES[kind]), 'cost', 'conv. before']}
          rows={days
            .map((day): [string, ...string[]] => [
              formatDay(day.day, true),
              ...kinds.map((kind) => formatCount(day[kind]?.count ?? null)),
              money(sum(KNOT_KINDS, (kind) => day[kind]?.costMicros ?? 0)),
              formatConversions(day.conflict?.conversions ?? null),
            ])
            .reverse()}
        />
      </figure>
      <span>
        <Button onClick={onClose}>Close</Button>
      </span>
    </DialogFrame>
  );
}
