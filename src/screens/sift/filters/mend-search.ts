import * as v from 'valibot';
import { FiltersSchema, RANKS, NGRAM_SIZES, SORTS } from '@/contracts/sift';
import { SHOWS } from '../sift-url';

/** A filter of the URL that makes no sense, and why. */
export type Mended = { name: string; value: string; why: string };

const SCHEMAS: Record<string, v.GenericSchema> = {
  ...FiltersSchema.entries,
  sort: v.picklist(SORTS),
  direction: v.picklist(['asc', 'desc']),
  n: v.picklist(NGRAM_SIZES),
  rank: v.picklist(RANKS),
  panel: v.picklist(['ngrams', 'themes']),
  show: v.picklist(SHOWS),
};

const WHY: Record<string, string> = {
  clicks: 'it must be a whole number from 0 to 1,000,000',
  days: 'it must be a whole number from 1 to 366, or two days, as in 2026-10-20~2026-11-18',
  region: 'it must be clicks and conversions from-to, as in 10-40,0-1',
  holding: 'it is longer than 200 characters',
  text: 'it is longer than 200 characters',
};

/**
 * The parts of a search that Sift does not understand: from an older or a hand-made address. What it does not know by
 * name is none of its business.
 * @param campaigns ids that the account has; undefined while they are not known yet
 * @example mendSearch(new URLSearchParams('clicks=many')).map((m) => m.name) // ['clicks']
 */
export function mendSearch(search: URLSearchParams, campaigns?: ReadonlySet<string>): Mended[] {
  return [...search].flatMap(([name, value]): Mended[] => {
    const schema = SCHEMAS[name];
    if (!schema) return [];
    if (name === 'campaign' && value !== '' && campaigns && !campaigns.has(value))
      return [{ name, value, why: 'this account has no such campaign' }];
    if (v.is(schema, value)) return [];
    const options = 'wrapped' in schema ? schema.wrapped : schema;
    const known = (options as { options?: readonly string[] }).options;
    return [{ name, value, why: WHY[name] ?? `it must be one of ${known?.join(', ') ?? 'those offered'}` }];
  });
}
