import { LRUCache } from 'lru-cache';
import {
  breakEvenCvr,
  clicksThatSettle,
  fitPrior,
  probabilityMissesTarget,
  ratios,
  type Figures,
  type Prior,
  type Target,
} from '@/core';
import type { Evidence } from '@/contracts/sift';
import type { Snapshot, WindowFacts } from '../snapshot';
import { allDaysOf, termsOf } from '../history/all-days';
import { figuresOfTerm, termSums } from '../term-sums';
import { kindAt } from '../window-columns';
import { breakEvenOfTerm, hasOwnTargets, steeringKey, type Steering } from './row-targets';
import { derivedByKey, derivedFrom } from '../derived';
import { figureAt, COLUMN } from '../figure-columns';

/** What an account's terms are read against: the prior of all days that are kept, and what a click and a conversion are in the window. */
export type Ground = { prior: Prior | null; cpcMicros: number | null; meanValueMicros: number | null };

export const groundOf = ({ facts }: Pick<Snapshot, 'facts'>): Ground => groundUnder(facts);
const groundUnder = derivedFrom(layGround);

/** Sure enough to act on (rules 7.3). */
export const SURE = 0.95;

/** What an account steers by, as the core takes it. */
export function targetOf(snapshot: Snapshot, { steersBy, targetMicros, targetAcos }: Steering): Target {
  return steersBy === 'CPA'
    ? { by: 'CPA', micros: targetMicros }
    : { by: 'ACoS', fraction: targetAcos, meanValueMicros: groundOf(snapshot).meanValueMicros };
}

/**
 * How sure it is that a term misses the target, by all days that are kept (rules 7.3); null where that is undefined.
 * @param weighed its figures in the window say what its clicks cost
 */
export function weighEvidence(
  snapshot: Snapshot,
  steering: Steering,
  { term, figures }: Weighed,
): Evidence | null {
  const known = evidenceOf(snapshot, steering);
  const cpcMicros = ratios(figures).cpcMicros;
  const before = known.get(term);
  if (before && before.cpcMicros === cpcMicros) return before.evidence;
  const evidence = tellEvidence(snapshot, questionOf(snapshot, steering, term, figures));
  known.set(term, { cpcMicros, evidence });
  return evidence;
}

/** What was told of a term last, and what its clicks cost then: of its figures in the window nothing else counts. */
const evidenceOf = derivedByKey(
  steeringKey,
  (_: Snapshot, __: Steering) =>
    new LRUCache<number, { cpcMicros: number | null; evidence: Evidence | null }>({ max: MOST_TOLD }),
);

/** Terms of which the evidence is kept. */
const MOST_TOLD = 20_000;

function tellEvidence(snapshot: Snapshot, question: ReturnType<typeof questionOf>): Evidence | null {
  return (
    question && {
      misses: probabilityMissesTarget(question),
      breakEvenCvr: question.breakEvenCvr,
      settlesAt: clicksThatSettle(question),
      ...{
        clicks: question.clicks,
        conversions: question.conversions,
        since: snapshot.history.days?.from ?? '',
      },
    }
  );
}

/** The probability alone; NaN where it is undefined. */
export function probabilityOfMiss(
  snapshot: Snapshot,
  steering: Steering,
  { term, figures }: Weighed,
): number {
  const question = questionOf(snapshot, steering, term, figures);
  return question ? probabilityMissesTarget(question) : NaN;
}

/**
 * The probability of each term by its figures of the whole window; NaN where it is undefined. It is asked for all terms
 * after each decision, which changes none of it.
 */
export const missOfTerms: (snapshot: Snapshot, steering: Steering) => (term: number) => number = derivedByKey(
  steeringKey,
  (snapshot: Snapshot, steering) => {
    const sums = termSums(snapshot);
    const known = new Float64Array(snapshot.terms.count).fill(NOT_ASKED);
    return (term) => {
      if (known[term] === NOT_ASKED)
        known[term] = probabilityOfMiss(snapshot, steering, { term, figures: figuresOfTerm(sums, term) });
      return known[term]!;
    };
  },
);

const NOT_ASKED = -1;

/** A term, and those of its figures that are weighed. */
type Weighed = { term: number; figures: Figures };

function questionOf(snapshot: Snapshot, steering: Steering, term: number, figures: Figures) {
  const { prior, cpcMicros, meanValueMicros } = groundOf(snapshot);
  const allDays = allDaysOf(snapshot);
  const [clicks, conversions] = [allDays.clicks[term]!, allDays.conversions[term]!];
  const cpc = ratios(figures).cpcMicros ?? cpcMicros;
  const rate = hasOwnTargets(snapshot)
    ? breakEvenOfTerm(snapshot, steering, term, cpc, meanValueMicros)
    : breakEvenCvr(cpc, targetOf(snapshot, steering));
  if (prior === null || rate === null || Number.isNaN(clicks) || Number.isNaN(conversions)) return null;
  return { ...prior, breakEvenCvr: rate, clicks, conversions };
}

function layGround(facts: WindowFacts): Ground {
  const { terms, history } = facts;
  const sums = termSums({ facts });
  const sumOf = (figure: keyof Figures) => {
    let sum = 0;
    for (let t = 0; t < terms.count; t++)
      if (kindAt(terms, t) !== 'unreported') sum += figureAt(sums.figures, t, COLUMN[figure]) || 0;
    return sum;
  };
  const [clicks, cost] = [sumOf('clicks'), sumOf('costMicros')];
  const [conversions, value] = [sumOf('conversions'), sumOf('valueMicros')];
  return {
    prior: fitPrior(termsOf(history)),
    cpcMicros: clicks > 0 ? cost / clicks : null,
    meanValueMicros: value > 0 && conversions > 0 ? value / conversions : null,
  };
}
