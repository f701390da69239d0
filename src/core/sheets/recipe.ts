/** The columns that a sheet of changes can have, in their usual order, by their usual names. */
export const SHEET_COLUMNS = [
  ...['Change', 'Do', 'Status', 'Place', 'Campaign', 'Ad group', 'List', 'Text', 'Match type', 'Keyword'],
  ...['Bid', 'Daily budget', 'Shared budget', 'Priority', 'Product code', 'Placement'],
  ...['In words', 'Why', 'Put in by', 'State'],
] as const;
export type SheetColumn = (typeof SHEET_COLUMNS)[number];

/** What stands in a row of a sheet: a change, by the names that the platform shows. */
export type SheetCells = Partial<Record<SheetColumn, string | null>>;

/** The columns whose cells hold one of a few words, which a person may name otherwise. */
export const WORDED_COLUMNS = ['Do', 'Status', 'Place', 'Match type'] as const satisfies SheetColumn[];
export type WordedColumn = (typeof WORDED_COLUMNS)[number];

/** How a person likes a sheet. */
export type SheetRecipe = {
  name: string;
  /** the columns in their order, each under its heading */
  columns: { column: SheetColumn; heading: string }[];
  /** own words for our words, by column */
  words: Partial<Record<WordedColumn, Record<string, string>>>;
  /** rows of one file; null for one file with all of them */
  rowsPerFile: number | null;
};

export const USUAL_RECIPE: SheetRecipe = {
  name: 'as usual',
  columns: SHEET_COLUMNS.map((column) => ({ column, heading: column })),
  words: {},
  rowsPerFile: null,
};

/**
 * What makes a recipe unfit to be written and read back.
 * @returns a sentence; undefined where it is fit
 * @example faultOfRecipe({ name: 'mine', columns: [], words: {}, rowsPerFile: null }) // 'Choose at least one column.'
 */
export function faultOfRecipe({ columns, words }: SheetRecipe): string | undefined {
  if (columns.length === 0) return 'Choose at least one column.';
  const headings = new Set<string>();
  for (const { heading } of columns) {
    const key = fold(heading);
    if (key === '') return 'Each column needs a heading.';
    if (headings.has(key)) return `Two columns have the heading “${heading.trim()}”. Name one otherwise.`;
    headings.add(key);
  }
  for (const column of WORDED_COLUMNS) {
    const ours = new Map<string, string>();
    for (const [our, own] of Object.entries(words[column] ?? {})) {
      const twin = ours.get(fold(own));
      if (twin !== undefined)
        return `${column}: “${twin}” and “${our}” are both called “${own}”, so the sheet could not tell them apart.`;
      ours.set(fold(own), our);
    }
  }
  return undefined;
}

/**
 * The cells of one row in the order and the words of a recipe.
 * @example layRow({ Do: 'Add the negative', Text: 'free' }, { ...USUAL_RECIPE, columns: [{ column: 'Text', heading: 'Word' }] }) // ['free']
 */
export function layRow(cells: SheetCells, { columns, words }: SheetRecipe): (string | null)[] {
  return columns.map(({ column }) => {
    const cell = cells[column] ?? null;
    return cell === null ? null : (wordsOf(words, column)?.[cell] ?? cell);
  });
}

/** Own words for our words in a column; undefined where the recipe gives none. */
export function wordsOf(
  words: SheetRecipe['words'],
  column: SheetColumn,
): Readonly<Record<string, string>> | undefined {
  const found = (words as Partial<Record<SheetColumn, Readonly<Record<string, string>>>>)[column];
  return found && Object.hasOwn(words, column) ? found : undefined;
}

/**
 * A cell or a heading as it is compared: without spaces around, letters small, and without the apostrophe that keeps
 * a spreadsheet from taking text for a formula.
 * @example fold("'-free ") // '-free'
 */
export function fold(text: string): string {
  return text
    .replace(/^\s*'(?=\s*[=+\-@|])/, '')
    .replace(/\s+/g, ' ')
    .trim()
    .toLowerCase();
}
