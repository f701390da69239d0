import { checkNegative, type Limits } from '../changes';
import type { MatchType, NegativeText } from '../gate';
import { readMarked, readMatch, roleOfHeader, splitLine } from '../reports';
import { normalise } from '../text';

/** What a person's lines come to. Line numbers start at 1; every line that is not blank is in one of the three. */
export type NegativeLines = {
  entries: (NegativeText & { line: number })[];
  refused: { line: number; raw: string; reason: string }[];
  /** lines that say what an earlier one says */
  twice: { line: number; raw: string; sameAs: number }[];
};

type Options = {
  /** of a line that names no match type */
  match: MatchType;
  limits: Limits;
  isProductCode?: (raw: string) => boolean;
};

const BULLET = /^\s*(?:[-*+•·–—‣▪◦►✓○●]+|\(?\d{1,4}[.)]|\[[ x]\])\s+/iu;
const SEPARATORS = ['\t', ';', ',', '|'] as const;
const INNER_SEPARATOR = /[,;|](?!\d)/u;

/**
 * Reads negatives from pasted lines (rules 2.7): quotes for phrase and square brackets for exact are understood, as is
 * a column with the match type, under a header or without; bullets and numbering are taken off.
 * @example readNegativeLines('1. "free plans"\n[bee]\njobs', { match: 'broad', limits: USUAL_LIMITS }).entries.map((e) => e.match) // ['phrase', 'exact', 'broad']
 */
export function readNegativeLines(pasted: string, options: Options): NegativeLines {
  const read: NegativeLines = { entries: [], refused: [], twice: [] };
  const firstOf = new Map<string, number>();
  let columns: Columns | undefined;
  const lines = pasted.replace(/^\uFEFF/u, '').split(/\r\n?|\n/u);
  for (const [i, raw] of lines.entries()) {
    if (raw.trim() === '') continue;
    const line = i + 1;
    const header = columns || read.entries.length + read.refused.length > 0 ? undefined : readHeader(raw);
    if (header) {
      columns = header;
      continue;
    }
    const negative = readLine(raw, columns, options.match);
    const reason = refusalOf(negative, options);
    if (reason !== undefined) {
      read.refused.push({ line, raw, reason });
      continue;
    }
    const { text, match } = negative;
    const key = `${match} ${normalise(text)}`;
    const sameAs = firstOf.get(key);
    if (sameAs !== undefined) read.twice.push({ line, raw, sameAs });
    else {
      firstOf.set(key, line);
      read.entries.push({ text: normalise(text), match, line });
    }
  }
  return read;
}

/** Where the text and the match type stand in each line. */
type Columns = { separator: string; text: number; match: number | undefined };

/** A first line whose cells are names of columns, and one of them that of a text. */
function readHeader(raw: string): Columns | undefined {
  for (const separator of SEPARATORS) {
    const roles = splitLine(raw, separator).map((cell) => roleOfHeader(cell));
    if (roles.length < 2) continue;
    const text = roles.findIndex(({ role }) => role === 'keyword' || role === 'search term');
    const match = roles.findIndex(({ role }) => role === 'match type');
    if (text >= 0) return { separator, text, match: match < 0 ? undefined : match };
  }
  return undefined;
}

type Line = NegativeText & {
  /** how much of it is sure to be one text: one in quotes or a column of its own */
  isWhole: boolean;
};

function readLine(raw: string, columns: Columns | undefined, fallback: MatchType): Line {
  if (columns) {
    const cells = splitLine(raw, columns.separator);
    const { text, match } = fromMarks(cells[columns.text] ?? '');
    return { text, match: typeIn(cells[columns.match ?? -1]) ?? match ?? fallback, isWhole: true };
  }
  const bare = raw.replace(BULLET, '').trim();
  for (const separator of SEPARATORS) {
    if (!bare.includes(separator)) continue;
    const cells = splitLine(bare, separator).map((cell) => cell.trim());
    const type = cells.length > 1 ? typeIn(cells[1]) : undefined;
    if (type) return { text: fromMarks(cells[0]!).text, match: type, isWhole: true };
  }
  const { text, match } = fromMarks(bare.replace(/[,;|]+$/u, ''));
  return { text, match: match ?? fallback, isWhole: match !== null };
}

/** Quotes of other languages are as good as straight ones. */
function fromMarks(cell: string) {
  return readMarked(cell.trim().replace(/^[“”„«»‟]\s*|\s*[“”„«»‟]$/gu, '"'));
}

/** The match type that a cell names, when it names nothing else. */
function typeIn(cell: string | undefined): MatchType | undefined {
  if (cell === undefined || cell.trim().split(/\s+/u).length > 3) return undefined;
  const match = readMatch(cell);
  return match === 'automatic' || match === null ? undefined : match;
}

function refusalOf({ text, match, isWhole }: Line, { limits, isProductCode }: Options): string | undefined {
  if (!isWhole && INNER_SEPARATOR.test(text))
    return 'This line holds more than one text. Write each on a line of its own, or put quotes round all of it.';
  return checkNegative({ text, match }, limits, isProductCode)?.message;
}
