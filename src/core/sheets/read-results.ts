import { group } from 'd3-array';
import { fold, layRow, wordsOf, type SheetCells, type SheetColumn, type SheetRecipe } from './recipe';

/** A change that was given out, and the cells of its row. */
export type GivenOut = { id: number; cells: SheetCells };

/** What a result sheet says became of the changes that were given out. */
export type SheetResults = {
  /** the name of the recipe by which the sheet is read */
  recipe: string;
  /** all headings of the sheet, and which of them hold what became of a change and why; from 0, null for none */
  headings: string[];
  resultColumn: number | null;
  reasonColumn: number | null;
  /** the changes of which it says that they were carried out or not, by the order of the sheet */
  results: { id: number; failed: string | null }[];
  /** rows that say nothing certain of a change; lines from 1 */
  unclear: { line: number; why: string }[];
  /** ids of changes that the sheet does not name */
  unnamed: number[];
};

/** Columns that a person chose, from 0; null for none. */
export type ResultColumns = { result?: number | null; reason?: number | null };

/**
 * Reads a sheet that came back: which change each row is about, by the recipe whose headings it has, and what became of
 * it (rules 15.6). A row that can be about two changes, contradicts another, or has a result that is not understood is unclear; none
 * of them is guessed.
 * @param table rows of cells, with the header among the first twenty
 * @param recipes the first one whose headings are all there is taken; else the one of which most are there
 * @returns what it says; a sentence where the sheet can not be read
 * @example 'error' in readResults([['Text'], ['free']], [], []) // true
 */
export function readResults(
  table: readonly (readonly string[])[],
  givenOut: readonly GivenOut[],
  recipes: readonly SheetRecipe[],
  chosen: ResultColumns = {},
): SheetResults | { error: string } {
  const found = findHeader(table, recipes);
  if (!found) return { error: NO_HEADINGS };
  const { recipe, line, columns } = found;
  const headings = table[line]!.map((cell) => cell.trim());
  const others = headings.flatMap((_, at) => (columns.some((c) => c.at === at) ? [] : [at]));
  const reasonColumn =
    pick(chosen.reason, headings) ?? others.find((at) => REASON.test(headings[at]!)) ?? null;
  const resultColumn =
    pick(chosen.result, headings) ??
    others.find((at) => at !== reasonColumn && RESULT.test(headings[at]!)) ??
    (reasonColumn === null && others.length === 1 ? others[0]! : undefined) ??
    (reasonColumn === null ? columns.find(({ column }) => column === 'State')?.at : undefined) ??
    null;
  const about = { recipe: recipe.name, headings, resultColumn, reasonColumn };
  if (resultColumn === null && reasonColumn === null)
    return { ...about, results: [], unclear: [], unnamed: givenOut.map(({ id }) => id) };

  const changeOf = changeFinder(givenOut, recipe, columns);
  const said = new Map<number, { failed: string | null; line: number }>();
  const unclear: SheetResults['unclear'] = [];
  const contradicted = new Set<number>();
  for (const [at, row] of table.entries()) {
    if (at <= line || row.every((cell) => cell.trim() === '')) continue;
    const which = changeOf(row);
    if (typeof which === 'string') {
      unclear.push({ line: at + 1, why: which });
      continue;
    }
    const outcome = outcomeOf(row, resultColumn, reasonColumn);
    if (outcome === null) continue;
    if ('unclear' in outcome) {
      unclear.push({ line: at + 1, why: outcome.unclear });
      continue;
    }
    const before = said.get(which);
    if (before && (before.failed === null) !== (outcome.failed === null)) {
      contradicted.add(which);
      unclear.push({ line: at + 1, why: `line ${before.line} says otherwise of the same change` });
    } else said.set(which, { failed: outcome.failed, line: at + 1 });
  }
  for (const id of contradicted) said.delete(id);
  return {
    ...about,
    results: [...said].map(([id, { failed }]) => ({ id, failed })),
    unclear,
    unnamed: givenOut.flatMap(({ id }) => (said.has(id) ? [] : [id])),
  };
}

const NO_HEADINGS =
  'No line of the sheet has the headings of a sheet that was given out. Keep the header line, or save the columns as a recipe first.';

/** Headings under which what became of a change stands, and why. */
const RESULT = /\b(result|results|outcome|answer|status|state|done)\b/i;
const REASON = /\b(error|errors|reason|message|remark|note|notes|detail|details|comment)\b/i;

/** What a result cell says, by how it begins. */
const DONE =
  /^(ok|okay|yes|y|done|carried out|success|succeeded|successful|added|applied|made|created|removed|updated|changed|complete|completed|uploaded|accepted|true|no errors?|✓|1)\b|^✓/i;
const FAILED =
  /^(no|n|not|error|errors|failed|fail|failure|rejected|refused|invalid|denied|disapproved|skipped|duplicate|missing|unknown|could not|can not|cannot|false|✗|0)\b|^✗/i;

