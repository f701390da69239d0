import * as v from 'valibot';

/** Locations that are served, and those that the texts of a research sheet name. */

export const NAME_KINDS = ['not served', 'perhaps'] as const;
export type NameKind = (typeof NAME_KINDS)[number];

const said = v.picklist(['served', 'no location']);

export const SayLocationSchema = v.strictObject({
  text: v.pipe(v.string(), v.trim(), v.minLength(1, 'Name a place.'), v.maxLength(80)),
  /** null takes back what was said */
  said: v.nullable(said),
});
export const SaidLocationSchema = v.strictObject({ text: v.string(), was: v.nullable(said) });

export const LocationsViewSchema = v.strictObject({
  served: v.array(v.string()),
  /** names that are no location in this account */
  none: v.array(v.string()),
  /** names of locations that are not served, and how many ideas of the sheet hold each, most first */
  named: v.array(v.strictObject({ name: v.string(), kind: v.picklist(NAME_KINDS), ideas: v.number() })),
});
export type LocationsView = v.InferOutput<typeof LocationsViewSchema>;
