'use client';

import { useQuery } from '@tanstack/react-query';
import { axisBottom, axisLeft, brush, format, line, max, scaleLinear, scaleSymlog, select } from 'd3';
import { useEffect, useMemo, useRef, useState } from 'react';
import { formatRegion, type PlotAnswer, type Region } from '@/contracts/sift';
import { type SiftUrl, toFilters } from '../sift-url';
import { PlotTable } from './plot-table';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';

const MARGIN = { top: 14, right: 16, bottom: 40, left: 46 };
/** px² of a dot for a term; more terms at a point make a larger one, up to a limit */
const DOT = { perTerm: 5, most: 420 };

type Props = { url: SiftUrl; onRegion: (region: string) => void };

/**
 * Terms on clicks against conversions, with the lines above which clicks pay and below which it is settled that they do
 * not. A region drawn with the mouse narrows the terms to those inside; the table below does the same by keyboard.
 */
export function EvidencePlot({ url, onRegion }: Props) {
  const { query } = useRoutes();
  const { data, error } = useQuery({
    ...query('GET sift/plot', { query: toFilters(url) }),
    gcTime: 30_000,
  });
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    if (!box.current) return;
    const seen = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      setSize({ width, height });
    });
    seen.observe(box.current);
    return () => seen.disconnect();
  }, []);
  const sum = data ? data.dots.reduce((all, dot) => all + dot.terms, 0) : 0;
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-y-auto">
      <figure className="flex flex-col px-3 pt-2" aria-label="Evidence: terms on clicks against conversions">
        <figcaption className="text-table text-soft">
          {error && <span className="text-rust">{error.message}</span>}
          {data && (
            <>
              {counted(sum, 'term')} with clicks, by how many and what they brought.{' '}
              {data.breakEvenCvr === null
                ? 'Without a target there is no line to read them against.'
                : `Above the line a click pays: ${(data.breakEvenCvr * 100).toFixed(1)} % at the account’s mean cost a click.`}{' '}
              {data.settled.length > 0 && 'Below the dashed one it is 95 % sure that it does not. '}
              Crossed dots are sure to miss the target at their own cost. Draw a frame to see the terms
              inside.
            </>
          )}
        </figcaption>
        <div ref={box} className="mt-1 h-[430px]">
          {data && size.width > 0 && <Chart data={data} size={size} onRegion={onRegion} />}
        </div>
      </figure>
      {data && <PlotTable data={data} onRegion={onRegion} />}
    </div>
  );
}

type ChartProps = {
  data: PlotAnswer;
  size: { width: number; height: number };
  onRegion: (region: string) => void;
};

