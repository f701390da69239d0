import { bisectLeft } from 'd3-array';
import {
  buildTermTable,
  expectOfTexts,
  judgeNgrams,
  LEAST_EXPECTED,
  matchTexts,
  normalise,
  probabilityAtFault,
  whereItPays,
  type JudgedTexts,
  type NegativeText,
  type ServedColumns,
  type TermTable,
  type WordAtFault,
} from '@/core';
import type { Fault } from '@/contracts/sift';
import { derivedByKey, derivedFrom } from '../derived';
import { adGroupsOf, brought, isJudged } from '../history/ad-group-rates';
import { queryTexts, type History } from '../history/history';
import type { Snapshot } from '../snapshot';
import { keyAt } from '../window-columns';
import { groundOf } from './evidence';
import { steeringKey, worthOfAdGroups, type Steering } from './row-targets';

/** The longest n-grams that are judged, in words. */
const LONGEST = 3;

/** The texts of a history in the words of the core: made once for all windows. */
export const historyTable: (history: History) => TermTable = derivedFrom((history: History) =>
  buildTermTable(queryTexts(history)),
);

/** What the words of an account are judged by. */
export type Judging = {
  texts: JudgedTexts;
  words: readonly WordAtFault[];
  spread: number;
  /** the rows that are judged, by text, and what the ad group of each is expected to bring a click */
  columns: ServedColumns;
  rates: Float64Array;
};

/**
 * The words at fault of an account, over all days that are kept (rules 7.12), surest first; of n-grams whose ad groups
 * would have brought less than one conversion nothing is said. Null where nothing converted: nobody is judged.
 */
export const judgingOf: (snapshot: Snapshot, steering: Steering) => Judging | null = derivedByKey(
  steeringKey,
  (snapshot: Snapshot, steering: Steering) => {
    const { history } = snapshot;
    const { shrunk } = adGroupsOf(history);
    if (!shrunk) return null;
    const columns = servedColumns(snapshot, steering);
    const { rates } = shrunk;
    const texts = expectOfTexts(history.terms.count, columns, rates);
    return { texts, columns, rates, ...judgeNgrams(historyTable(history), texts, LONGEST, LEAST_EXPECTED) };
  },
);

/** What a conversion may cost at the target of each ad group, micro-units, by its id; NaN without a target. */
export function worthById(snapshot: Snapshot, steering: Steering): ReadonlyMap<number, number> {
  const worth = worthOfAdGroups(snapshot, steering, groundOf(snapshot).meanValueMicros);
  return new Map(snapshot.mirror.adGroups.map(({ id }, g) => [Number(id), worth[g]!]));
}

function servedColumns(snapshot: Snapshot, steering: Steering): ServedColumns {
  const { history } = snapshot;
  const { rows } = history;
  const { indexOf } = adGroupsOf(history);
  const worthOf = worthById(snapshot, steering);
  const judged: number[] = [];
  for (let r = 0; r < rows.count; r++) if (isJudged(history, r)) judged.push(r);
  return {
    textOf: Uint32Array.from(judged, (r) => rows.termOf[r]!),
    adGroupOf: Uint32Array.from(judged, (r) => indexOf.get(rows.adGroupId[r]!)!),
    clicks: Float64Array.from(judged, (r) => rows.clicks[r]!),
    conversions: Float64Array.from(judged, (r) => brought(history, r)),
    needed: Float64Array.from(judged, (r) => rows.costMicros[r]! / (worthOf.get(rows.adGroupId[r]!) ?? NaN)),
  };
}

/**
 * How surely some n-grams are at fault together: by all terms that hold one of them, each once.
 * @returns null where that can't be told: nothing converted, or their ad groups would have brought less than one
 */
