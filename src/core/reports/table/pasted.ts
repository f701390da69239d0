import { roleOfHeader } from '../columns/headers';
import { splitLine } from './delimited';

const BULLET = /^\s*(?:[-*+•·–—‣▪◦►✓○●]+|\(?\d{1,4}[.)]|\[[ x]\])\s+/iu;

/** What separates the cells of a pasted line, the surest first. */
export const PASTED_SEPARATORS = ['\t', ';', ',', '|'] as const;

/** A pasted line without its bullet or number. @example withoutBullet('12. free plans') // 'free plans' */
export const withoutBullet = (line: string): string => line.replace(BULLET, '').trim();

/** Where the text and the match type stand in each line of a pasted table. */
export type PastedColumns = { separator: string; text: number; match: number | undefined };

/**
 * Reads a first line whose cells are names of columns, one of them that of a text.
 * @returns undefined where the line is no header
 * @example readPastedHeader('Match type;Keyword') // { separator: ';', text: 1, match: 0 }
 */
export function readPastedHeader(line: string): PastedColumns | undefined {
  for (const separator of PASTED_SEPARATORS) {
    const roles = splitLine(line, separator).map((cell) => roleOfHeader(cell));
    if (roles.length < 2) continue;
    const text = roles.findIndex(({ role }) => role === 'keyword' || role === 'search term');
    const match = roles.findIndex(({ role }) => role === 'match type');
    if (text >= 0) return { separator, text, match: match < 0 ? undefined : match };
  }
  return undefined;
}
