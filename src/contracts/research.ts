import * as v from 'valibot';
import { fewOf, MatchSchema, PlaceSchema, StoredNumberSchema, TouchedSchema, WeightSchema } from './common';
import { BriefSchema, SourceAnswerSchema } from './ideas';
import { NAME_KINDS } from './locations';
import { PackKeySchema } from './packs';

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
/** Characters of a paste at most. */
const MOST_PASTED = 20_000_000;
export const PastedSchema = v.pipe(
  v.string(),
  v.maxLength(
    MOST_PASTED,
    ({ received }) =>
      `A paste has at most 20 MB; this one has ${received} characters. Paste it in parts, or bring it to Intake as a file. Nothing was gathered.`,
  ),
);
const AskPasteSchema = v.strictObject({ kind: v.literal('paste'), text: PastedSchema });
const AskFileSchema = v.strictObject({ kind: v.literal('file'), file: StoredNumberSchema });
const AskBriefSchema = v.strictObject({
  kind: v.literal('brief'),
  brief: BriefSchema,
  round: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(50)),
});
const AskPackSchema = v.strictObject({ kind: v.literal('pack'), pack: PackKeySchema });
const AskKeywordsSchema = v.strictObject({ kind: v.literal('keywords') });

/** Where ideas are to come from, and what is asked for there. */
export const GatherSchema = v.variant('kind', [
  AskIdeasSchema,
  AskCompletionsSchema,
  AskCombinationsSchema,
  AskPasteSchema,
  AskFileSchema,
  AskBriefSchema,
  AskPackSchema,
  AskKeywordsSchema,
]);
export type Gather = v.InferOutput<typeof GatherSchema>;
export type GatherOf<Kind extends Gather['kind']> = Extract<Gather, { kind: Kind }>;

export const IDEA_STATES = ['open', 'stopped', 'kept', 'dropped', 'stopped already'] as const;
export type IdeaState = (typeof IDEA_STATES)[number];

export const REMAINDER_SORTS = ['ideas', 'searches', 'least related', 'at fault'] as const;

/** In the address a number is a text. */
export const whole = (otherwise: string) =>
  v.optional(v.pipe(v.string(), v.digits(), v.transform(Number)), otherwise);

const filters = {
  /** fewest searches a month; ideas of which nothing is known count as 0 */
  searches: whole('0'),
  /** words and runs, parted by commas */
  typed: v.optional(v.pipe(v.string(), v.maxLength(2_000)), ''),
  /** whether ideas that hold what is typed are left out, or alone are shown */
  holds: v.optional(v.picklist(['none', 'any']), 'none'),
  /** of one source alone */
  source: v.optional(v.pipe(v.string(), v.digits(), v.transform(Number))),
};
/** The filters but for the state. */
export const IDEA_FILTERS = filters;
/** Which ideas of a sheet are looked at. */
const inState = { ...filters, state: v.optional(v.picklist(IDEA_STATES), 'open') };
export const IdeaFiltersSchema = v.object(inState);
export type IdeaFilters = v.InferOutput<typeof IdeaFiltersSchema>;

/** Which of them, and by what. */
export const RemaindersQuerySchema = v.object({
  ...inState,
  sort: v.optional(v.picklist(REMAINDER_SORTS), 'ideas'),
  offset: whole('0'),
  most: whole('200'),
});
export type RemaindersQuery = v.InferOutput<typeof RemaindersQuerySchema>;

const RemainderLineSchema = v.strictObject({
  /** as it is written most */
  text: v.string(),
  /** all ways in which it is written, the most frequent first */
  forms: v.array(v.string()),
  ideas: v.number(),
  /** searches a month of all of them; null where nothing is known */
  volume: v.nullable(v.number()),
  /** the highest; null where nobody bids */
  openingBidMicros: v.nullable(v.number()),
  /** the mean, 0 to 1 */
  relatedness: v.nullable(v.number()),
  /** that it is at fault by the account's data (rules 7.12), 0 to 1; null where they say nothing */
  fault: v.nullable(v.number()),
  /** whether it names a location that is not served (rules 16.7), or perhaps one */
  location: v.nullable(v.picklist(NAME_KINDS)),
  /** the idea that holds it and is searched most */
  example: v.string(),
});
export type RemainderLine = v.InferOutput<typeof RemainderLineSchema>;

export const RemaindersPageSchema = v.strictObject({
  version: v.number(),
  /** ideas by what they are, under the same filters */
  counts: v.record(v.picklist(IDEA_STATES), v.number()),
  total: v.number(),
  /** ideas of which nothing is left without the stems */
  bare: v.number(),
  /** ready negatives that wait to be checked */
  candidates: v.number(),
  offset: v.number(),
  lines: v.array(RemainderLineSchema),
});
export type RemaindersPage = v.InferOutput<typeof RemaindersPageSchema>;

