import type { NegativeText } from '../gate';
import { variants, type Variant, type Vocabulary } from '../text';
import { matchingTexts, type TermTable } from './texts/term-table';

/** A variant of a negative, and what it would stop that the negative lets through. */
export type VariantOffer = Variant & {
  /** indexes into the table, ascending */
  terms: number[];
  costMicros: number;
};

/**
 * The variants of a negative that would stop something it does not (rules 8), in its match type, costliest first.
 * @param costMicros cost of each text of the table, micro-units; NaN where unknown
 * @param vocabulary of the table's texts
 * @example offerVariants({ text: 'film', match: 'broad' }, buildTermTable(['bee film', 'bee films']), [1, 2], compileVocabulary(['bee film', 'bee films'])) // [{ text: 'films', how: 'plural', terms: [1], costMicros: 2 }]
 */
export function offerVariants(
  negative: NegativeText,
  table: TermTable,
  costMicros: ArrayLike<number>,
  vocabulary: Vocabulary,
): VariantOffer[] {
  const stopped = new Set(matchingTexts(table, negative));
  return variants(negative.text, vocabulary)
    .map((variant) => {
      const matched = matchingTexts(table, { text: variant.text, match: negative.match });
      const terms = matched.filter((t) => !stopped.has(t));
      return { ...variant, terms, costMicros: terms.reduce((sum, t) => sum + (costMicros[t] || 0), 0) };
    })
    .filter(({ terms }) => terms.length > 0)
    .sort((a, b) => b.costMicros - a.costMicros || b.terms.length - a.terms.length);
}
