import { compileGate, MATCH_TYPES, stops, type NegativeText } from '../gate';
import { normalise, words } from '../text';

/** A way to let through one of the queries that a negative stops, with what becomes of the other queries. */
export type PullOut = {
  /**
   * - narrower: the same words in a narrower match type
   * - longer: longer phrases and whole texts in its place, which stop nothing that it does not
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
 * @example proposePullOuts({ negative: { text: 'free', match: 'phrase' }, query: 'free delivery hive', others: [{ text: 'free plans', costMicros: 3 }], open: [] })[0]?.negatives // [{ text: 'free plans', match: 'phrase' }]
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
  const longer = longerNegatives(negative, others, [query, ...open]);
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

type Candidate = { negative: NegativeText; stops: Set<number> };

/** Negatives which the given one covers, chosen one after another by the cost that each adds; none stops an open text. */
function longerNegatives(
  negative: NegativeText,
  others: readonly { text: string; costMicros: number }[],
  open: readonly string[],
): NegativeText[] {
  const byKey = new Map<string, Candidate>();
  others.forEach(({ text }, i) => {
    for (const longer of longerIn(negative, words(text))) {
      const key = `${longer.match} ${longer.text}`;
      const there = byKey.get(key);
      if (there) there.stops.add(i);
      else byKey.set(key, { negative: longer, stops: new Set([i]) });
    }
  });
  const all = [...byKey.values()];
  const gate = compileGate(all.map((candidate) => candidate.negative));
  const hurting = new Set(open.flatMap((text) => gate.stoppers(text)));
  const left = all.filter((_, c) => !hurting.has(c));
  const chosen: NegativeText[] = [];
  const stopped = new Set<number>();
  const adds = ({ stops: of }: Candidate) =>
    [...of].reduce((sum, i) => (stopped.has(i) ? sum : sum + others[i]!.costMicros + 1), 0);
  while (chosen.length < MOST_LONGER) {
    let best: Candidate | undefined;
    let most = 0;
    for (const candidate of left) {
      const gain = adds(candidate);
      if (gain > most) [best, most] = [candidate, gain];
    }
    if (!best) break;
    chosen.push(best.negative);
    for (const i of best.stops) stopped.add(i);
  }
  return chosen;
}

/** The shortest run of a text that holds the negative's words, a word more on either side, and the whole text. */
function longerIn({ text, match }: NegativeText, of: readonly string[]): NegativeText[] {
  const [from, to] = match === 'phrase' ? runOf(words(text), of) : spanOf(words(text), of);
  const runs = [
    [from, to],
    [from - 1, to],
    [from, to + 1],
    [from - 1, to + 1],
  ].filter(([start, end]) => start! >= 0 && end! <= of.length);
  return [
    ...runs.map(([start, end]): NegativeText => ({ text: of.slice(start, end).join(' '), match: 'phrase' })),
    { text: of.join(' '), match: 'exact' },
  ];
}

/** Where a phrase stands in a text that holds it. */
function runOf(phrase: readonly string[], of: readonly string[]): [number, number] {
  const from = of.findIndex((_, start) => phrase.every((word, i) => of[start + i] === word));
  return [from, from + phrase.length];
}

/** The shortest run of a text that holds all the words, as from (included) and to (not included). */
function spanOf(wanted: readonly string[], of: readonly string[]): [number, number] {
  let best: [number, number] = [0, of.length];
  for (let from = 0; from < of.length; from++) {
    const missing = new Set(wanted);
    for (let to = from; to < of.length; to++) {
      missing.delete(of[to]!);
      if (missing.size > 0) continue;
      if (to + 1 - from < best[1] - best[0]) best = [from, to + 1];
      break;
    }
  }
  return best;
}
