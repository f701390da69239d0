import type { ColumnEvidence } from './evidence';
import {
  NUMBER_ROLES,
  WHOLE_ROLES,
  type DecimalMark,
  type NumberRole,
  type Question,
  type ReadColumn,
  type ReadDecisions,
} from '../reading';

/** How the numbers of a column are read. */
export type ReadMark = {
  mark: DecimalMark;
  /** the column shows both marks: cells that could be either are refused instead of guessed */
  isStrict: boolean;
};

/**
 * The decimal mark of each column of numbers, by its index: as a person said, as its own cells show, as the other columns show.
 * Where nothing shows it and it matters, that is a question; one answer settles the file.
 */
export function decimalMarksOf(
  columns: readonly ReadColumn[],
  evidence: readonly ColumnEvidence[],
  { decimalMark, decimalMarks = {} }: ReadDecisions,
  questions: Question[],
): Record<number, ReadMark> {
  const numbers = columns
    .filter((c): c is ReadColumn & { role: NumberRole } => NUMBER_ROLES.includes(c.role as NumberRole))
    .map((column) => ({ column, shown: shownBy(evidence[column.index]!, column.role) }));
  const inFile = agreed(numbers.map(({ shown }) => decide(shown)));
  const marks: Record<number, ReadMark> = {};
  for (const { column, shown } of numbers) {
    const said = decimalMarks[column.index] ?? decimalMark;
    const own = said ?? decide(shown) ?? inFile;
    const isTorn = shown['.'] > 0 && shown[','] > 0;
    if (
      own === undefined &&
      (shown.either > 0 || isTorn) &&
      !questions.some((q) => q.code === 'decimal mark')
    ) {
      questions.push({
        code: 'decimal mark',
        column: column.header,
        text: `“${evidence[column.index]!.firstEither || column.sample}” in ${column.header} could be over a thousand, or a little over one. Which mark stands before decimals?`,
        options: ['.', ','],
      });
    }
    marks[column.index] = { mark: own ?? '.', isStrict: isTorn && said === undefined };
    if (shown['.'] + shown[','] + shown.either === 0) continue;
    column.decimalMark = own ?? '.';
    column.shown = shown;
    if (own) column.because += own === ',' ? ', decimal comma' : ', decimal point';
    if (own && isTorn) column.because += ', though not in all cells';
  }
  return marks;
}

type Shown = Record<DecimalMark | 'either', number>;

/** In a column of whole numbers a mark before three figures groups thousands. */
function shownBy({ marks, either }: ColumnEvidence, role: NumberRole): Shown {
  const isWhole = WHOLE_ROLES.includes(role);
  return {
    '.': marks['.'] + (isWhole ? either[','] : 0),
    ',': marks[','] + (isWhole ? either['.'] : 0),
    either: isWhole ? 0 : either[','] + either['.'],
  };
}

function decide({ '.': points, ',': commas }: Shown): DecimalMark | undefined {
  if (points === commas) return undefined;
  return points > commas ? '.' : ',';
}

/** What all columns that show something agree on. */
function agreed(found: readonly (DecimalMark | undefined)[]): DecimalMark | undefined {
  const [first, ...others] = new Set(found.filter((mark) => mark !== undefined));
  return others.length === 0 ? first : undefined;
}
