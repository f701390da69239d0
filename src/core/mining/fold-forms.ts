import { stemOf } from '../text';
import type { CodedTexts, TermTable } from './texts/term-table';

/** Texts in which the forms of a word stand for one: the form that most texts hold. */
export type FoldedTexts = CodedTexts & {
  /** All forms that occur of a word, which need not occur itself; the one that stands for them first. */
  formsOf(word: string): string[];
};

/**
 * Folds the forms of each word, by stem, into the one that most texts hold, so that n-grams count every form.
 * @example foldForms(buildTermTable(['bee hive', 'hives', 'hives'])).formsOf('hive') // ['hives', 'hive']
 */
export function foldForms(table: TermTable): FoldedTexts {
  const { dictionary, starts, wordIds, postingStarts } = table;
  const uses = (id: number) => postingStarts[id + 1]! - postingStarts[id]!;
  const byStem = new Map<string, number[]>();
  for (let id = 0; id < dictionary.size; id++) {
    const stem = stemOf(dictionary.wordOf(id));
    const forms = byStem.get(stem);
    if (forms) forms.push(id);
    else byStem.set(stem, [id]);
  }
  const standsFor = new Uint32Array(dictionary.size);
  for (const forms of byStem.values()) {
    forms.sort((a, b) => uses(b) - uses(a) || a - b);
    for (const id of forms) standsFor[id] = forms[0]!;
  }
  return {
    dictionary,
    starts,
    wordIds: wordIds.map((id) => standsFor[id]!),
    formsOf: (word) => (byStem.get(stemOf(word)) ?? []).map((form) => dictionary.wordOf(form)),
  };
}
