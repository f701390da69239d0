'use client';

import { cumsum, scaleLinear, sum } from 'd3';
import type { ShownLanes } from '@/contracts/lanes';
import { useMoney } from '@/screens/frame/money';
import { ChartTable } from '@/ui/chart-table';
import { formatConversions, formatCount, formatShare } from '@/ui/format';
import { useWidth } from '@/ui/use-width';

/** px */
const [TRUNK, LEFT, NAMES, ROW, BEND] = [104, 16, 300, 46, 14];
/** How dark the stream of a tier is, the first first. */
const SHADES = [0.28, 0.5, 0.75, 0.95, 0.6, 0.4];

/** The stream of what tiers served: it falls from tier to tier, as wide as its cost; what leaks is marked in it. */
export function TiersFlow({ shown }: { shown: ShownLanes }) {
  const money = useMoney();
  const [ref, width] = useWidth();
  const { tiers, days } = shown;
  const costs = tiers.map(({ really }) => really.costMicros);
  const total = sum(costs);
  const wide = scaleLinear([0, total || 1], [0, TRUNK]);
  const widths = costs.map((cost) => Math.max(cost > 0 ? 2 : 0, wide(cost)));
  const rows = widths.map((one) => Math.max(ROW, one + 10));
  const tops = [0, ...cumsum(rows)].map((top) => top + BEND);
  const ends = [...cumsum(widths)];
  const right = Math.max(TRUNK + 60, width - NAMES);
  const rate = ({ really: { clicks, conversions } }: (typeof tiers)[number]) =>
    clicks > 0 && conversions !== null ? conversions / clicks : null;
  return (
    <figure ref={ref} className="border-b border-line px-4 pt-2 pb-1">
      <p className="text-small text-soft">
        {money(total)} in {days} days: each query falls to the last tier whose entry terms it holds.
      </p>
      {width > 0 && (
        <svg width="100%" height={tops.at(-1)! + 2} className="mt-1 block" aria-hidden>
          {tiers.map((tier, number) => {
            // The first tier turns off from the right edge of the stream.
            const b = LEFT + TRUNK - (ends[number]! - widths[number]!);
            const [a, y, w] = [b - widths[number]!, tops[number]!, widths[number]!];
            const leak = wide(tier.leaksMicros);
            return (
              <g key={tier.name}>
                <path
                  d={`M${a},0H${b}V${y - BEND}Q${b},${y} ${b + BEND},${y}H${right}V${y + w}H${a + w + BEND}Q${a},${y + w} ${a},${y - BEND}Z`}
                  className="fill-timber"
                  opacity={SHADES[number]}
                />
                {tier.leaksMicros > 0 && (
                  <rect
                    {...{ x: right - 150, y: y + Math.max(0, w - Math.max(2, leak)), width: 150 }}
                    height={Math.max(2, leak)}
                    className="fill-rust"
                  />
                )}
                <text x={right + 10} y={y + 11} className="fill-ink text-table font-semibold">
                  {tier.name}
                  <tspan className="fill-soft font-normal">
                    {' '}
                    {[tier.priorities.join(', '), tier.bidMicros !== null && `bid ${money(tier.bidMicros)}`]
                      .filter(Boolean)
                      .join(' · ')}
                  </tspan>
                </text>
                <text x={right + 10} y={y + 27} className="fill-ink text-small">
                  {formatCount(tier.really.clicks)} clicks · {money(tier.really.costMicros)}
                  {rate(tier) !== null && ` · ${formatShare(rate(tier))} convert`}
                  {tier.leaksMicros > 0 && (
                    <tspan className="fill-rust"> · {money(tier.leaksMicros)} leaks</tspan>
                  )}
                </text>
              </g>
            );
          })}
        </svg>
      )}
      <ChartTable
        summary="As a table"
        label="What each tier served"
        head={['tier', 'clicks', 'cost', 'conv.', 'rate', 'bid', 'leaks', 'negatives', 'of them missing']}
        rows={tiers.map((tier): [string, ...string[]] => [
          tier.name,
          formatCount(tier.really.clicks),
          money(tier.really.costMicros),
          formatConversions(tier.really.conversions),
          rate(tier) === null ? '–' : formatShare(rate(tier)),
          tier.bidMicros === null ? '–' : money(tier.bidMicros),
          money(tier.leaksMicros),
          formatCount(tier.needs),
          formatCount(tier.missing),
        ])}
      />
    </figure>
  );
}
