import { normalise } from '../../text';
import { LEFT_OUT, ROLE_WORDS, type Name } from './header-words';
import type { ColumnRole } from '../reading';

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
  if (words.length === 0) return UNKNOWN;
  const isRatio = plainWords(header).some((word) => RATIO_NAMES.has(word));
  const named = ROLE_WORDS.find(({ names }) =>
    names.some((name) => name.length === words.length && standsIn(name, words)),
  );
  if (named && (!isRatio || named.role === 'bid'))
    return { role: named.role, because: 'named so', plainness: 1 };
  const reason = LEFT_OUT.find(({ names }) => names.some((name) => standsIn(name, words)));
  if (reason) return leftOut(reason.because);
  if (/[%/ø]/i.test(bare) || isRatio) return leftOut(LEFT_OUT[0]!.because);
  for (const { role, names } of ROLE_WORDS) {
    const longest = names.reduce(
      (most, name) => (standsIn(name, words) ? Math.max(most, name.length) : most),
      0,
    );
    if (longest > 0) return { role, because: 'named so', plainness: longest / (words.length + 1) };
  }
  return UNKNOWN;
}

/** Whether a meaning is one at all: the header names a report's column, be it one that is left out. */
export function isKnown(meaning: HeaderMeaning): boolean {
  return meaning !== UNKNOWN;
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
function standsIn(name: Name, words: readonly string[]): boolean {
  for (let at = 0; at + name.length <= words.length; at++)
    if (name.every((part, i) => isWord(part, words[at + i]!))) return true;
  return false;
}

const STAR = 42;

function isWord(part: string, word: string): boolean {
  if (part.charCodeAt(0) === STAR) return word.endsWith(part.slice(1));
  return part.endsWith('*') ? word.startsWith(part.slice(0, -1)) : word === part;
}