/** What a change that nobody has carried out yet is called in the column State. */
export const TO_DO = 'to do';
/** The same of one that somebody said to be done. */
export const SAID_DONE = 'said to be done';
/** What stands there while nobody has touched the row. */
const UNTOUCHED: ReadonlySet<string> = new Set([TO_DO, SAID_DONE]);

function outcomeOf(
  row: readonly string[],
  resultColumn: number | null,
  reasonColumn: number | null,
): { failed: string | null } | { unclear: string } | null {
  const cell = (at: number | null) => (at === null ? '' : (row[at] ?? '').replace(/\s+/g, ' ').trim());
  const [result, reason] = [cell(resultColumn), cell(reasonColumn)];
  if (UNTOUCHED.has(fold(result))) return null;
  if (resultColumn === null) return { failed: reason === '' || DONE.test(reason) ? null : reason };
  if (DONE.test(result)) return { failed: null };
  if (FAILED.test(result)) return { failed: reason || result };
  if (result === '' && reason !== '') return { failed: reason };
  return {
    unclear: result === '' ? 'no result stands there' : `“${result}” says neither done nor failed`,
  };
}

function pick(at: number | null | undefined, headings: readonly string[]): number | null {
  return at !== null && at !== undefined && at >= 0 && at < headings.length ? at : null;
}

type Placed = { column: SheetColumn; at: number };

function findHeader(table: readonly (readonly string[])[], recipes: readonly SheetRecipe[]) {
  let best: { recipe: SheetRecipe; line: number; columns: Placed[] } | undefined;
  for (const recipe of recipes)
    for (const [line, row] of table.slice(0, HEADER_WITHIN).entries()) {
      const folded = row.map(fold);
      const columns = recipe.columns.flatMap(({ column, heading }): Placed[] => {
        const at = folded.indexOf(fold(heading));
        return at < 0 ? [] : [{ column, at }];
      });
      const share = ({ recipe: of, columns: found }: NonNullable<typeof best>) =>
        found.length / of.columns.length;
      const isBetter = !best || share({ recipe, line, columns }) > share(best);
      if (isBetter && columns.some(({ column }) => TELLING.has(column))) best = { recipe, line, columns };
    }
  return best;
}

const HEADER_WITHIN = 20;

/** The columns that tell changes apart. */
const TELLING: ReadonlySet<SheetColumn> = new Set<SheetColumn>([
  ...(['Change', 'Do', 'Place', 'Campaign', 'Ad group', 'List', 'Text', 'Match type', 'Keyword'] as const),
  ...(['Bid', 'Product code', 'Placement', 'In words'] as const),
]);

/** Which change a row is about; a sentence where that is not certain. */
function changeFinder(
  givenOut: readonly GivenOut[],
  recipe: SheetRecipe,
  columns: readonly Placed[],
): (row: readonly string[]) => number | string {
  const telling = columns.filter(({ column }) => TELLING.has(column) && column !== 'Change');
  const numbered = columns.find(({ column }) => column === 'Change');
  const ownOf = (cells: SheetCells) => layRow(cells, { ...recipe, columns: telling.map(named) });
  const inSheet = new Map(givenOut.map(({ id, cells }) => [id, ownOf(cells).map(toCompare)]));
  const byKey = group(inSheet, ([, cells]) => JSON.stringify(cells));
  return (row) => {
    const here = telling.map(({ column, at }) => toCompare(unworded(row[at] ?? '', recipe, column)));
    const number = numbered ? fold(row[numbered.at] ?? '') : '';
    if (number !== '') {
      const known = /^\d+(\.0+)?$/.test(number) ? inSheet.get(Number(number)) : undefined;
      if (!known) return `no change ${number} of this tray waits for a result`;
      const other = known.findIndex((cell, i) => cell !== here[i] && !isCut(telling[i]!.column));
      return other < 0
        ? Number(number)
        : `change ${number} has another ${telling[other]!.column.toLowerCase()} in this tray`;
    }
    const alike = byKey.get(JSON.stringify(here)) ?? [];
    if (alike.length === 1) return alike[0]![0];
    return alike.length === 0
      ? 'no change of this tray has these cells'
      : `${alike.length} changes of this tray have these cells; add the column Change to the recipe`;
  };
}

const named = ({ column }: Placed) => ({ column, heading: column });

/** Long words for people are for reading only: a sheet program may have cut or wrapped them. */
const isCut = (column: SheetColumn) => column === 'In words';

/** A cell under a heading of the recipe, as the recipe writes it: our own word stands for the person's. */
function unworded(cell: string, { words }: SheetRecipe, column: SheetColumn): string {
  const known = wordsOf(words, column);
  if (!known) return cell;
  const our = Object.keys(known).find((word) => fold(word) === fold(cell));
  return our === undefined ? cell : known[our]!;
}

/** A cell as it is compared: numbers by their worth, for a sheet program writes 0.50 as 0.5. */
function toCompare(cell: string | null): string {
  const text = fold(cell ?? '');
  return /^-?\d+([.,]\d+)?$/.test(text) ? String(Number(text.replace(',', '.'))) : text;
}
