import {
  expectOfTexts,
  isSurelyFine,
  judgeNgrams,
  LEAST_EXPECTED,
  OFFERED_FROM,
  probabilityAtFault,
  shrinkRates,
  type JudgedTexts,
  type ServedColumns,
} from '../../mining';
import { tellProgress, type OnProgress } from '../../progress';
import { AT, WIDTH } from '../figures-of-facts';
import { textsIn, type Texts } from '../texts-in-facts';
import type { Evenings, TermFacts } from '../trial';

/** What words are judged by besides facts. */
export type WordsGround = {
  /** what a query says; null for what is none */
  textOf(termId: number): string | null;
  /** what a conversion may cost at the target of an ad group, micro-units; NaN without one */
  worthOf(adGroupId: number): number;
  /** days before an evening of which conversions may still come */
  lagDays: number;
};

/** The words at fault of an evening, by what was known then. */
export type FittedWeek = { evening: number; words: { ngram: string; probability: number }[] };

const WEEK = 7;
/** The longest n-grams that are judged, in words. */
const LONGEST = 3;

/**
 * The words at fault (rules 7.12) as they were on one evening of each week: by all days before it, less the lag, as the loads of that
 * time had them. What is learnt once, of all days: which n-grams can be judged at all, and how alike the factors of words are. One way
 * through the facts serves all weeks.
 * @returns no week where nothing ever converted; in each, words from the level on at which they are offered
 */
export function fitWeeks(
  facts: TermFacts,
  evenings: Evenings,
  ground: WordsGround,
  onProgress?: OnProgress,
): { weeks: FittedWeek[]; texts: Texts } {
  const known = textsIn(facts, ground.textOf);
  const rows = rowsOf(facts, known, ground);
  const judged = judgeAll(facts, known, rows, ground);
  if (!judged) return { weeks: [], texts: known };
  const count = Math.max(0, Math.ceil((evenings.to - evenings.from + 1) / WEEK));
  const brought = broughtBy(rows);
  const { order, weekStarts } = byWeek(facts, known, count, evenings.from, ground.lagDays);
  const weeks: FittedWeek[] = [];
  for (let week = 0; week < count; week++) {
    for (let i = weekStarts[week]!; i < weekStarts[week + 1]!; i++) {
      brought.add(order[i]!, facts);
      tellProgress(onProgress, i, order.length);
    }
    weeks.push({ evening: evenings.from + WEEK * week, words: atFault(brought.judge(known.count), judged) });
  }
  return { weeks, texts: known };
}

/** A row is a (text, ad group): what it brought so far. */
type Rows = {
  /** of a fact, −1 for what is no query */
  of: Int32Array;
  text: Uint32Array;
  adGroup: Uint32Array;
  /** conversions that a micro-unit of its cost must bring; NaN without a target */
  perMicro: Float64Array;
  adGroups: number;
};

function rowsOf(facts: TermFacts, { count, begin, end }: Texts, { worthOf }: WordsGround): Rows {
  const of = new Int32Array(facts.count).fill(-1);
  const [text, adGroup] = [new Uint32Array(facts.count), new Uint32Array(facts.count)];
  const perMicro = new Float64Array(facts.count);
  const indexOf = new Map<number, number>();
  const newest: number[] = []; // of each ad group, its newest row
  let rows = 0;
  for (let t = 0; t < count; t++)
    for (let f = begin[t]!; f < end[t]!; f++) {
      const id = facts.adGroupId[f]!;
      const index = indexOf.get(id) ?? indexOf.size;
      indexOf.set(id, index);
      const row = newest[index];
      if (row !== undefined && text[row] === t) {
        of[f] = row;
        continue;
      }
      of[f] = newest[index] = rows;
      text[rows] = t;
      adGroup[rows] = index;
      perMicro[rows++] = 1 / worthOf(id);
    }
  return {
    ...{ of, text: text.subarray(0, rows), adGroup: adGroup.subarray(0, rows) },
    ...{ perMicro: perMicro.subarray(0, rows), adGroups: indexOf.size },
  };
}

/** N-grams that can be judged, those of text t from `starts[t]` to before `starts[t + 1]`, and how alike the factors of words are. */
type Judged = { ngrams: string[]; starts: Uint32Array; ids: Uint32Array; spread: number };

/** What all days say of which n-grams can be judged; null where nothing converted. */
function judgeAll(facts: TermFacts, known: Texts, rows: Rows, ground: WordsGround): Judged | null {
  const brought = broughtBy(rows);
  const to = facts.day.reduce((last, day) => Math.max(last, day), -Infinity) - ground.lagDays;
  for (let f = 0; f < facts.count; f++) if (rows.of[f]! >= 0 && facts.day[f]! <= to) brought.add(f, facts);
  const texts = brought.judge(known.count);
  if (!texts) return null;
  const { words, spread } = judgeNgrams(known.table, texts, LONGEST, LEAST_EXPECTED);
  const ngrams = words.map(({ ngram }) => ngram);
  return { ngrams, ...byText(ngrams.map(known.holding), known.count), spread };
}

