import { normalise } from '../text';
import { LEFT_OUT, ROLE_WORDS } from './header-words';
import type { ColumnRole } from './reading';

export type HeaderMeaning = {
  role: ColumnRole | null;
  because: string;
  /** how much of the header the name is that was found, 0..1: “Campaign” is more of a campaign than “Campaign name” */
  plainness: number;
};

const UNKNOWN: HeaderMeaning = { role: null, because: 'not a name that is known', plainness: 0 };
const LONGEST_HEADER = 80;

/**
 * What a header names, or why its column is left out. Units in brackets, case, accents and order do not matter.
 * @example roleOfHeader('Kosten (EUR)').role // 'cost'
 */
export function roleOfHeader(header: string): HeaderMeaning {
  if (header.length > LONGEST_HEADER) return UNKNOWN;
  const bare = header.replace(/[([](?!.*\b(?:low|high)\b).*?[)\]]/gi, ' ');
  const words = plainWords(bare);
  const isRatio = plainWords(header).some((word) => RATIO_NAMES.has(word));
  const named = ROLE_WORDS.find((entry) => entry.words.some((name) => isWhole(name, words)));
  if (named && (!isRatio || named.role === 'bid'))
    return { role: named.role, because: 'named so', plainness: 1 };
  const reason = LEFT_OUT.find((entry) => entry.words.some((name) => standsIn(name, words)));
  if (reason) return leftOut(reason.because);
  if (/[%/ø]/i.test(bare) || isRatio) return leftOut(LEFT_OUT[0]!.because);
  for (const { role, words: names } of ROLE_WORDS) {
    const found = names.filter((name) => standsIn(name, words));
    if (found.length === 0) continue;
    const longest = Math.max(...found.map((name) => name.split(' ').length));
    return { role, because: 'named so', plainness: longest / (words.length + 1) };
  }
  return UNKNOWN;
}

/** Whether a header names a report's column at all, be it one that is left out. */
export function isKnownHeader(header: string): boolean {
  return roleOfHeader(header) !== UNKNOWN;
}

const RATIO_NAMES = new Set(['acos', 'roas', 'ctr', 'cpc', 'cpa', 'cvr', 'tacos']);

function leftOut(because: string): HeaderMeaning {
  return { role: null, because, plainness: 0 };
}

/** Words of a header in lower case, without accents. */
function plainWords(header: string): string[] {
  const plain = normalise(header)
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .replace(/ß/g, 'ss');
  return plain === '' ? [] : plain.split(' ');
}

/** Whether the words of a name stand next to each other in a header. */
function standsIn(name: string, words: readonly string[]): boolean {
  const parts = name.split(' ');
  return words.some((_, at) => parts.every((part, i) => isWord(part, words[at + i] ?? '')));
}

function isWhole(name: string, words: readonly string[]): boolean {
  return name.split(' ').length === words.length && standsIn(name, words);
}

function isWord(part: string, word: string): boolean {
  if (part.startsWith('*')) return word.endsWith(part.slice(1));
  return part.endsWith('*') ? word.startsWith(part.slice(0, -1)) : word === part;
}
