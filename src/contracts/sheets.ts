import * as v from 'valibot';
import { SHEET_COLUMNS, WORDED_COLUMNS } from '@/core';
import { StoredNumberSchema } from './common';

const ownText = (most: number) => v.pipe(v.string(), v.trim(), v.maxLength(most));

/** How a person likes the sheets in which a tray is handed over. */
export const SheetRecipeSchema = v.object({
  name: v.pipe(ownText(60), v.minLength(1, 'Give the recipe a name.')),
  columns: v.pipe(
    v.array(v.object({ column: v.picklist(SHEET_COLUMNS), heading: ownText(80) })),
    v.minLength(1, 'Choose at least one column.'),
    v.maxLength(SHEET_COLUMNS.length),
  ),
  words: v.partial(v.object(v.entriesFromList(WORDED_COLUMNS, v.record(ownText(60), ownText(60))))),
  rowsPerFile: v.nullable(
    v.pipe(v.number(), v.integer(), v.minValue(1, 'A file holds at least one row.'), v.maxValue(1_000_000)),
  ),
});

export const SheetRecipesSchema = v.strictObject({
  /** by name; the usual one is not among them */
  recipes: v.array(v.strictObject({ ...SheetRecipeSchema.entries, id: v.number() })),
  /** the words that stand in columns that hold one of a few */
  words: v.strictObject(v.entriesFromList(WORDED_COLUMNS, v.array(v.string()))),
});
export type SheetRecipes = v.InferOutput<typeof SheetRecipesSchema>;
export type StoredSheetRecipe = SheetRecipes['recipes'][number];

/** The first rows of a sheet, with every column that it can have. */
export const SheetRowsSchema = v.strictObject({
  rows: v.array(v.partial(v.strictObject(v.entriesFromList(SHEET_COLUMNS, v.nullable(v.string()))))),
});

export const SheetQuerySchema = v.object({
  as: v.optional(v.picklist(['csv', 'xlsx'], 'A tray is saved as csv or xlsx.'), 'csv'),
  /** the id of a recipe; left out, all columns stand under their usual names */
  recipe: v.optional(v.pipe(v.string(), v.regex(/^\d{1,9}$/, 'This is no recipe.'), v.transform(Number))),
});

/** A file that came back, and the columns a person chose in it: numbers from 0. */
const columnOf = v.optional(
  v.pipe(v.string(), v.regex(/^\d{1,4}$/, 'This is no column.'), v.transform(Number)),
);
export const ReadResultsQuerySchema = v.object({ result: columnOf, reason: columnOf });

/** What a result sheet says, to be looked at before anything is stored. */
export const ResultsReadSchema = v.strictObject({
  ...{ recipe: v.string(), headings: v.array(v.string()) },
  ...{ resultColumn: v.nullable(v.number()), reasonColumn: v.nullable(v.number()) },
  results: v.array(v.strictObject({ id: v.number(), said: v.string(), failed: v.nullable(v.string()) })),
  /** lines from 1 */
  unclear: v.array(v.strictObject({ line: v.number(), why: v.string() })),
  /** changes of which it says nothing */
  unnamed: v.array(v.strictObject({ id: v.number(), said: v.string() })),
});
export type ResultsRead = v.InferOutput<typeof ResultsReadSchema>;

/** What became of the changes of a tray that was handed over. The others go on waiting. */
export const ResultsSchema = v.object({
  results: v.pipe(
    v.array(
      v.object({
        id: StoredNumberSchema,
        /** why it could not be carried out; null where it was */
        failed: v.nullable(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(500))),
      }),
    ),
    v.minLength(1, 'The sheet says nothing of any change.'),
    v.maxLength(100_000),
  ),
});
/** A change, and what it was before. */
const WasBeforeSchema = v.object({ id: StoredNumberSchema, was: v.picklist(['drafted', 'said']) });
export const ResultsStoredSchema = v.strictObject({
  ...{ done: v.number(), failed: v.number(), waiting: v.number() },
  was: v.array(WasBeforeSchema),
});
/** What is to be again as it was before a result sheet was stored. */
export const ResultsBackSchema = v.object({
  was: v.pipe(v.array(WasBeforeSchema), v.minLength(1), v.maxLength(100_000)),
});