/** Turns the texts of n-grams into the n-grams of texts. */
function byText(holding: readonly Uint32Array[], texts: number) {
  const starts = new Uint32Array(texts + 1);
  for (const some of holding) for (const t of some) starts[t + 1]! += 1;
  for (let t = 0; t < texts; t++) starts[t + 1]! += starts[t]!;
  const next = starts.slice();
  const ids = new Uint32Array(starts[texts]!);
  holding.forEach((some, ngram) => {
    for (const t of some) ids[next[t]!++] = ngram;
  });
  return { starts, ids };
}

/** Facts of queries by the week on whose evening they are known first; those that no week knows are left out. */
function byWeek(
  facts: TermFacts,
  { count, begin, end }: Texts,
  weeks: number,
  from: number,
  lagDays: number,
) {
  const weekOf = (f: number) => {
    const knownOn = Math.max(facts.day[f]! + lagDays, facts.knownFrom ? facts.knownFrom[f]! : 0);
    return Math.max(0, Math.ceil((knownOn - from) / WEEK));
  };
  const weekStarts = new Uint32Array(weeks + 1);
  const each = (work: (f: number, week: number) => void) => {
    for (let t = 0; t < count; t++)
      for (let f = begin[t]!; f < end[t]!; f++) {
        const week = weekOf(f);
        if (week < weeks) work(f, week);
      }
  };
  each((_, week) => (weekStarts[week + 1]! += 1));
  for (let week = 0; week < weeks; week++) weekStarts[week + 1]! += weekStarts[week]!;
  const order = new Uint32Array(weekStarts[weeks]!);
  const next = weekStarts.slice();
  each((f, week) => (order[next[week]!++] = f));
  return { order, weekStarts };
}

/** What rows brought, over facts that are added one by one; of a row without conversions that are known nothing is said (rules 7.12). */
function broughtBy({ of, text, adGroup, perMicro, adGroups }: Rows) {
  const fresh = () => new Float64Array(text.length);
  const [clicks, conversions, cost] = [fresh(), fresh(), fresh()];
  const isKnown = new Uint8Array(text.length);
  const [clicksIn, wonIn] = [new Float64Array(adGroups), new Float64Array(adGroups)];
  const judged: ServedColumns = {
    ...{ textOf: text, adGroupOf: adGroup, clicks: fresh(), conversions: fresh() },
    needed: fresh().fill(NaN),
  };

  return {
    add(f: number, { figures }: TermFacts) {
      const row = of[f]!;
      clicks[row]! += figures[WIDTH * f + AT.clicks]! || 0;
      cost[row]! += figures[WIDTH * f + AT.costMicros]! || 0;
      const more = figures[WIDTH * f + AT.conversions]!;
      if (!Number.isNaN(more)) {
        conversions[row]! += more;
        isKnown[row] = 1;
      }
      if (isKnown[row] === 0) return;
      const won = Math.min(conversions[row]!, clicks[row]!);
      clicksIn[adGroup[row]!]! += clicks[row]! - judged.clicks[row]!;
      wonIn[adGroup[row]!]! += won - judged.conversions[row]!;
      judged.clicks[row] = clicks[row]!;
      judged.conversions[row] = won;
      judged.needed[row] = cost[row]! * perMicro[row]!;
    },
    /** beside what a click of each ad group is expected to bring; null where nothing converted */
    judge(texts: number): JudgedTexts | null {
      const shrunk = shrinkRates(clicksIn, wonIn);
      return shrunk && expectOfTexts(texts, judged, shrunk.rates);
    },
  };
}

/** What the texts of an n-gram brought: expected, conversions, needed, and of how many texts that is known. */
const SUMS = 4;

function atFault(texts: JudgedTexts | null, { ngrams, starts, ids, spread }: Judged): FittedWeek['words'] {
  if (!texts) return [];
  const sums = new Float64Array(SUMS * ngrams.length);
  for (let t = 0; t + 1 < starts.length; t++) {
    const [due, brought, must] = [texts.expected[t]!, texts.conversions[t]!, texts.needed[t]!];
    const isKnown = must === must; // no NaN
    if (texts.clicks[t] === 0 && !isKnown) continue; // not seen by that week
    for (let i = starts[t]!; i < starts[t + 1]!; i++) {
      const at = SUMS * ids[i]!;
      sums[at]! += due;
      sums[at + 1]! += brought;
      if (!isKnown) continue;
      sums[at + 2]! += must;
      sums[at + 3]! += 1;
    }
  }
  return ngrams.flatMap((ngram, i) => {
    const at = SUMS * i;
    const [expected, conversions] = [sums[at]!, sums[at + 1]!];
    if (expected < LEAST_EXPECTED || isSurelyFine(conversions, expected, spread)) return [];
    const word = { expected, conversions, needed: sums[at + 3] === 0 ? NaN : sums[at + 2]! };
    const probability = probabilityAtFault(word, spread);
    return probability >= OFFERED_FROM ? [{ ngram, probability }] : [];
  });
}
