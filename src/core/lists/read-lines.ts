import { checkNegative, type Limits } from '../changes';
import type { MatchType, NegativeText } from '../gate';
import {
  PASTED_SEPARATORS,
  readMarked,
  readMatch,
  readPastedHeader,
  splitLine,
  withoutBullet,
  type PastedColumns,
} from '../reports';
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

const INNER_SEPARATOR = /[,;|](?!\d)/u;

/**
 * Reads negatives from pasted lines (rules 2.7): quotes for phrase and square brackets for exact are understood, as is
 * a column with the match type, under a header or without; bullets and numbering are taken off.
 * @example readNegativeLines('1. "free plans"\n[bee]\njobs', { match: 'broad', limits: USUAL_LIMITS }).entries.map((e) => e.match) // ['phrase', 'exact', 'broad']
 */
export function readNegativeLines(pasted: string, options: Options): NegativeLines {
  const read: NegativeLines = { entries: [], refused: [], twice: [] };
  const firstOf = new Map<string, number>();
  let columns: PastedColumns | undefined;
  const lines = pasted.replace(/^\uFEFF/u, '').split(/\r\n?|\n/u);
  for (const [i, raw] of lines.entries()) {
    if (raw.trim() === '') continue;
    const line = i + 1;
    const header =
      columns || read.entries.length + read.refused.length > 0 ? undefined : readPastedHeader(raw);
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

type Line = NegativeText & {
  /** how much of it is sure to be one text: one in quotes or a column of its own */
  isWhole: boolean;
};

function readLine(raw: string, columns: PastedColumns | undefined, fallback: MatchType): Line {
  if (columns) {
    const cells = splitLine(raw, columns.separator);
    const { text, match } = fromMarks(cells[columns.text] ?? '');
    return { text, match: typeIn(cells[columns.match ?? -1]) ?? match ?? fallback, isWhole: true };
  }
  const bare = withoutBullet(raw);
  for (const separator of PASTED_SEPARATORS) {
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
