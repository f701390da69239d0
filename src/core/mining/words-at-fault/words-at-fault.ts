import { normalise } from '../../text';
import { codeTexts } from '../texts/term-table';
import { expectOfTexts, shrinkRates, type ServedColumns } from './expected';
import { judgeNgrams, type Longest, type WordAtFault } from './judge-ngrams';

/** A search term in one of its ad groups, over all days that are kept; costs in micro-units. */
export type FaultRow = {
  text: string;
  adGroupId: string;
  clicks: number | null;
  conversions: number | null;
  costMicros?: number | null;
};

/**
 * How surely each run of words brings its terms below what their ad groups bring (rules 7.12).
 * @param terms rows whose clicks or conversions are unknown say nothing; product codes are the caller's to leave out
 * @param options longest run, in words (3 unless given); target CPA in micro-units, which counts where costs are given
 * @returns all runs with a click, surest first, then the most expected, then by text; none where nothing converted
 * @throws RangeError unless `longest` is 1..3
 * @example findWordsAtFault([{ text: 'hive', adGroupId: 'g', clicks: 10, conversions: 1 }, { text: 'hive jobs', adGroupId: 'g', clicks: 90, conversions: 0 }], { longest: 1 })[0]?.ngram // 'jobs'
 */
export function findWordsAtFault(
  terms: Iterable<FaultRow>,
  { longest = 3, targetMicros }: { longest?: Longest; targetMicros?: number } = {},
): WordAtFault[] {
  if (![1, 2, 3].includes(longest))
    throw new RangeError(`longest must be 1..3 words; got ${String(longest)}`);
  const { texts, adGroups, rows } = columnsOf(terms, targetMicros);
  const [clicks, conversions] = [new Float64Array(adGroups), new Float64Array(adGroups)];
  rows.adGroupOf.forEach((g, r) => {
    clicks[g]! += rows.clicks[r]!;
    conversions[g]! += rows.conversions[r]!;
  });
  const shrunk = shrinkRates(clicks, conversions);
  if (!shrunk) return [];
  return judgeNgrams(codeTexts(texts), expectOfTexts(texts.length, rows, shrunk.rates), longest, 0).words;
}

function columnsOf(terms: Iterable<FaultRow>, targetMicros: number | undefined) {
  const texts = new Map<string, number>();
  const adGroups = new Map<string, number>();
  const indexIn = (known: Map<string, number>, key: string) => {
    const there = known.get(key);
    if (there !== undefined) return there;
    known.set(key, known.size);
    return known.size - 1;
  };
  const rows = new Map<string, Row>();
  for (const { text, adGroupId, clicks, conversions, costMicros } of terms) {
    const key = normalise(text);
    if (key === '' || clicks === null || conversions === null) continue;
    const [t, g] = [indexIn(texts, key), indexIn(adGroups, adGroupId)];
    const row = rows.get(`${t} ${g}`);
    if (!row) rows.set(`${t} ${g}`, { t, g, clicks, conversions, costMicros: costMicros ?? null });
    else {
      row.clicks += clicks;
      row.conversions += conversions;
      if (costMicros != null) row.costMicros = (row.costMicros ?? 0) + costMicros;
    }
  }
  const known = [...rows.values()];
  const needed = ({ costMicros }: Row) =>
    targetMicros !== undefined && targetMicros > 0 && costMicros !== null ? costMicros / targetMicros : NaN;
  const columns: ServedColumns = {
    textOf: Uint32Array.from(known, ({ t }) => t),
    adGroupOf: Uint32Array.from(known, ({ g }) => g),
    clicks: Float64Array.from(known, ({ clicks }) => clicks),
    conversions: Float64Array.from(known, ({ clicks, conversions }) => Math.min(conversions, clicks)),
    needed: Float64Array.from(known, needed),
  };
  return { texts: [...texts.keys()], adGroups: adGroups.size, rows: columns };
}

type Row = { t: number; g: number; clicks: number; conversions: number; costMicros: number | null };
