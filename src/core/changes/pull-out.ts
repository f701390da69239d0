import { compileGate, MATCH_TYPES, stops, type NegativeText } from '../gate';
import { smallestSet } from '../mining';
import { normalise } from '../text';

/** A way to let one query through that a negative stops, and what becomes of the others that it stops. */
export type PullOut = {
  /**
   * - narrower: the same words in a narrower match type
   * - longer: longer phrases and whole texts in its place
   * - none: nothing in its place
   */
  how: 'narrower' | 'longer' | 'none';
  /** what takes the negative's place */
  negatives: NegativeText[];
  /** indexes of the other queries that nothing would stop any more, ascending */
  left: number[];
};

/** More negatives than that are no way out of one. */
const MOST_LONGER = 5;

/**
 * Ways to let a query through that a negative stops, the one that leaves the least cost unstopped first.
 * @param question `others` are the other queries that the negative stops; `open` are texts that must stay open
 * @throws RangeError when the negative does not stop the query
 * @example proposePullOuts({ negative: { text: 'free', match: 'phrase' }, query: 'free delivery hive', others: [{ text: 'free plans', costMicros: 3 }], open: [] })[0]?.negatives // [{ text: 'plans', match: 'phrase' }]
 */
export function proposePullOuts(question: {
  negative: NegativeText;
  query: string;
  others: readonly { text: string; costMicros: number }[];
  open: readonly string[];
}): PullOut[] {
  const { negative, query, others, open } = question;
  if (!stops(negative, query))
    throw new RangeError(`the negative must stop the query; “${negative.text}” does not stop “${query}”`);
  const narrower = MATCH_TYPES.slice(MATCH_TYPES.indexOf(negative.match) + 1)
    .map((match): NegativeText => ({ text: normalise(negative.text), match }))
    .filter((narrow) => !stops(narrow, query));
  const longer = smallestSet({ unwanted: others, open: [query, ...open], limit: MOST_LONGER }).negatives;
  const proposal = (how: PullOut['how'], negatives: NegativeText[]): PullOut => {
    const gate = compileGate(negatives);
    const left = others.flatMap(({ text }, i) => (gate.isStopped(text) ? [] : [i]));
    return { how, negatives, left };
  };
  const cost = ({ left }: PullOut) => left.reduce((sum, i) => sum + others[i]!.costMicros, 0);
  const ways = [
    ...narrower.map((narrow) => proposal('narrower', [narrow])),
    ...(longer.length > 0 ? [proposal('longer', longer)] : []),
  ].filter(({ left }) => left.length < others.length);
  return [...ways.sort((a, b) => cost(a) - cost(b)), proposal('none', [])];
}
