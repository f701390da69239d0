import { compileGate, type NegativeText } from '../gate';
import { normalise } from '../text';

/** A tier of a lane plan. The first takes what no other takes, whatever its entry terms are. */
export type Tier = {
  id: string;
  /** what a query must hold, or say as a whole, to be let in */
  entryTerms: readonly string[];
  /** phrase: the query holds the entry term; exact: it says nothing else. Phrase where it is missing. */
  entryMatch?: 'phrase' | 'exact';
};

/** An entry term and the tier that it lets into, by its number in the plan. */
export type EntryTerm = NegativeText & { tier: number };

/** A lane plan, compiled for many queries. Tiers are known by their numbers, 0 first. */
export type Lanes = {
  /** the tier in which a query lands: the last whose entry terms let it in, or else the first */
  route(query: string): number;
  /** the entry term that lets a query into that tier; null where it lands in the first */
  entryTermOf(query: string): EntryTerm | null;
  /** for each tier the negatives that it needs: what lets into a later one, each text of a match type once */
  needs: readonly (readonly NegativeText[])[];
  /** entry terms of all tiers but the first, with single spaces and in small letters, tier by tier */
  entryTerms: readonly EntryTerm[];
};

/**
 * Compiles a lane plan (rules 10). Queries enter the tier that is asked first and does not stop them: with its needs in every tier, that is
 * the one that `route` names.
 * @throws RangeError for a plan without a tier, or with two of one id
 * @example compileLanes([{ id: 'all', entryTerms: [] }, { id: 'makers', entryTerms: ['Pellwright'] }]).entryTermOf('pellwright smoker') // { text: 'pellwright', match: 'phrase', tier: 1 }
 */
export function compileLanes(tiers: readonly Tier[]): Lanes {
  if (tiers.length === 0) throw new RangeError('a lane plan needs a tier');
  if (new Set(tiers.map(({ id }) => id)).size < tiers.length)
    throw new RangeError('each tier of a lane plan needs an id of its own');
  const entryTerms = tiers.flatMap((tier, number) => (number === 0 ? [] : entryTermsOf(tier, number)));
  const gate = compileGate(entryTerms);
  // Later tiers stand later among the entryTerms, and stoppers are ascending.
  const entryTermOf = (query: string) => entryTerms[gate.stoppers(query).at(-1) ?? -1] ?? null;
  return {
    entryTermOf,
    entryTerms,
    route: (query) => entryTermOf(query)?.tier ?? 0,
    needs: tiers.map((_, number) => eachOnce(entryTerms.filter(({ tier }) => tier > number))),
  };
}

function entryTermsOf({ entryTerms, entryMatch: match = 'phrase' }: Tier, tier: number): EntryTerm[] {
  return [...new Set(entryTerms.map(normalise))].map((text) => ({ text, match, tier }));
}

function eachOnce(entryTerms: readonly EntryTerm[]): NegativeText[] {
  const known = new Map(entryTerms.map(({ text, match }) => [`${match} ${text}`, { text, match }]));
  return [...known.values()].filter(({ text }) => text !== '');
}

/**
 * The texts of the negatives that each tier needs (rules 10), by the tier's id: the entry terms of all later ones, each stopped as the later
 * tier lets in, phrase or exact. The last tier needs none.
 * @example planLanes([{ id: 'all', entryTerms: [] }, { id: 'makers', entryTerms: ['pellwright'] }]) // { all: ['pellwright'], makers: [] }
 */
export function planLanes(tiers: readonly Tier[]): Record<string, string[]> {
  const { needs } = compileLanes(tiers);
  return Object.fromEntries(
    tiers.map(({ id }, number) => [id, [...new Set(needs[number]!.map(({ text }) => text))]]),
  );
}

/**
 * The id of the tier in which a query lands (rules 10). For many queries of one plan, `compileLanes`.
 * @example routeQuery([{ id: 'all', entryTerms: [] }, { id: 'makers', entryTerms: ['pellwright'] }], 'smoker by pellwright') // 'makers'
 */
export function routeQuery(tiers: readonly Tier[], query: string): string {
  return tiers[compileLanes(tiers).route(query)]!.id;
}
