import {
  buildTermTable,
  findForeignWords,
  foldForms,
  normalise,
  textsHolding,
  type FoldedTexts,
} from '@/core';
import type { SiftFilters } from '@/contracts/sift';
import type { Snapshot } from '../snapshot';
import { termSums } from '../term-sums';
import { kindAt, termAt } from '../window-columns';
import type { Workbench } from '../workbench';
import { locationNames } from '../locations/location-names';
import { locationNamer } from '../locations/name-locations';
import { derivedFrom } from '../derived';
import { figureAt, COLUMN } from '../figure-columns';

/** What the picking of terms needs of the pass: terms with an id above the number are new in it. */
export type PassKnown = { newestTermId: number; seen: ReadonlySet<number> };

/** The most forms of an n-gram that are looked for together. */
const MOST_FORMS = 64;
/**
 * A foreign word stands in few terms: in at most this share of them, or in at most the least number, whichever is more.
 */
const RARE = { share: 0.005, least: 3 };

/** The forms of each word of a window, folded; made when they are first asked for. */
export const foldedOf = ({ served }: Pick<Snapshot, 'served'>): FoldedTexts => foldedIn(served.table);
const foldedIn = derivedFrom(foldForms);

/** Terms that pass the filters which ask about the term itself: 1 for each that does; null when all do. */
export function pickTerms(
  bench: Workbench,
  filters: Pick<SiftFilters, 'holding' | 'forms' | 'text' | 'trait'>,
  pass: PassKnown | null,
): Uint8Array | null {
  const tests = [
    byHolding(bench.snapshot, filters),
    byTrait(bench, filters.trait, pass),
    byLetters(bench.snapshot, filters.text),
  ].filter((test) => test !== null);
  const [first, ...others] = tests;
  if (!first) return null;
  return first.map((passes, t) => (passes === 1 && others.every((test) => test[t] === 1) ? 1 : 0));
}

function byHolding(snapshot: Snapshot, { holding, forms }: Pick<SiftFilters, 'holding' | 'forms'>) {
  const ngram = normalise(holding);
  if (ngram === '') return null;
  return textsHolding(snapshot.served.table, forms === 'yes' ? allForms(snapshot, ngram) : [ngram]);
}

/** An n-gram in all forms of its words that occur, itself first. */
export function allForms(snapshot: Snapshot, ngram: string): string[] {
  const { formsOf } = foldedOf(snapshot);
  let texts: string[][] = [[]];
  for (const word of ngram.split(' ')) {
    const forms = [word, ...formsOf(word).filter((form) => form !== word)];
    texts = texts.flatMap((text) => forms.map((form) => [...text, form])).slice(0, MOST_FORMS);
  }
  return texts.map((text) => text.join(' '));
}

function byLetters({ terms }: Snapshot, text: string): Uint8Array | null {
  const letters = text.trim().toLowerCase();
  if (letters === '') return null;
  return Uint8Array.from({ length: terms.count }, (_, t) => {
    const { raw, key } = termAt(terms, t);
    return key.includes(letters) || raw.toLowerCase().includes(letters) ? 1 : 0;
  });
}

function byTrait(bench: Workbench, trait: SiftFilters['trait'], pass: PassKnown | null): Uint8Array | null {
  const { terms } = bench.snapshot;
  const where = (test: (t: number) => boolean) =>
    Uint8Array.from({ length: terms.count }, (_, t) => Number(test(t)));
  switch (trait) {
    case 'any':
      return null;
    case 'code':
      return where((t) => kindAt(terms, t) === 'code');
    case 'location':
      return namingLocations(bench);
    case 'not served':
      return namingNotServed(bench);
    case 'off':
      return plainlyOff(bench);
    case 'new':
      return where((t) => terms.ids[t]! > (pass?.newestTermId ?? 0));
    case 'unseen':
      return where((t) => !pass?.seen.has(terms.ids[t]!));
  }
}

/** At most one click, no conversion, and a word that no text which must stay open holds (rules 7.9). */
const plainlyOff = derivedFrom(({ snapshot, protectedOwnTable }: Workbench): Uint8Array => {
  const { served, convertingTable, liveKeywordTable, terms } = snapshot;
  const most = Math.max(RARE.least, Math.floor(RARE.share * terms.count));
  const converted = buildTermTable(convertedTexts(snapshot));
  const known = [convertingTable, converted, liveKeywordTable, protectedOwnTable];
  const isForeign = findForeignWords(served.table, known, most);
  const { figures } = termSums(snapshot);
  const { starts, wordIds } = served.table;
  return Uint8Array.from({ length: terms.count }, (_, t) => {
    const isUsual = figureAt(figures, t, COLUMN.clicks) > 1 || figureAt(figures, t, COLUMN.conversions) !== 0;
    if (isUsual) return 0; // unknown conversions are not none
    for (let i = starts[t]!; i < starts[t + 1]!; i++) if (isForeign[wordIds[i]!] === 1) return 1;
    return 0;
  });
});

/** Terms that hold the name of a location (rules 7.10). */
const namingLocations = derivedFrom(({ snapshot, locationWords }: Workbench) =>
  textsHolding(snapshot.served.table, locationNames(locationWords)),
);

/** Terms that surely name a location that is not served (rules 16.7). */
const namingNotServed = derivedFrom(({ snapshot: { terms }, saidOfLocations }: Workbench) => {
  const nameIn = locationNamer(saidOfLocations);
  return Uint8Array.from({ length: terms.count }, (_, t) =>
    Number(nameIn(termAt(terms, t).key).some(({ kind }) => kind === 'not served')),
  );
});

function convertedTexts(snapshot: Snapshot): string[] {
  const { figures } = termSums(snapshot);
  const texts: string[] = [];
  for (let t = 0; t < snapshot.terms.count; t++)
    if (figureAt(figures, t, COLUMN.conversions) > 0) texts.push(termAt(snapshot.terms, t).key);
  return texts;
}
