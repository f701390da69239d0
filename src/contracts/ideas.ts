import * as v from 'valibot';

/** How an idea source is spoken to: keyword ideas of stems, completions, and candidates for negatives from a brief. */

const text = v.pipe(v.string(), v.minLength(1), v.maxLength(400));
const micros = v.pipe(v.number(), v.integer(), v.minValue(0));
const count = v.pipe(v.number(), v.integer(), v.minValue(0));

/** A keyword idea. A source may tell only between what and what the searches of a month lie. */
export const IdeaSchema = v.object({
  text,
  /** searches a month */
  volume: v.nullable(count),
  ...{ volumeFrom: v.nullable(count), volumeTo: v.nullable(count) },
  /** what a click is likely to cost; null where nobody bids */
  openingBidMicros: v.nullable(micros),
  /** how near it is to what was asked for, 0 to 1 */
  relatedness: v.pipe(v.number(), v.minValue(0), v.maxValue(1)),
});
export type Idea = v.InferOutput<typeof IdeaSchema>;

/** Stems are parted by commas. `after` is where the page before ended. */
export const IdeasQuerySchema = v.object({
  stems: v.pipe(v.string(), v.trim(), v.minLength(1, 'A stem is needed.'), v.maxLength(2_000)),
  location: v.optional(v.string()),
  language: v.optional(v.string(), 'en'),
  from: v.optional(v.picklist(['most related', 'least related']), 'most related'),
  after: v.optional(v.pipe(v.string(), v.digits(), v.transform(Number)), '0'),
});
export const IdeasAnswerSchema = v.object({
  ideas: v.array(IdeaSchema),
  /** how many there are in all */
  total: count,
  /** where the next page begins; null on the last one */
  next: v.nullable(v.string()),
});
export type IdeasAnswer = v.InferOutput<typeof IdeasAnswerSchema>;

export const CompletionsAnswerSchema = v.object({ completions: v.array(text) });

/** Locations and languages that the source knows. */
export const SourceAnswerSchema = v.object({ locations: v.array(text), languages: v.array(text) });

/** What candidates for negatives can be about. */
export const BRIEF_TOPICS = [
  'jobs and careers',
  'learning',
  'do it yourself',
  'free',
  'second hand',
  'media',
  'explicit',
  'countries not served',
  'other trades',
] as const;
export type BriefTopic = (typeof BRIEF_TOPICS)[number];

const line = v.pipe(v.string(), v.trim(), v.maxLength(1_000));
/** A business in its own words. */
export const BriefSchema = v.object({
  sells: v.pipe(line, v.minLength(1, 'Say what is sold.')),
  ...{ buyers: line, serves: line, doesNot: line, never: line },
  /** whatever else is to be known */
  more: v.pipe(v.string(), v.trim(), v.maxLength(5_000)),
  topics: v.pipe(v.array(v.picklist(BRIEF_TOPICS)), v.minLength(1, 'Choose a topic.')),
  /** how many candidates at most */
  most: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(500)),
});
export type Brief = v.InferOutput<typeof BriefSchema>;

/** `round` begins with 0; each further one asks for more of the same. */
export const BriefRequestSchema = v.object({
  brief: BriefSchema,
  round: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(50)),
});
/** A list as assistants write them: numbered, with headings, doubles and prose. */
export const BriefAnswerSchema = v.object({ text: v.string() });

/** What can be made to go wrong on the stand-in. */
export const SOURCE_FAULTS = ['asks to slow down', 'fails', 'hangs up', 'is slow'] as const;
export type SourceFault = (typeof SOURCE_FAULTS)[number];
export const SourceFaultsSchema = v.object({
  faults: v.array(
    v.object({
      fault: v.picklist(SOURCE_FAULTS),
      times: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(1_000)),
    }),
  ),
});
export type SourceFaults = v.InferOutput<typeof SourceFaultsSchema>;

/** What people search for, as the stand-in is seeded with it. */
export const VocabularySchema = v.object({
  phrases: v.array(
    v.object({
      text,
      /** searches a month */
      volume: count,
      openingBidMicros: v.nullable(micros),
      /** words that it means besides those it holds */
      means: v.array(v.string()),
    }),
  ),
  locations: v.array(text),
});
export type Vocabulary = v.InferOutput<typeof VocabularySchema>;
