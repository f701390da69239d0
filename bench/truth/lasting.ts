import { compileGate, lastingSet, normalise, smallestSet, type NegativeText } from '@/core';
import type { PassOfWorld, TrueTerm } from './guided-pass';
import type { Played } from './play';

/** What a set does on terms that it was chosen without, as shares of them, and of the terms that pay. */
export type SetOutcome = {
  negatives: number;
  /** of the marked terms that it was chosen by: share of their cost */
  marked: number;
  /** of those held back: share of their number, and of their cost */
  held: number;
  heldCost: number;
  /** of conversions of good terms held back: share */
  goodLost: number;
  /** of what can never pay and was not marked, share of cost */
  others: number;
};

const MARKED = 376;
const LIMIT = 25;

/**
 * Marks the costliest terms without a conversion, holds a fifth of them back, and of the terms that pay another, and chooses sets without
 * them: these exactly, the same where other terms may be stopped, and these and their like.
 */
export function setsOnHeldBack(
  { terms, evidenceOf }: PassOfWorld,
  { keywords }: Played,
): [exactly: SetOutcome, mayStopOthers: SetOutcome, like: SetOutcome] {
  const live = keywords.map(({ text }) => normalise(text));
  const isLive = new Set(live);
  const wasted = terms
    .filter((t) => t.conversions === 0 && t.costMicros > 0 && !isLive.has(t.text))
    .sort((a, b) => b.costMicros - a.costMicros || (a.text < b.text ? -1 : 1));
  const marked = wasted.slice(0, MARKED);
  const unmarked = wasted.slice(MARKED);
  const good = terms.filter((t) => t.conversions >= 1);
  const isHeld = (_: unknown, i: number) => i % 5 === 2;
  const isSeen = (_: unknown, i: number) => i % 5 !== 2;
  const [seen, held] = [marked.filter(isSeen), marked.filter(isHeld)];
  const [seenGood, heldGood] = [good.filter(isSeen), good.filter(isHeld)];
  const unwanted = seen.map(({ text, costMicros }) => ({ text, costMicros: Math.round(costMicros) }));
  const texts = (of: readonly TrueTerm[]) => of.map(({ text }) => text);
  const leftOut = new Set(texts([...held, ...heldGood]));
  const open = [...live, ...texts(seenGood)];
  const outcomeOf = (negatives: readonly NegativeText[]): SetOutcome => {
    const gate = compileGate(negatives);
    const stopped = (of: readonly TrueTerm[]) => of.filter(({ text }) => gate.isStopped(text));
    const never = unmarked.filter(({ neverPays }) => neverPays);
    return {
      negatives: negatives.length,
      marked: costOf(stopped(seen)) / costOf(seen),
      held: stopped(held).length / held.length,
      heldCost: costOf(stopped(held)) / costOf(held),
      goodLost: wonBy(stopped(heldGood)) / wonBy(heldGood),
      others: costOf(stopped(never)) / costOf(never),
    };
  };
  const { negatives: like } = lastingSet({
    ...{ unwanted, open: live, good: texts(seenGood), limit: LIMIT },
    evidenceOf: (negative) => evidenceOf(negative, leftOut),
  });
  const exactly = { unwanted, open: [...open, ...texts(unmarked)], limit: LIMIT };
  return [
    outcomeOf(smallestSet(exactly).negatives),
    outcomeOf(smallestSet({ ...exactly, open }).negatives),
    outcomeOf(like),
  ];
}

const costOf = (terms: readonly TrueTerm[]) => terms.reduce((sum, t) => sum + t.costMicros, 0);
const wonBy = (terms: readonly TrueTerm[]) => terms.reduce((sum, t) => sum + t.conversions, 0);
