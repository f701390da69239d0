import { FIGURE_NAMES } from '../figures';
import type { TermFacts } from './trial';

/** A fact of a test; what it does not say is 0. */
export type Fact = {
  term: number;
  day: number;
  adGroup: number;
  clicks: number;
  costMicros: number;
  conversions: number;
};

/** Facts of a test as rules go through them. */
export function columnsOf(facts: readonly Fact[]): TermFacts {
  const sorted = facts.toSorted((a, b) => a.term - b.term || a.day - b.day);
  const column = (of: (fact: Fact) => number) => Int32Array.from(sorted, of);
  const figures = sorted.flatMap((fact) =>
    FIGURE_NAMES.map((name) => (name === 'impressions' || name === 'valueMicros' ? 0 : fact[name])),
  );
  return {
    ...{ count: sorted.length, termId: column(({ term }) => term), day: column(({ day }) => day) },
    ...{ adGroupId: column(({ adGroup }) => adGroup), keywordId: column(() => 0), knownFrom: null },
    figures: Float64Array.from(figures),
  };
}
