import { WIDTH } from './figures-of-facts';
import type { TermFacts } from './trial';

/**
 * Facts of something else than terms: some of the facts, in an order of their own.
 * @param termId what each is a fact of, ascending, by day
 * @param fact which of the facts each is; a fact may stand more than once
 */
export function gatherFacts(facts: TermFacts, termId: Int32Array, fact: Int32Array | Uint32Array): TermFacts {
  const count = fact.length;
  const taken = (column: Int32Array) => {
    const gathered = new Int32Array(count);
    for (let i = 0; i < count; i++) gathered[i] = column[fact[i]!]!;
    return gathered;
  };
  const figures = new Float64Array(WIDTH * count);
  for (let i = 0; i < count; i++)
    for (let [to, from, at] = [WIDTH * i, WIDTH * fact[i]!, 0]; at < WIDTH; at++)
      figures[to + at] = facts.figures[from + at]!;
  return {
    ...{ count, termId, day: taken(facts.day), figures, adGroupId: taken(facts.adGroupId) },
    keywordId: new Int32Array(count), // no rule on these asks what served
    knownFrom: facts.knownFrom && taken(facts.knownFrom),
  };
}