function Chart({ data, size, onRegion }: ChartProps) {
  const axes = useRef<SVGGElement>(null);
  const frame = useRef<SVGGElement>(null);
  const { x, y } = useMemo(() => {
    const mostClicks = max(data.dots, (d) => d.clicks) ?? 10;
    const most = max(data.dots, (d) => d.conversions) ?? 1;
    return {
      x: scaleSymlog([0, mostClicks * 1.1], [MARGIN.left, size.width - MARGIN.right]).constant(4),
      y: scaleSymlog([0, Math.max(1, most) * 1.15], [size.height - MARGIN.bottom, MARGIN.top]).constant(1),
    };
  }, [data, size]);

  useEffect(() => {
    if (!axes.current) return;
    const root = select(axes.current);
    root.selectAll('*').remove();
    root
      .append('g')
      .attr('transform', `translate(0 ${size.height - MARGIN.bottom})`)
      .call(axisBottom(x).tickValues(ticksOf(x.domain()[1]!)).tickFormat(format(',')));
    root
      .append('g')
      .attr('transform', `translate(${MARGIN.left} 0)`)
      .call(axisLeft(y).tickValues(ticksOf(y.domain()[1]!)).tickFormat(format(',')));
    root.selectAll('text').attr('font-size', 12).attr('font-family', 'inherit');
  }, [x, y, size]);

  useEffect(() => {
    if (!frame.current) return;
    const tool = brush<unknown>()
      .extent([
        [MARGIN.left, MARGIN.top],
        [size.width - MARGIN.right, size.height - MARGIN.bottom],
      ])
      .on('end', ({ selection }: { selection: [[number, number], [number, number]] | null }) => {
        if (!selection) return;
        const [[left, top], [right, bottom]] = selection;
        onRegion(formatRegion(regionOf(x.invert(left), x.invert(right), y.invert(bottom), y.invert(top))));
      });
    select<SVGGElement, unknown>(frame.current).call(tool);
  }, [x, y, size, onRegion]);

  const settled = line<{ clicks: number; conversions: number }>()
    .x((d) => x(d.clicks))
    .y((d) => y(d.conversions + 0.5));
  const paying = payingLine(data, x.domain()[1]!, y.domain()[1]!);
  const drawn = line<{ clicks: number; conversions: number }>()
    .x((d) => x(d.clicks))
    .y((d) => y(d.conversions));
  return (
    <svg width={size.width} height={size.height} className="block text-soft" aria-hidden>
      <g ref={axes} />
      <text
        x={size.width - MARGIN.right}
        y={size.height - 6}
        textAnchor="end"
        className="fill-current text-small"
      >
        clicks
      </text>
      <text x={4} y={11} className="fill-current text-small">
        conversions
      </text>
      {data.dots.map((d) => {
        const r = Math.sqrt(Math.min(DOT.most, DOT.perTerm * d.terms + 8) / Math.PI);
        const isSure = 2 * d.sure >= d.terms;
        const tone = d.conversions > 0 ? 'fill-moss/45 stroke-moss' : 'fill-timber/40 stroke-timber';
        return (
          <g
            key={`${d.clicks} ${d.conversions}`}
            transform={`translate(${x(d.clicks)} ${y(d.conversions)})`}
            className={isSure ? 'fill-rust/50 stroke-rust' : tone}
            strokeWidth="0.6"
          >
            <circle r={r} />
            {isSure && <path d={`M${-r - 2} ${r + 2}L${r + 2} ${-r - 2}`} strokeWidth="1.2" />}
          </g>
        );
      })}
      {paying.length > 0 && (
        <path d={drawn(paying) ?? ''} className="fill-none stroke-moss" strokeWidth="1.8" />
      )}
      {data.settled.length > 0 && (
        <path
          d={settled(data.settled) ?? ''}
          className="fill-none stroke-rust"
          strokeWidth="1.8"
          strokeDasharray="5 3"
        />
      )}
      <g ref={frame} data-testid="plot-frame" />
    </svg>
  );
}

/** 0, 1, 2, 5, 10 … up to the end of a scale. */
function ticksOf(end: number): number[] {
  const ticks = [0];
  for (let power = 1; power <= end; power *= 10)
    for (const step of [1, 2, 5]) if (step * power <= end) ticks.push(step * power);
  return ticks;
}

/** The line of break-even, bent by the scales. */
function payingLine({ breakEvenCvr }: PlotAnswer, mostClicks: number, most: number) {
  if (breakEvenCvr === null) return [];
  const end = Math.min(mostClicks, most / breakEvenCvr);
  return scaleLinear([0, 40], [0, end])
    .ticks(80)
    .map((_, i, all) => ({ clicks: (end * i) / (all.length - 1), conversions: 0 }))
    .map(({ clicks }) => ({ clicks, conversions: clicks * breakEvenCvr }));
}

/** A frame on the plot as whole clicks, and conversions to a tenth, both ends included. */
export function regionOf(left: number, right: number, bottom: number, top: number): Region {
  const tenth = (value: number) => Math.round(Math.max(0, value) * 10) / 10;
  const [from, to] = [Math.max(0, Math.ceil(left)), Math.max(0, Math.floor(right))];
  const [least, most] = [tenth(bottom), tenth(top)];
  return {
    clicks: [Math.min(from, to), Math.max(from, to)],
    conversions: [Math.min(least, most), Math.max(least, most)],
  };
}
