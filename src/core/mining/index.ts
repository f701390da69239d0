export { foldForms, type FoldedTexts } from './fold-forms';
export { findForeignWords } from './foreign-words';
export { countNgrams, countCodedNgrams, type Ngram, type NgramSize } from './ngrams/ngrams';
export { createNgramTable } from './ngrams/ngram-ids';
export { matchAll } from './texts/match-all';
export { findThemes, type Theme } from './themes';
export {
  buildTermTable,
  codeTexts,
  matchingTexts,
  matchTexts,
  type CodedTexts,
  type TermTable,
} from './texts/term-table';
export { lastingSet, type HeldBack } from './smallest-set/lasting-set';
export { replaceNegatives, type Replacement } from './smallest-set/replacement';
export { smallestSet, type SmallestSet } from './smallest-set/smallest-set';
export { offerVariants, type VariantOffer } from './variant-offers';
export { textsHolding } from './texts/texts-holding';
export {
  expectOfTexts,
  shrinkRates,
  type AdGroupRates,
  type JudgedTexts,
  type ServedColumns,
} from './words-at-fault/expected';
export {
  isSurelyFine,
  judgeNgrams,
  probabilityAtFault,
  type WordAtFault,
} from './words-at-fault/judge-ngrams';
export {
  LEAST_EXPECTED,
  OFFERED_FROM,
  offerWords,
  withoutParts,
  type Barred,
  type Offer,
} from './words-at-fault/offer-words';
export { whereItPays } from './words-at-fault/where-it-pays';
export { findWordsAtFault } from './words-at-fault/words-at-fault';
