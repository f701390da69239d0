import fc from 'fast-check';
import type { NegativeText } from '../gate';

/** Generators for property tests over the entries of lists: few words, so that entries often cover one another. */
export const anyText = fc
  .array(fc.constantFrom('bee', 'hive', 'free', 'job', 'jobs'), { minLength: 1, maxLength: 3 })
  .map((words) => words.join(' '));
export const anyEntry: fc.Arbitrary<NegativeText> = fc.record({
  text: anyText,
  match: fc.constantFrom('broad', 'phrase', 'exact'),
});
export const anyEntries = fc.array(anyEntry, { maxLength: 8 });

/** What entries say, each once and in order, however they stood. */
export const entryKeys = (entries: readonly NegativeText[]) =>
  [...new Set(entries.map(({ text, match }) => `${match} ${text}`))].sort();
