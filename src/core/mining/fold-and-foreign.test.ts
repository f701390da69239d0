import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { countCodedNgrams, findForeignWords, foldForms, matchingTexts, textsHolding } from './index';
import { buildTermTable } from './texts/term-table';

const text = fc
  .array(fc.constantFrom('bee', 'bees', 'hive', 'hives', 'tattoo', 'course', 'courses'), {
    minLength: 1,
    maxLength: 4,
  })
  .map((words) => words.join(' '));
const texts = fc.uniqueArray(text, { minLength: 1, maxLength: 12 });

describe('folding forms', () => {
  test('the form that most texts hold stands for all', () => {
    const folded = foldForms(buildTermTable(['bee hive', 'hives', 'hives bee']));
    const runs = countCodedNgrams(
      folded,
      [0, 1, 2].map((term) => ({ term, ...figures(1) })),
      { from: 1, to: 1 },
    );
    expect(runs.map(({ ngram, terms }) => [ngram, terms])).toEqual([
      ['hives', 3],
      ['bee', 2],
    ]);
  });

  test('a folded run counts each term that holds any of its forms once', () => {
    fc.assert(
      fc.property(texts, (all) => {
        const table = buildTermTable(all);
        const folded = foldForms(table);
        const terms = all.map((_, term) => ({ term, ...figures(term + 1) }));
        for (const run of countCodedNgrams(folded, terms, { from: 1, to: 1 })) {
          const holding = textsHolding(table, folded.formsOf(run.ngram));
          expect(run.terms).toBe(holding.reduce((sum, holds) => sum + holds, 0));
        }
      }),
      { numRuns: 1_000 },
    );
  });
});

describe('foreign words', () => {
  test('no text that must stay open holds a form of one, and few texts hold it', () => {
    fc.assert(
      fc.property(texts, texts, fc.integer({ min: 0, max: 3 }), (all, open, most) => {
        const table = buildTermTable(all);
        const foreign = findForeignWords(table, [buildTermTable(open)], most);
        const singular = (word: string) => word.replace(/s$/, '');
        const known = new Set(open.flatMap((t) => t.split(' ').map(singular)));
        for (const word of new Set(all.flatMap((t) => t.split(' ')))) {
          const uses = matchingTexts(table, { text: word, match: 'broad' }).length;
          const expected = uses <= most && !known.has(singular(word));
          expect(foreign[table.dictionary.idOf(word)!]).toBe(Number(expected));
        }
      }),
      { numRuns: 1_000 },
    );
  });
});

const figures = (costMicros: number) => ({
  ...{ impressions: 1, clicks: 1, costMicros, conversions: 0, valueMicros: 0 },
});
