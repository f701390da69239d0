import { withoutParts } from '../../mining';
import type { OnProgress } from '../../progress';
import { gatherFacts } from '../gather-facts';
import type { Judge } from '../meets';
import { tryRules, type Evenings, type TermFacts, type Trial, type Tried } from '../trial';
import { settleTrial } from '../settle-trial';
import { fitWeeks, type FittedWeek, type WordsGround } from './fit-weeks';
import { textsIn, type Texts } from '../texts-in-facts';

/** A rule on words at fault as it is tried: it looks once a week. */
export type TriedWords = Pick<Tried, 'when' | 'lookBack' | 'adGroups'> & {
  /** how surely a word is at fault, from `OFFERED_FROM` to 1 */
  level: number;
  /** words that it is about; null for all */
  words: ((ngram: string) => boolean) | null;
};

/** Trials whose `termId` is the place of a word among the n-grams, and the weeks that they go by. */
export type TriedWordsOutcome = { ngrams: string[]; trials: Trial[]; weeks: readonly FittedWeek[] };

type JudgeOf = (begin: number, end: number) => Judge;

/**
 * What rules on words at fault would have done on one evening of each week: a word is stopped, as a phrase, on the first one on which it
 * is at fault by what was known then (rules 7.12) and what holds it meets all conditions in the look-back. What the terms that hold it
 * brought after that evening is saved, or lost; of words that stop the same term, the one that was stopped first has it, of those of one
 * evening the one that comes first in `ngrams`.
 * @param ground with what facts are held against, those of a word being given as facts of one term; and with weeks that were fitted
 *   before, to the same facts, evenings and ground: no rule makes them others
 * @param onProgress in facts
 * @returns n-grams, a trial a rule whose `termId` is the place of a word among them, and the weeks
 * @example tryWords(threeDaysOfSixClicks, [], { from: 1, to: 5 }, { textOf: () => 'bee hive', worthOf: () => 20, lagDays: 0, judgesOf: () => () => ({}) }).trials // []
 */
export function tryWords(
  facts: TermFacts,
  rules: readonly TriedWords[],
  evenings: Evenings,
  ground: WordsGround & { judgesOf(facts: TermFacts): JudgeOf; weeks?: readonly FittedWeek[] },
  onProgress?: OnProgress,
): TriedWordsOutcome {
  const { weeks, texts } = ground.weeks
    ? { weeks: ground.weeks, texts: textsIn(facts, ground.textOf) }
    : fitWeeks(facts, evenings, ground, onProgress);
  const ngrams = [...new Set(weeks.flatMap(({ words }) => words.map(({ ngram }) => ngram)))].sort();
  const holding = ngrams.map(texts.holding);
  const ofWords = factsOfWords(facts, holding, texts);
  const judgeOf = ground.judgesOf(ofWords);
  const trials = tryRules(
    ofWords,
    rules.map((rule) => toTried(rule, weeks, ngrams)),
    evenings,
    judgeOf,
  );
  const judges = judgesOfWords(ofWords, ngrams.length, judgeOf);
  return {
    ...{ ngrams, weeks },
    trials: trials.map((trial, i) =>
      settleTrial(trial, {
        ...{ facts, texts, evenings, adGroups: rules[i]!.adGroups },
        ...{ holding: (ngram) => holding[ngram]!, judgeOf: (ngram) => judges[ngram]! },
      }),
    ),
  };
}

/**
 * What holds each of some n-grams, as if it were the facts of one term: `termId` is the place of the n-gram, by n-gram and day.
 * @param textOf what a query says; null for what is none
 * @example factsOfNgrams(threeDaysOfSixClicks, ['hive'], () => 'bee hive').count // 3
 */
export function factsOfNgrams(
  facts: TermFacts,
  ngrams: readonly string[],
  textOf: WordsGround['textOf'],
): TermFacts {
  const texts = textsIn(facts, textOf);
  return factsOfWords(facts, ngrams.map(texts.holding), texts);
}

const WEEK = 7;

function toTried(
  { level, words, ...rule }: TriedWords,
  weeks: readonly FittedWeek[],
  ngrams: readonly string[],
): Tried {
  const offered = new Map(
    weeks.map(({ evening, words: all }) => [
      evening,
      new Set(
        withoutParts(all, level).flatMap(({ ngram, probability }) => (probability >= level ? [ngram] : [])),
      ),
    ]),
  );
  return {
    ...{ ...rule, everyDays: WEEK, keywords: null },
    terms: words && { has: (id) => words(ngrams[id]!) },
    openOn: (id, evening) => offered.get(evening)?.has(ngrams[id]!) ?? false,
  };
}

function factsOfWords(facts: TermFacts, holding: readonly Uint32Array[], texts: Texts): TermFacts {
  const { word, fact } = inOrderOfDays(facts, holding, texts);
  return gatherFacts(facts, word, fact);
}

/** The facts of each word, by word and day: a fact stands once for each word that its text holds. */
function inOrderOfDays({ day }: TermFacts, holding: readonly Uint32Array[], { begin, end }: Texts) {
  let total = 0;
  for (const texts of holding) for (const t of texts) total += end[t]! - begin[t]!;
  const [word, fact, keys] = [new Int32Array(total), new Int32Array(total), new Float64Array(total)];
  let at = 0;
  holding.forEach((texts, ngram) => {
    const first = at;
    // A fact and its day are sorted as one number, which keeps the order of facts within a day.
    for (const t of texts) for (let f = begin[t]!; f < end[t]!; f++) keys[at++] = day[f]! * SHIFT + f;
    word.fill(ngram, first, at);
    keys.subarray(first, at).sort();
    for (let i = first; i < at; i++) fact[i] = keys[i]! - Math.floor(keys[i]! / SHIFT) * SHIFT;
  });
  return { word, fact };
}

/** Above any place of a fact; a day times it is still exact. */
const SHIFT = 2 ** 32;

function judgesOfWords({ count, termId }: TermFacts, ngrams: number, judgeOf: JudgeOf): Judge[] {
  const judges: Judge[] = new Array(ngrams);
  for (let begin = 0; begin < count;) {
    let end = begin + 1;
    while (end < count && termId[end] === termId[begin]) end++;
    judges[termId[begin]!] = judgeOf(begin, end);
    begin = end;
  }
  return judges;
}
