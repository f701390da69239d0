import { covers, type NegativeText } from '../gate';
import { findRedundant } from '../tidy';
import { normalise, stemOf, words } from '../text';

/** Entries of several lists as one list would hold them. */
export type Merged = {
  entries: NegativeText[];
  /** left out, since another entry stops the same queries or more */
  needless: { entry: NegativeText; coveredBy: NegativeText }[];
};

/**
 * One list that stops what any of the lists stops, without what another entry makes needless (rules 3).
 * @example mergeEntries([[{ text: 'free', match: 'broad' }], [{ text: 'free plans', match: 'exact' }]]).entries // [{ text: 'free', match: 'broad' }]
 */
export function mergeEntries(lists: readonly (readonly NegativeText[])[]): Merged {
  const all = lists.flat().map(({ text, match }) => ({ text: normalise(text), match }));
  const place = { kind: 'list' as const, id: 'merged' };
  const redundant = findRedundant({
    campaigns: [],
    lists: [{ id: 'merged', hungOn: [] }],
    negatives: all.map((entry, i) => ({ ...entry, place, id: String(i).padStart(9, '0') })),
  });
  const needless = new Map(redundant.map(({ id, coveredBy }) => [Number(id), Number(coveredBy)]));
  return {
    entries: all.filter((_, i) => !needless.has(i)),
    needless: [...needless].map(([i, by]) => ({ entry: all[i]!, coveredBy: all[by]! })),
  };
}

/** Entries of one reason. */
export type Part = {
  /** the word that they share, as it is written most; null for what shares none */
  theme: string | null;
  entries: NegativeText[];
};

/**
 * Splits a list by the words that its entries share: each entry goes with the word that most entries hold in any of its
 * forms, the largest part first, what shares no word last. Each entry is in one part.
 * @example splitByTheme([{ text: 'job offer', match: 'broad' }, { text: 'jobs', match: 'broad' }, { text: 'meme', match: 'broad' }]).map((part) => part.theme) // ['job', null]
 */
export function splitByTheme(entries: readonly NegativeText[]): Part[] {
  const forms = new Map<string, Map<string, number>>();
  const uses = new Map<string, number>();
  const stemsOf = entries.map((entry) => {
    const own = new Set<string>();
    for (const word of words(entry.text)) {
      const stem = stemOf(word);
      own.add(stem);
      const known = forms.get(stem) ?? new Map<string, number>();
      forms.set(stem, known.set(word, (known.get(word) ?? 0) + 1));
    }
    for (const stem of own) uses.set(stem, (uses.get(stem) ?? 0) + 1);
    return [...own];
  });
  const parts = new Map<string | null, NegativeText[]>();
  const file = (stem: string | null, entry: NegativeText) => {
    const part = parts.get(stem);
    if (part) part.push(entry);
    else parts.set(stem, [entry]);
  };
  entries.forEach((entry, i) => {
    const shared = stemsOf[i]!.filter((stem) => uses.get(stem)! > 1);
    file(shared.length === 0 ? null : shared.reduce((a, b) => (isBefore(b, a, uses) ? b : a)), entry);
  });
  for (const [stem, [only, ...more]] of parts) {
    if (stem === null || more.length > 0) continue;
    parts.delete(stem); // the others that hold its word went with one that they share with more
    file(null, only!);
  }
  return [...parts]
    .map(([stem, of]) => ({ theme: stem === null ? null : mostWritten(forms.get(stem)!), entries: of }))
    .sort((a, b) => {
      if (a.theme === null || b.theme === null) return Number(a.theme === null) - Number(b.theme === null);
      return b.entries.length - a.entries.length || (a.theme < b.theme ? -1 : 1);
    });
}

function isBefore(a: string, b: string, uses: ReadonlyMap<string, number>): boolean {
  const more = uses.get(a)! - uses.get(b)!;
  return more > 0 || (more === 0 && a < b);
}

function mostWritten(forms: ReadonlyMap<string, number>): string {
  return [...forms].reduce((best, form) => (form[1] > best[1] ? form : best))[0];
}

/** Two lists side by side: what only one of them says, what both say, and what one says that the other covers. */
export type Compared = {
  onlyFirst: NegativeText[];
  onlySecond: NegativeText[];
  both: NegativeText[];
  /** entries of one list that an entry of the other makes needless if both hang in one place */
  covered: { entry: NegativeText; in: 'first' | 'second'; coveredBy: NegativeText }[];
};

/**
 * Compares the entries of two lists.
 * @example compareEntries([{ text: 'free', match: 'broad' }], [{ text: 'free plans', match: 'exact' }]).covered.length // 1
 */
export function compareEntries(first: readonly NegativeText[], second: readonly NegativeText[]): Compared {
  const key = ({ match, text }: NegativeText) => `${match} ${normalise(text)}`;
  const [inFirst, inSecond] = [new Set(first.map(key)), new Set(second.map(key))];
  const both = first.filter((entry) => inSecond.has(key(entry)));
  const { needless } = mergeEntries([first, second]);
  return {
    onlyFirst: first.filter((entry) => !inSecond.has(key(entry))),
    onlySecond: second.filter((entry) => !inFirst.has(key(entry))),
    both,
    covered: needless.flatMap(({ entry, coveredBy }): Compared['covered'] => {
      if (inFirst.has(key(entry)) === inSecond.has(key(entry))) return [];
      const side = inFirst.has(key(entry)) ? 'first' : 'second';
      const isOther = side === 'first' ? inSecond.has(key(coveredBy)) : inFirst.has(key(coveredBy));
      return isOther && covers(coveredBy, entry) ? [{ entry, in: side, coveredBy }] : [];
    }),
  };
}