const SheetSchema = v.strictObject({
  ...{ id: v.number(), name: v.string(), stems: v.array(v.string()), struck: v.array(v.string()) },
  ...{ version: v.number(), ideasVersion: v.number(), madeBy: v.string(), madeAt: v.string() },
});
export const SheetsViewSchema = v.strictObject({ sheets: v.array(SheetSchema) });
export const NewSheetSchema = v.strictObject({ name: SheetNameSchema });
export const SheetMadeSchema = v.strictObject({ sheetId: v.number() });

const texts = v.pipe(
  v.array(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(80))),
  v.maxLength(1_000, 'At most 1,000 of them.'),
);
/** What is given is set; the other stays. */
export const SheetChangeSchema = v.strictObject({
  name: v.optional(SheetNameSchema),
  stems: v.optional(texts),
  struck: v.optional(texts),
});

/** Takes a source out of the sheet, or puts it back. */
export const SourceOutSchema = v.strictObject({ source: StoredNumberSchema, isOut: v.boolean() });

export const SheetViewSchema = v.strictObject({
  sheet: SheetSchema,
  sources: v.array(
    v.strictObject({
      ...{ id: v.number(), kind: v.string(), title: v.string(), asked: v.unknown() },
      ...{
        given: v.number(),
        added: v.number(),
        missing: v.nullable(v.string()),
        /** taken out of the sheet, with the ideas that no other source gave */
        isOut: v.boolean(),
        who: v.string(),
        at: v.string(),
      },
    }),
  ),
  /** words that most ideas hold, which are no stems yet */
  proposed: v.array(v.strictObject({ text: v.string(), ideas: v.number() })),
});
export type SheetView = v.InferOutput<typeof SheetViewSchema>;

/** Lines that are told of a paste at most; the others are counted. */
export const MOST_TOLD = 200;
export const GatheredSchema = v.strictObject({
  ...{ sourceId: v.number(), title: v.string(), given: v.number(), added: v.number() },
  missing: v.nullable(v.string()),
  /** how a text was cleaned, where one was read */
  lines: v.nullable(
    v.strictObject({
      ...{ cleaned: v.number(), refused: v.number(), twice: v.number() },
      firstCleaned: v.array(
        v.strictObject({ line: v.number(), raw: v.string(), became: v.array(v.string()) }),
      ),
      firstRefused: v.array(v.strictObject({ line: v.number(), raw: v.string(), reason: v.string() })),
    }),
  ),
});
export type GatheredAnswer = v.InferOutput<typeof GatheredSchema>;

export const DecideIdeasSchema = v.strictObject({
  /** ideas by their texts */
  keys: v.optional(v.pipe(v.array(v.string()), v.maxLength(MOST_IDEAS)), []),
  /** or all under the filters that hold one of some remainders */
  holding: v.optional(
    v.strictObject({
      remainders: v.pipe(v.array(v.string()), v.minLength(1), v.maxLength(1_000)),
      filters: IdeaFiltersSchema,
    }),
  ),
  verdict: v.nullable(v.picklist(['kept', 'dropped'])),
});
export const DecidedSchema = v.strictObject({
  was: v.array(
    v.strictObject({ verdict: v.nullable(v.picklist(['kept', 'dropped'])), keys: v.array(v.string()) }),
  ),
});
export const IdeaSourceViewSchema = SourceAnswerSchema;

/** Negatives that are chosen in a sheet: a remainder, in the forms in which it occurs. */
export const WeighSchema = v.strictObject({
  texts: v.pipe(v.array(v.string()), v.minLength(1), v.maxLength(1_000)),
  /** also the other forms of their words that occur in the sheet or the account (rules 8) */
  withForms: v.boolean(),
  match: MatchSchema,
  place: PlaceSchema,
});
export const WeighedSchema = v.strictObject({
  /** in the order asked, then other forms of their words; what each stops that no earlier one does */
  negatives: v.array(
    v.strictObject({
      text: v.string(),
      /** other than what was asked: another form of it */
      isForm: v.boolean(),
      /** open ideas of the sheet, and those that people keep */
      ...{ ideas: v.number(), kept: v.number() },
      /** in this account, wherever it ran: what it would have stopped in these days */
      weight: WeightSchema,
      /** why no platform takes it; null where it does */
      refusal: v.nullable(v.string()),
    }),
  ),
  /** of all of them together */
  ...{ keywords: TouchedSchema, protected: fewOf(v.string()) },
});
export type Weighed = v.InferOutput<typeof WeighedSchema>;

/** The ideas that hold a remainder, under the filters. */
export const HoldingQuerySchema = v.object({
  ...inState,
  remainder: v.pipe(v.string(), v.minLength(1)),
  most: whole('20'),
});
/** How many they are, and those of them that are searched most. */
export const HoldingSchema = fewOf(
  v.strictObject({
    ...{ key: v.string(), volume: v.nullable(v.number()) },
    /** its words, and whether each is of the remainder */
    words: v.array(v.strictObject({ text: v.string(), isChosen: v.boolean() })),
    sources: v.array(v.number()),
  }),
);
