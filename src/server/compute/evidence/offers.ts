import { checkNegative, OFFERED_FROM, offerWords, stops, type Barred, type Limits, type Offer } from '@/core';
import { derivedByKey } from '../derived';
import { keywordsStoppedBy, protectedBy, type Workbench } from '../workbench';
import { judgingOf, termsAround } from './faults';
import { steeringKey, type Steering } from './row-targets';

/** What an account sets for what is offered. */
export type Offering = Steering & { brandWords: readonly string[]; limits: Limits };

export type Offers = { offered: readonly Offer[]; barred: readonly Barred[] };

/**
 * What is offered of an account's words at fault (rules 7.12), surest first; those that people called neutral are left
 * out. Cached until what is protected changes.
 */
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
  const judging = judgingOf(bench.snapshot, offering);
  if (!judging) return { offered: [], barred: [] };
  const neutral = new Set(bench.neutralWords);
  return offerWords({
    words: judging.words.filter(({ ngram }) => !neutral.has(ngram)),
    level: OFFERED_FROM,
    brandWords: offering.brandWords,
    keywordsStoppedBy: (negative) => keywordsStoppedBy(bench, negative).map(({ keyword }) => keyword.text),
    protectedBy: (negative) => protectedBy(bench, [negative]),
    termsAround: (ngram) => termsAround(bench.snapshot, judging, ngram, OFFERED_FROM),
    mayStand: (negative) => checkNegative(negative, offering.limits) === undefined,
  });
}

/** Whether a word may be offered at all as things are: it is no brand word, nobody called it neutral, and it stops no live keyword. */
export function mayBeOffered(bench: Workbench, { brandWords }: Pick<Offering, 'brandWords'>) {
  const neutral = new Set(bench.neutralWords);
  return (ngram: string): boolean =>
    !neutral.has(ngram) &&
    !brandWords.some((brand) => stops({ text: brand, match: 'phrase' }, ngram)) &&
    keywordsStoppedBy(bench, { text: ngram, match: 'phrase' }).length === 0;
}