export function faultOf(snapshot: Snapshot, steering: Steering, ngrams: readonly string[]): Fault | null {
  const judging = judgingOf(snapshot, steering);
  if (!judging) return null;
  const fault = sumOf(judging.texts, holdingAny(historyTable(snapshot.history), ngrams));
  if (fault.expected < LEAST_EXPECTED) return null;
  const { needed: _, ...shown } = fault;
  return { ...shown, probability: probabilityAtFault(fault, judging.spread) };
}

/**
 * How surely negatives are at fault by all that they stop, however little that is (rules 7.12), 0..1. Where nothing converted nobody is
 * judged, and all weigh the same.
 */
export function evidenceOfNegatives(
  snapshot: Snapshot,
  steering: Steering,
): (negative: NegativeText, leftOut: ReadonlySet<string>) => number {
  const judging = judgingOf(snapshot, steering);
  if (!judging) return () => 1;
  const table = historyTable(snapshot.history);
  const indexesOf = derivedFrom(
    (texts: ReadonlySet<string>) =>
      new Set([...texts].flatMap((text) => Array.from(matchTexts(table, { text, match: 'exact' })))),
  );
  return (negative, leftOut) => {
    const without = indexesOf(leftOut);
    const stopped = Array.from(matchTexts(table, negative)).filter((t) => !without.has(t));
    const { expected, conversions, needed } = sumOf(judging.texts, stopped);
    return probabilityAtFault(
      { expected: Math.max(expected, LEAST_DUE), conversions, needed },
      judging.spread,
    );
  };
}

/** Where nothing was due, what is thought before any click counts. */
const LEAST_DUE = 1e-9;

function sumOf({ clicks, conversions, expected, needed }: JudgedTexts, texts: Iterable<number>) {
  const sum = { terms: 0, clicks: 0, conversions: 0, expected: 0, needed: NaN };
  for (const t of texts) {
    if (Number.isNaN(clicks[t]!)) continue;
    sum.terms += 1;
    sum.clicks += clicks[t]!;
    sum.conversions += conversions[t]!;
    sum.expected += expected[t]!;
    if (!Number.isNaN(needed[t]!)) sum.needed = (sum.needed || 0) + needed[t]!;
  }
  return sum;
}

/**
 * The terms that hold a word at fault, with their clicks, without those of the campaigns where it pays (rules 7.14).
 * @param level 0..1
 */
export function termsAround(
  snapshot: Snapshot,
  judging: Judging,
  ngram: string,
  level: number,
): { text: string; clicks: number }[] {
  const { history, adGroup } = snapshot;
  const { texts, columns, rates, spread } = judging;
  const { textOf, adGroupOf } = columns;
  const ids = [...adGroupsOf(history).indexOf.keys()];
  const campaignOf = (r: number) => adGroup.get(String(ids[adGroupOf[r]!]!))?.campaignId ?? '';
  const rowsOf = (t: number) => {
    const rows: number[] = [];
    for (let r = bisectLeft(textOf, t); textOf[r] === t; r++) rows.push(r);
    return rows;
  };
  const holding = Array.from(matchTexts(historyTable(history), { text: ngram, match: 'phrase' }));
  const rows = holding.flatMap(rowsOf).map((r) => ({
    campaign: campaignOf(r),
    expected: columns.clicks[r]! * rates[adGroupOf[r]!]!,
    conversions: columns.conversions[r]!,
    needed: columns.needed[r]!,
  }));
  const pays = whereItPays(rows, spread, level);
  return holding
    .filter((t) => !rowsOf(t).some((r) => pays.has(campaignOf(r))))
    .map((t) => ({ text: keyAt(history.terms, t), clicks: texts.clicks[t]! || 0 }));
}

/** Texts that hold one of some n-grams, each once. */
function holdingAny(table: TermTable, ngrams: readonly string[]): Iterable<number> {
  const [first, ...others] = ngrams.map((ngram) =>
    matchTexts(table, { text: normalise(ngram), match: 'phrase' }),
  );
  if (!first || others.length === 0) return first ?? [];
  return new Set([first, ...others].flatMap((texts) => [...texts]));
}
