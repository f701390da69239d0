import { group } from 'd3';
import {
  buildTermTable,
  expectOfTexts,
  fitPrior,
  judgeNgrams,
  LEAST_EXPECTED,
  matchTexts,
  normalise,
  OFFERED_FROM,
  offerWords,
  probabilityAtFault,
  probabilityMissesTarget,
  shrinkRates,
  whereItPays,
  type NegativeText,
  type Prior,
  type ServedColumns,
  type WordAtFault,
} from '@/core';
import type { Played } from './play';

/** A text over all days that are kept, with what is true of it. */
export type TrueTerm = {
  text: string;
  clicks: number;
  conversions: number;
  costMicros: number;
  /** the rate at which a click pays for itself */
  breakEven: number;
  /** the true rate */
  rate: number;
  /** that rate is under a fifth of what pays */
  neverPays: boolean;
  /** that it misses the target, as the evidence says */
  misses: number;
};

/** What the pass offers over a world without a person, by what its reports show alone (rules 7.14). */
export type PassOfWorld = {
  terms: TrueTerm[];
  /** judged words, and those of them that are offered */
  words: readonly WordAtFault[];
  offered: readonly WordAtFault[];
  /** of the first step, and of the second */
  negatives: NegativeText[];
  missing: TrueTerm[];
  /** how surely a negative is at fault by all that it stops, whatever little that is; texts may be left out */
  evidenceOf: (negative: NegativeText, leftOut: ReadonlySet<string>) => number;
};

/** Sure enough to act on (rules 7.3). */
export const SURE = 0.95;

/**
 * @param targetMicros what a conversion may cost
 * @param brandWords the advertiser's own names
 */
export function passOver(
  { rows, rateOf, keywords }: Played,
  targetMicros: number,
  brandWords: readonly string[],
): PassOfWorld {
  const terms = termsOf(rows, rateOf, targetMicros);
  const table = buildTermTable(terms.map(({ text }) => text));
  const { texts, rateOfRow } = expectedOf(rows, terms, targetMicros);
  const { words, spread } = judgeNgrams(table, texts, 3, LEAST_EXPECTED);
  const rowsOf = group(rows.keys(), (r) => normalise(rows[r]!.text));
  const holding = (ngram: string) =>
    Array.from(matchTexts(table, { text: ngram, match: 'phrase' }), (t) => terms[t]!);
  const keywordTexts = [...new Set(keywords.map(({ text }) => normalise(text)))];
  const keywordTable = buildTermTable(keywordTexts);
  const { offered } = offerWords({
    ...{ words, level: OFFERED_FROM, brandWords, mayStand: () => true },
    termsAround: (ngram) => {
      const parts = (text: string) =>
        rowsOf.get(text)!.map((r) => {
          const { campaignId: campaign, clicks, conversions, costMicros } = rows[r]!;
          const expected = clicks * rateOfRow(r);
          return {
            campaign,
            expected,
            conversions: Math.min(clicks, conversions),
            needed: costMicros / targetMicros,
          };
        });
      const pays = whereItPays(
        holding(ngram).flatMap(({ text }) => parts(text)),
        spread,
        OFFERED_FROM,
      );
      return holding(ngram).filter(({ text }) => !parts(text).some(({ campaign }) => pays.has(campaign)));
    },
    keywordsStoppedBy: (negative) => Array.from(matchTexts(keywordTable, negative), (k) => keywordTexts[k]!),
    protectedBy: ({ text }) =>
      holding(text)
        .filter(({ conversions }) => conversions >= 1)
        .map((term) => term.text),
  });
  const prior = fitPrior(terms)!;
  const isWorse = ({ clicks, conversions }: TrueTerm, t: number) =>
    probabilityMissesTarget({ ...prior, clicks, conversions, breakEvenCvr: texts.expected[t]! / clicks }) >=
    SURE;
  const isKeyword = new Set(keywordTexts);
  return {
    ...{ terms, words, offered: offered.map(({ word }) => word) },
    negatives: offered.flatMap(({ negatives }) => negatives),
    missing: terms.filter(
      (term, t) =>
        term.misses >= SURE && term.conversions < 1 && !isKeyword.has(term.text) && isWorse(term, t),
    ),
    evidenceOf(negative, leftOut) {
      const stopped = Array.from(matchTexts(table, negative)).filter((t) => !leftOut.has(terms[t]!.text));
      const sum = (of: Float64Array) => stopped.reduce((all, t) => all + of[t]!, 0);
      const expected = Math.max(sum(texts.expected), 1e-9);
      return probabilityAtFault(
        { expected, conversions: sum(texts.conversions), needed: sum(texts.needed) },
        spread,
      );
    },
  };
}

function expectedOf(rows: Played['rows'], terms: readonly TrueTerm[], targetMicros: number) {
  const indexOf = new Map(terms.map(({ text }, t) => [text, t]));
  const groups = new Map<string, number>();
  for (const { adGroupId } of rows) if (!groups.has(adGroupId)) groups.set(adGroupId, groups.size);
  const columns: ServedColumns = {
    textOf: Uint32Array.from(rows, ({ text }) => indexOf.get(normalise(text))!),
    adGroupOf: Uint32Array.from(rows, ({ adGroupId }) => groups.get(adGroupId)!),
    clicks: Float64Array.from(rows, ({ clicks }) => clicks),
    conversions: Float64Array.from(rows, ({ clicks, conversions }) => Math.min(clicks, conversions)),
    needed: Float64Array.from(rows, ({ costMicros }) => costMicros / targetMicros),
  };
  const [clicks, conversions] = [new Float64Array(groups.size), new Float64Array(groups.size)];
  columns.adGroupOf.forEach((g, r) => {
    clicks[g]! += columns.clicks[r]!;
    conversions[g]! += columns.conversions[r]!;
  });
  const { rates } = shrinkRates(clicks, conversions)!;
  return {
    texts: expectOfTexts(terms.length, columns, rates),
    rateOfRow: (r: number) => rates[columns.adGroupOf[r]!]!,
  };
}

function termsOf(rows: Played['rows'], rateOf: Played['rateOf'], targetMicros: number): TrueTerm[] {
  const sums = new Map<string, { clicks: number; conversions: number; costMicros: number; rate: number }>();
  for (const { text, clicks, conversions, costMicros } of rows) {
    const key = normalise(text);
    let sum = sums.get(key);
    if (!sum) sums.set(key, (sum = { clicks: 0, conversions: 0, costMicros: 0, rate: rateOf.get(text)! }));
    sum.clicks += clicks;
    sum.conversions += conversions;
    sum.costMicros += costMicros;
  }
  const prior: Prior = fitPrior(sums.values())!;
  return [...sums].map(([text, sum]) => {
    const breakEven = Math.min(1, sum.costMicros / sum.clicks / targetMicros);
    return {
      ...{ text, ...sum, breakEven, neverPays: sum.rate < breakEven / 5 },
      misses: probabilityMissesTarget({ ...prior, ...sum, breakEvenCvr: breakEven }),
    };
  });
}
