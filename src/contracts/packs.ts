import * as v from 'valibot';

/** Starter packs: ready negatives by topic, as files that people read, change and share (packs/README.md). */

const text = v.pipe(v.string(), v.trim(), v.minLength(1, 'An entry needs a text.'), v.maxLength(80));
const match = v.picklist(['broad', 'phrase', 'exact']);

const PackEntrySchema = v.strictObject({
  text,
  /** other forms of its words, each a negative of its own */
  variants: v.optional(v.array(text), []),
  /** of this entry and its variants; the pack's unless given */
  match: v.optional(match),
});

export const PackSchema = v.strictObject({
  gatepost: v.literal('starter pack'),
  version: v.literal(1),
  name: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(60)),
  /** who asks so, in a sentence */
  about: v.pipe(v.string(), v.maxLength(300)),
  /** ISO 639-1 */
  language: v.pipe(v.string(), v.regex(/^[a-z]{2}$/u)),
  match,
  entries: v.pipe(v.array(PackEntrySchema), v.minLength(1, 'The pack holds no entry.'), v.maxLength(5_000)),
});
export type Pack = v.InferOutput<typeof PackSchema>;

/** What names a pack: one that ships by its name, one that somebody added by its number. */
export const PackKeySchema = v.pipe(
  v.string(),
  v.regex(/^(shipped:.{1,60}|own:\d{1,9})$/u, 'There is no such pack.'),
);

export const PacksViewSchema = v.strictObject({
  packs: v.array(
    v.strictObject({
      ...{ key: v.string(), name: v.string(), about: v.string() },
      /** entries, and the texts of them with their variants */
      ...{ entries: v.number(), texts: v.number() },
      /** who added it; null for one that ships */
      addedBy: v.nullable(v.string()),
    }),
  ),
});
/** The text of a file. */
export const NewPackSchema = v.strictObject({
  text: v.pipe(v.string(), v.maxLength(2_000_000, 'A pack has at most 2 MB.')),
});
export const PackAddedSchema = v.strictObject({ key: v.string(), name: v.string() });
export const PackQuerySchema = v.object({ pack: PackKeySchema });
