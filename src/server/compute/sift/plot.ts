import { breakEvenCvr, conversionsThatSettle, type Figures } from '@/core';
import type { PlotAnswer } from '@/contracts/sift';
import type { Workbench } from '../workbench';
import { groundOf, probabilityOfMiss, targetOf } from '../evidence/evidence';
import type { Steering } from '../evidence/row-targets';
import type { Lines } from './lines';
import { figuresOfTerm, termSums } from '../term-sums';

/** Clicks at which the lines are drawn: near enough for a curve on a logarithmic scale. */
const POINTS_ON_A_LINE = 60;
/** Sure enough to act on (rules 7.3). */
const SETTLED = 0.95;

/**
 * The terms of a view by clicks and conversions. Terms at one point become one dot, with their number and their cost.
 * Two lines come with them: above the first, clicks pay; below the second, it is settled that they do not (rules 7.3).
 */
export function plotTerms({ snapshot }: Workbench, { whole, parts }: Lines, steering: Steering): PlotAnswer {
  const dots = new Map<string, PlotAnswer['dots'][number]>();
  let left = 0;
  const put = (term: number, figures: Figures) => {
    const { clicks, conversions } = figures;
    if (!clicks || conversions === null) return void (left += 1);
    const shown = Math.round(conversions * 10) / 10;
    const key = `${clicks} ${shown}`;
    const dot = dots.get(key);
    const sure = probabilityOfMiss(snapshot, steering, { term, figures }) >= SETTLED ? 1 : 0;
    const costMicros = figures.costMicros ?? 0;
    if (!dot) dots.set(key, { clicks, conversions: shown, terms: 1, sure, costMicros });
    else {
      dot.terms += 1;
      dot.sure += sure;
      dot.costMicros += costMicros;
    }
  };
  const sums = termSums(snapshot);
  for (const t of whole) put(t, figuresOfTerm(sums, t));
  for (const { term, figures } of parts) put(term, figures);
  const all = [...dots.values()].sort((a, b) => a.clicks - b.clicks || a.conversions - b.conversions);
  return { dots: all, withoutClicks: left, ...linesOver(snapshot, steering, all.at(-1)?.clicks ?? 1) };
}

function linesOver(
  snapshot: Workbench['snapshot'],
  steering: Steering,
  mostClicks: number,
): Pick<PlotAnswer, 'breakEvenCvr' | 'settled'> {
  const { prior, cpcMicros } = groundOf(snapshot);
  const rate = breakEvenCvr(cpcMicros, targetOf(snapshot, steering));
  if (rate === null || prior === null) return { breakEvenCvr: null, settled: [] };
  const steps = new Set(
    Array.from({ length: POINTS_ON_A_LINE + 1 }, (_, i) => Math.round(mostClicks ** (i / POINTS_ON_A_LINE))),
  );
  const settled = [...steps].flatMap((clicks) => {
    const conversions = conversionsThatSettle({ ...prior, breakEvenCvr: rate, clicks });
    return conversions === null ? [] : [{ clicks, conversions }];
  });
  return { breakEvenCvr: rate, settled };
}
