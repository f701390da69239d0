import {
  checkNegative,
  matchTexts,
  OFFERED_FROM,
  smallestSet,
  wordsToOffer,
  type Limits,
  type NegativeText,
  type WordAtFault,
} from '@/core';
import { derivedByKey } from '../derived';
import { keyAt } from '../window-columns';
import { keywordsStoppedBy, protectedBy, type Workbench } from '../workbench';
import { historyTable, judgingOf } from './faults';
import { steeringKey, type Steering } from './row-targets';

/** What an account sets for what is offered. */
export type Offering = Steering & { brandWords: readonly string[]; limits: Limits };

/** A word at fault that can be stopped without shutting out anything that must stay open (rules 7.12, 7.14). */
export type Offer = {
  word: WordAtFault;
  /** the word as a phrase; or, where that would stop protected terms, longer ones around them */
  negatives: readonly NegativeText[];
  /** the protected terms that are left open so */
  leavesOpen: readonly string[];
};
/** A word at fault that is not offered, and what stands against it. */
export type Barred = { word: WordAtFault; by: 'brand word' | 'live keyword' | 'protected term'; names: string[] };
export type Offers = { offered: readonly Offer[]; barred: readonly Barred[] };

/** The most longer phrases around the protected terms that hold a word. */
const MOST_AROUND = 100;

/** What is offered of an account's words at fault, surest first; cached until what is protected changes. */
export function offersOf(bench: Workbench, offering: Offering): Offers {
  return cached(bench.snapshot, { bench, offering });
}

type Asked = { bench: Workbench; offering: Offering };
const cached = derivedByKey(
  ({ bench, offering }: Asked) =>
    JSON.stringify([
      steeringKey(offering),
      ...[offering.brandWords, offering.limits, bench.neutralWords],
      bench.protectedOwn.map(({ text }) => text),
    ]),
  (_, { bench, offering }) => findOffers(bench, offering),
  2,
);

function findOffers(bench: Workbench, offering: Offering): Offers {
  const neutral = new Set(bench.neutralWords);
  const offered: Offer[] = [];
  const barred: Barred[] = [];
  for (const word of wordsToOffer(judgingOf(bench.snapshot, offering)?.words ?? [], OFFERED_FROM)) {
    if (neutral.has(word.ngram)) continue;
    const whole: NegativeText = { text: word.ngram, match: 'phrase' };
    const brands = offering.brandWords.filter((brand) => ` ${word.ngram} `.includes(` ${brand} `));
    const keywords = keywordsStoppedBy(bench, whole);
    const mustStay = protectedBy(bench, [whole]);
    if (brands.length > 0) barred.push({ word, by: 'brand word', names: brands });
    else if (keywords.length > 0)
      barred.push({ word, by: 'live keyword', names: keywords.map(({ keyword }) => keyword.text) });
    else if (mustStay.length === 0) offered.push({ word, negatives: [whole], leavesOpen: [] });
    else {
      const negatives = phrasesAround(bench, word.ngram, mustStay, offering);
      if (negatives.length > 0) offered.push({ word, negatives, leavesOpen: mustStay });
      else barred.push({ word, by: 'protected term', names: mustStay });
    }
  }
  return { offered, barred };
}

/** The smallest set of longer phrases and whole texts that hold an n-gram and stop none that must stay open (rules 9). */
function phrasesAround(
  { snapshot }: Workbench,
  ngram: string,
  mustStay: readonly string[],
  offering: Offering,
): NegativeText[] {
  const { history } = snapshot;
  const isOpen = new Set(mustStay);
  const clicks = judgingOf(snapshot, offering)!.texts.clicks;
  const unwanted = Array.from(matchTexts(historyTable(history), { text: ngram, match: 'phrase' }), (t) => ({
    text: keyAt(history.terms, t),
    costMicros: clicks[t]!, // what is clicked most is stopped first
  })).filter(({ text }) => !isOpen.has(text));
  // No live keyword holds the n-gram, so none can be stopped by what holds it.
  const { negatives } = smallestSet({ unwanted, open: mustStay, limit: MOST_AROUND, holding: ngram });
  return negatives.filter((negative) => checkNegative(negative, offering.limits, () => false) === undefined);
}
