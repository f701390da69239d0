import type { ReportMatch } from '../reading';

const MATCH_WORDS: readonly { match: ReportMatch; pattern: RegExp }[] = [
  { match: 'exact', pattern: /exact|genau/ },
  { match: 'phrase', pattern: /phrase|wortgruppe|expression|frase|woordgroep|zinsdeel/ },
  { match: 'broad', pattern: /broad|weitgehend|large|amplia|breed/ },
  { match: 'automatic', pattern: /auto|dynami/ },
];

/** The match type that a cell names in one of the languages, or null. @example readMatch('genau passend') // 'exact' */
export function readMatch(cell: string): ReportMatch | null {
  const words = cell.toLowerCase();
  return MATCH_WORDS.find(({ pattern }) => pattern.test(words))?.match ?? null;
}

/** A keyword without the marks [exact] and "phrase", and the type they tell. @example readMarked('[bee]').match // 'exact' */
export function readMarked(text: string): { text: string; match: 'exact' | 'phrase' | null } {
  if (/^\[.+\]$/.test(text)) return { text: text.slice(1, -1), match: 'exact' };
  if (/^".+"$/.test(text)) return { text: text.slice(1, -1), match: 'phrase' };
  return { text, match: null };
}
