import type { MatchType, PlacedNegative } from '../gate';
import { normalise } from '../text';
import type { EntryTerm, Lanes } from './tiers';

/** How the account stands, tier by tier. */
export type LanesGround = {
  /** the negatives in force in a tier that stop a query */
  stoppers(tier: number, query: string): readonly PlacedNegative[];
  /** why the tier of a query could not serve it on the days of the leak; null where it could */
  idle(tier: number, query: string): 'paused' | 'ran dry' | null;
};

/** Why a query was served by another tier than the plan says, and what mends it. Tiers are known by their numbers, 0 first. */
export type LeakCause =
  /** an entry term stops nothing in tiers that come before its own: it is missing there as a negative */
  | { cause: 'negative missing'; entryTerm: EntryTerm; tiers: number[] }
  /** negatives in the query's own tier, which the plan does not ask for, stop it there */
  | { cause: 'negative in the way'; negativeIds: string[] }
  /** all tiers before the one that served it stop it by one text, as if that were an entry term; the plan does not know it */
  | { cause: 'entry term missing'; entryTerm: { text: string; match: MatchType }; tier: number }
  | { cause: 'paused' | 'ran dry' }
  /** what let it pass is mended by now */
  | { cause: 'mended' }
  /** its own tier could have served it as well, and did not: it holds no keyword for it, or was outbid */
  | { cause: 'not taken' };

/** Tells why one query is a leak; null where its own tier served it. @param served the number of the tier that did */
export type ExplainLeak = (query: string, served: number) => LeakCause | null;

/**
 * Compiles what tells of queries why another tier served them than the plan says (rules 10).
 * @example compileLeaks(compileLanes([{ id: 'all', entryTerms: [] }, { id: 'makers', entryTerms: ['pellwright'] }]), { stoppers: () => [], idle: () => null })('pellwright smoker', 0) // { cause: 'negative missing', entryTerm: { text: 'pellwright', match: 'phrase', tier: 1 }, tiers: [0] }
 */
export function compileLeaks(lanes: Lanes, { stoppers, idle }: LanesGround): ExplainLeak {
  const needed = lanes.needs.map((needs) => new Set(needs.map(keyOf)));
  return (query, served) => {
    const entryTerm = lanes.entryTermOf(query);
    const own = entryTerm?.tier ?? 0;
    if (own === served) return null;
    const inTheWay = stoppers(own, query);
    if (served < own && entryTerm) {
      const open = tiersBefore(own).filter((tier) => stoppers(tier, query).length === 0);
      if (open.includes(served)) return { cause: 'negative missing', entryTerm, tiers: open };
    }
    if (inTheWay.length > 0) {
      const common = served > own ? commonStopper(query, served) : null;
      return common
        ? { cause: 'entry term missing', entryTerm: common, tier: served }
        : { cause: 'negative in the way', negativeIds: inTheWay.map(({ id }) => id) };
    }
    // It was asked before its own tier, and let the query in: by now it stops it.
    if (served < own) return { cause: 'mended' };
    const why = idle(own, query);
    if (why) return { cause: why };
    return { cause: stoppers(served, query).length > 0 ? 'mended' : 'not taken' };
  };

  /** What all tiers before one stop a query by, phrase or exact, though the plan does not say so: the longest text of them. */
  function commonStopper(query: string, served: number): { text: string; match: MatchType } | null {
    const [first, ...others] = tiersBefore(served).map((tier) =>
      stoppers(tier, query)
        .filter((negative) => negative.match !== 'broad' && !needed[tier]!.has(keyOf(negative)))
        .map(({ text, match }) => ({ text: normalise(text), match })),
    );
    const common = first!.filter((one) =>
      others.every((all) => all.some((other) => keyOf(other) === keyOf(one))),
    );
    return common.reduce<{ text: string; match: MatchType } | null>(
      (longest, one) => (longest && longest.text.length >= one.text.length ? longest : one),
      null,
    );
  }
}

const keyOf = ({ text, match }: { text: string; match: MatchType }) => `${match} ${normalise(text)}`;

const tiersBefore = (end: number) => Array.from({ length: end }, (_, i) => i);
