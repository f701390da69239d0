import { derivedFrom } from '../derived';
import type { Snapshot, WindowFacts } from '../snapshot';
import { kindAt } from '../window-columns';
import type { History } from './history';

/** Figures of terms over all days that are kept; NaN where unknown, costs in micro-units. */
export type AllDays = { clicks: Float64Array; conversions: Float64Array };

/** The sums of each term of a history. */
const sumsOfTerms = derivedFrom(({ terms, rows }: History): AllDays => {
  const clicks = new Float64Array(terms.count).fill(NaN);
  const conversions = new Float64Array(terms.count).fill(NaN);
  for (let r = 0; r < rows.count; r++) {
    const t = rows.termOf[r]!;
    const [n, c] = [rows.clicks[r]!, rows.conversions[r]!];
    if (!Number.isNaN(n)) clicks[t] = (clicks[t]! || 0) + n;
    if (!Number.isNaN(c)) conversions[t] = (conversions[t]! || 0) + c;
  }
  return { clicks, conversions };
});

/** The same for the terms of a window, in its order. A term that is not in the history has NaN, and stands at −1 there. */
export const allDaysOf = ({ facts }: Pick<Snapshot, 'facts'>) => daysOf(facts);
const daysOf = derivedFrom(({ terms, history }: WindowFacts): AllDays & { indexOf: Int32Array } => {
  const sums = sumsOfTerms(history);
  const clicks = new Float64Array(terms.count).fill(NaN);
  const conversions = new Float64Array(terms.count).fill(NaN);
  const indexOf = new Int32Array(terms.count).fill(-1);
  const { ids, count } = history.terms;
  // Both stand in the order of their ids.
  for (let [t, h] = [0, 0]; t < terms.count && h < count;) {
    if (ids[h]! < terms.ids[t]!) h++;
    else {
      if (ids[h] === terms.ids[t]) {
        indexOf[t] = h;
        clicks[t] = sums.clicks[h]!;
        conversions[t] = sums.conversions[h]!;
      }
      t++;
    }
  }
  return { clicks, conversions, indexOf };
});

/** Clicks and conversions of each term of a history, for the prior; what is reported without a term is none. */
export function* termsOf(history: History) {
  const { clicks, conversions } = sumsOfTerms(history);
  for (let t = 0; t < history.terms.count; t++) {
    if (kindAt(history.terms, t) === 'unreported' || Number.isNaN(clicks[t]!)) continue;
    yield { clicks: clicks[t]!, conversions: Number.isNaN(conversions[t]!) ? null : conversions[t]! };
  }
}
