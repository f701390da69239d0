import { COLUMN, figureAt } from '../../../compute/figure-columns';
import { allDaysOf } from '../../../compute/history/all-days';
import { isServing } from '../../../compute/serving';
import { groundOf, SURE } from '../../../compute/evidence/evidence';
import { stoppableTerms } from '../../../compute/evidence/stoppable';
import type { Missing } from '../../../compute/evidence/surely-missing';
import { costAt } from '../../../compute/window-columns';
import type { Open } from '../../open-workbench';

export type OfferedTerm = Pick<Missing, 'misses' | 'beside'> & {
  term: number;
  rows: number[];
  risks: number;
};

/** The costliest of what is left without return, and how much there is. */
export type Left = { count: number; costMicros: number; first: OfferedTerm[] };

/** Terms of the last step that are named; each decided brings the next into sight. */
const MOST_LEFT = 100;

/** A case for a negative, and one for the bid of its ad group (rules 7.13). */
export const isNegative = ({ beside }: Pick<Missing, 'beside'>) => (beside?.worse ?? 0) >= SURE;
const isOfGroup = ({ beside }: Pick<Missing, 'beside'>) => (beside?.adGroup?.misses ?? 0) >= SURE;

/**
 * Terms that a person could stop as they are, costliest first: nobody decided about them, and no word of the pass stops
 * them. Those that surely miss, and of all others the first.
 */
export function undecidedTerms(open: Open, isTaken: Uint8Array): { missing: OfferedTerm[]; left: Left } {
  const { snapshot, draft, verdictOf } = open;
  const { rowStarts, adGroupOf } = snapshot.served;
  const stoppable = stoppableTerms(snapshot, open.account);
  const isOpen = (r: number) =>
    draft.gate.stopCount(r) === 0 && isTaken[r] === 0 && isServing(snapshot, adGroupOf[r]!);
  const missing: OfferedTerm[] = [];
  const left: Left = { count: 0, costMicros: 0, first: [] };
  for (const t of stoppable.terms) {
    if (verdictOf.has(t)) continue;
    const known = stoppable.missing.get(t);
    const rows: number[] = [];
    let cost = 0;
    for (let r = rowStarts[t]!; r < rowStarts[t + 1]!; r++) {
      if (!isOpen(r)) continue;
      cost += costAt(snapshot.rows, r);
      rows.push(r);
    }
    if (rows.length === 0) continue;
    const { misses = NaN, beside = null } = known ?? {};
    const named = () => ({ term: t, misses, beside, rows, risks: riskOf(open, t, rows) });
    if (known && (isNegative(known) || isOfGroup(known))) {
      missing.push(named());
      continue;
    }
    left.count += 1;
    left.costMicros += cost;
    if (left.first.length < MOST_LEFT) left.first.push(named());
  }
  return { missing, left };
}

/** Conversions that the clicks of some rows of a term would bring, by what is known of it (rules 7.3). */
function riskOf({ snapshot }: Open, t: number, rows: readonly number[]): number {
  const { prior } = groundOf(snapshot);
  if (!prior) return 0;
  const allDays = allDaysOf(snapshot);
  const [n, c] = [allDays.clicks[t]! || 0, allDays.conversions[t]! || 0];
  const rate = (prior.alpha + Math.min(c, n)) / (prior.alpha + prior.beta + n);
  return rows.reduce((sum, r) => sum + rate * (figureAt(snapshot.rows.figures, r, COLUMN.clicks) || 0), 0);
}
