import { addFigures, noFigures, type Figures } from '../figures';
import { normalise, stemOf } from '../text';

/** Words that never brought a return and are asked for together: one reason why people ask. */
export type Theme = {
  /** each as it is written most, costliest first */
  words: string[];
  /** indexes of the terms that hold one of them, ascending */
  terms: number[];
} & Figures;

/**
 * Two words belong together from this share on: the cost of the terms that hold both, over the cost of the cheaper
 * word.
 */
const TOGETHER = 0.5;

/**
 * Themes of spend without return (rules 7.7), costliest first. Only words count that at least two terms hold and no
 * converting term holds; forms of one word are one word. Two words belong together when the terms that hold both make
 * up half the cost of the cheaper word. A theme is a set of words that such pairs connect.
 * @example findThemes([{ text: 'hive movie', costMicros: 3, conversions: 0 }, { text: 'bee movies', costMicros: 2, conversions: 0 }])[0]?.words // ['movie']
 */
export function findThemes(terms: readonly ({ text: string } & Partial<Figures>)[]): Theme[] {
  const words = wordsWithoutReturn(terms);
  const themeOf = new Map(words.map((word) => [word.stem, word.stem]));
  const rootOf = (stem: string): string => {
    const above = themeOf.get(stem)!;
    return above === stem ? stem : rootOf(above);
  };
  for (const [a, b] of pairsTogether(terms, words)) themeOf.set(rootOf(b), rootOf(a));
  const groups = new Map<string, StemmedWord[]>();
  for (const word of words) {
    const root = rootOf(word.stem);
    groups.set(root, [...(groups.get(root) ?? []), word]);
  }
  return [...groups.values()]
    .map((group) => toTheme(group, terms))
    .sort((a, b) => (b.costMicros ?? 0) - (a.costMicros ?? 0) || (a.words[0]! < b.words[0]! ? -1 : 1));
}

type StemmedWord = { stem: string; cost: number; terms: number[]; forms: Map<string, number> };

function wordsWithoutReturn(terms: readonly ({ text: string } & Partial<Figures>)[]): StemmedWord[] {
  const found = new Map<string, StemmedWord & { returned: boolean }>();
  terms.forEach(({ text, costMicros, conversions }, t) => {
    for (const form of new Set(normalise(text).split(' '))) {
      if (form === '') continue;
      const stem = stemOf(form);
      let word = found.get(stem);
      if (!word) found.set(stem, (word = { stem, cost: 0, terms: [], forms: new Map(), returned: false }));
      word.forms.set(form, (word.forms.get(form) ?? 0) + (costMicros ?? 0));
      word.returned ||= conversions !== 0; // unknown is not 0
      if (word.terms.at(-1) === t) continue; // two forms of it in one term
      word.terms.push(t);
      word.cost += costMicros ?? 0;
    }
  });
  return [...found.values()]
    .filter((word) => !word.returned && word.terms.length >= 2 && word.cost > 0)
    .sort((a, b) => b.cost - a.cost || (a.stem < b.stem ? -1 : 1));
}

function pairsTogether(
  terms: readonly Partial<Figures>[],
  words: readonly StemmedWord[],
): [string, string][] {
  const holding = new Map<number, number[]>();
  words.forEach((word, w) => {
    for (const t of word.terms) holding.set(t, [...(holding.get(t) ?? []), w]);
  });
  const shared = new Map<number, number>();
  for (const [t, of] of holding) {
    for (const [i, a] of of.entries()) {
      for (const b of of.slice(i + 1)) {
        const pair = a * words.length + b;
        shared.set(pair, (shared.get(pair) ?? 0) + (terms[t]!.costMicros ?? 0));
      }
    }
  }
  return [...shared].flatMap(([pair, cost]): [string, string][] => {
    const [a, b] = [words[Math.floor(pair / words.length)]!, words[pair % words.length]!];
    return cost >= TOGETHER * Math.min(a.cost, b.cost) ? [[a.stem, b.stem]] : [];
  });
}

function toTheme(group: readonly StemmedWord[], terms: readonly Partial<Figures>[]): Theme {
  const indexes = [...new Set(group.flatMap((word) => word.terms))].sort((a, b) => a - b);
  const sum = noFigures();
  for (const t of indexes) addFigures(sum, terms[t]!);
  const mostUsed = ({ forms }: StemmedWord) =>
    [...forms].reduce((best, form) => (form[1] > best[1] ? form : best))[0];
  return { words: group.map(mostUsed), terms: indexes, ...sum };
}
