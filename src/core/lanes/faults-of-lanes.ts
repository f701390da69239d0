import { compileGate } from '../gate';
import { normalise } from '../text';
import { compileLanes, type Entry, type Tier } from './tiers';

/** What is wrong with a lane plan. Tiers are named by their places, 0 first. */
export type LaneFault =
  /** an entry term without a word lets nothing in */
  | { fault: 'no word'; tier: number; entry: string }
  /** product codes are no words: no negative stops them */
  | { fault: 'product code'; tier: number; entry: string }
  /** every query that the entry term lets in lands in a later tier: the same entry term stands there, or one inside it */
  | { fault: 'taken later'; tier: number; entry: string; by: { tier: number; entry: string } }
  /** no query lands there: none of its entry terms lets one in */
  | { fault: 'unreachable'; tier: number };

/**
 * What a person is to be told of a lane plan (rules 10), tier by tier.
 * @param isCode whether a text is a product code of the account; where nothing is said, none is
 * @throws RangeError as `compileLanes` does
 * @example findLaneFaults([{ id: 'all', entryTerms: [] }, { id: 'makers', entryTerms: ['pellwright', 'smoker'] }, { id: 'best', entryTerms: ['smoker'] }]) // [{ fault: 'taken later', tier: 1, entry: 'smoker', by: { tier: 2, entry: 'smoker' } }]
 */
export function findLaneFaults(
  tiers: readonly Tier[],
  isCode: (text: string) => boolean = () => false,
): LaneFault[] {
  const { entries } = compileLanes(tiers);
  const gate = compileGate(entries);
  const faultOf = (entry: string, tier: number): LaneFault | null => {
    if (isCode(entry)) return { fault: 'product code', tier, entry };
    const text = normalise(entry);
    if (text === '') return { fault: 'no word', tier, entry };
    const { entryMatch: match = 'phrase' } = tiers[tier]!;
    const others = gate.stoppers(text).map((i) => entries[i]!);
    const by = others.findLast((other) => takesAll(other, { text, match, tier }));
    return by ? { fault: 'taken later', tier, entry, by: { tier: by.tier, entry: by.text } } : null;
  };
  return tiers.flatMap(({ entryTerms }, tier): LaneFault[] => {
    if (tier === 0) return [];
    const faults = entryTerms.flatMap((entry) => faultOf(entry, tier) ?? []);
    return faults.length < entryTerms.length ? faults : [...faults, { fault: 'unreachable', tier }];
  });
}

/** Whether a later entry term that stops another's text stops all that the other lets in. */
function takesAll(later: Entry, entry: Entry): boolean {
  return later.tier > entry.tier && (later.match === 'phrase' || entry.match === 'exact');
}
