import {
  addFigures,
  breakEvenCvr,
  clicksThatSettle,
  fitPrior,
  noFigures,
  probabilityMissesTarget,
  ratios,
  type Figures,
  type Prior,
} from '@/core';
import type { Evidence } from '@/contracts/sift';
import type { Account } from '../repositories/accounts';
import type { Snapshot } from './snapshot';
import { addRow, kindAt } from './window-columns';

type Target = Pick<Account, 'steersBy' | 'targetMicros' | 'targetAcos'>;

/** What an account's terms are read against: made once for a window. */
type Ground = { prior: Prior | null; cpcMicros: number | null; meanValueMicros: number | null };

const grounds = new WeakMap<Snapshot, Ground>();

/** How sure a term's figures are that it misses the target (rules 7.3); null where that is undefined. */
export function weighEvidence(snapshot: Snapshot, target: Target, figures: Figures): Evidence | null {
  let ground = grounds.get(snapshot);
  if (!ground) grounds.set(snapshot, (ground = layGround(snapshot)));
  const { prior, cpcMicros, meanValueMicros } = ground;
  const { clicks, conversions } = figures;
  const rate = breakEvenCvr(
    ratios(figures).cpcMicros ?? cpcMicros,
    target.steersBy === 'CPA'
      ? { by: 'CPA', micros: target.targetMicros }
      : { by: 'ACoS', fraction: target.targetAcos, meanValueMicros },
  );
  if (prior === null || rate === null || clicks === null || conversions === null) return null;
  const question = { ...prior, breakEvenCvr: rate };
  return {
    misses: probabilityMissesTarget({ ...question, clicks, conversions }),
    breakEvenCvr: rate,
    settlesAt: clicksThatSettle(question),
  };
}

function layGround({ rows, terms, served }: Snapshot): Ground {
  const all = noFigures();
  const byTerm: Figures[] = [];
  for (let t = 0; t < terms.count; t++) {
    if (kindAt(terms, t) === 'unreported') continue;
    const figures = noFigures();
    for (let r = served.rowStarts[t]!; r < served.rowStarts[t + 1]!; r++) addRow(figures, rows, r);
    byTerm.push(figures);
    addFigures(all, figures);
  }
  const { valueMicros, conversions } = all;
  return {
    prior: fitPrior(byTerm),
    cpcMicros: ratios(all).cpcMicros,
    meanValueMicros: valueMicros !== null && conversions ? valueMicros / conversions : null,
  };
}
