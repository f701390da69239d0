import * as v from 'valibot';
import { BriefSchema } from './ideas';

/** Research: sheets of ideas that are read before they cost anything. */

export const SheetNameSchema = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'A sheet needs a name.'),
  v.maxLength(80, 'A name has at most 80 characters.'),
);

/** Ideas that a sheet holds at most, and that one gathering gives. */
export const MOST_IDEAS = 200_000;
/** Combinations that are made at once at most. */
export const MOST_COMBINATIONS = 20_000;

const stem = v.pipe(v.string(), v.trim(), v.minLength(1, 'A stem is needed.'), v.maxLength(80));
const most = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(5_000));

const AskIdeasSchema = v.strictObject({
  kind: v.literal('ideas'),
  stems: v.pipe(v.array(stem), v.minLength(1, 'A stem is needed.'), v.maxLength(20)),
  /** null for everywhere */
  location: v.nullable(v.string()),
  language: v.string(),
  from: v.picklist(['most related', 'least related']),
  most,
});
const AskCompletionsSchema = v.strictObject({
  kind: v.literal('completions'),
  stem,
  /** also with each letter of the alphabet before and after it */
  withLetters: v.boolean(),
});
const AskCombinationsSchema = v.strictObject({
  kind: v.literal('combinations'),
  columns: v.pipe(
    v.array(
      v.strictObject({
        words: v.pipe(v.array(v.pipe(v.string(), v.maxLength(80))), v.maxLength(1_000)),
        mayBeLeftOut: v.boolean(),
      }),
    ),
    v.minLength(1, 'A column is needed.'),
    v.maxLength(6, 'At most 6 columns.'),
  ),
  anyOrder: v.boolean(),
});
const AskPasteSchema = v.strictObject({ kind: v.literal('paste'), text: v.string() });
const AskFileSchema = v.strictObject({ kind: v.literal('file'), file: v.number() });
const AskBriefSchema = v.strictObject({
  kind: v.literal('brief'),
  brief: BriefSchema,
  round: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(50)),
});
const AskKeywordsSchema = v.strictObject({ kind: v.literal('keywords') });

/** Where ideas are to come from, and what is asked for there. */
export const GatherSchema = v.variant('kind', [
  AskIdeasSchema,
  AskCompletionsSchema,
  AskCombinationsSchema,
  AskPasteSchema,
  AskFileSchema,
  AskBriefSchema,
  AskKeywordsSchema,
]);
export type Gather = v.InferOutput<typeof GatherSchema>;
export type GatherOf<Kind extends Gather['kind']> = Extract<Gather, { kind: Kind }>;
