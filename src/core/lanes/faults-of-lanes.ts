import { compileGate } from '../gate';
import { normalise } from '../text';
import { compileLanes, type EntryTerm, type Tier } from './tiers';

/** What is wrong with a lane plan. Tiers are known by their numbers, 0 first. */
export type LaneFault =
  /** an entry term without a word lets nothing in */
  | { fault: 'no word'; tier: number; entryTerm: string }
  /** product codes are no words: no negative stops them */
  | { fault: 'product code'; tier: number; entryTerm: string }
  /** every query that the entry term lets in lands in a later tier: the same entry term stands there, or one inside it */
  | { fault: 'taken later'; tier: number; entryTerm: string; by: { tier: number; entryTerm: string } }
  /** no query lands there: none of its entry terms lets one in */
  | { fault: 'unreachable'; tier: number };

/**
 * What a person is to be told of a lane plan (rules 10), tier by tier.
 * @param isCode whether a text is a product code of the account; where nothing is said, none is
 * @throws RangeError as `compileLanes` does
 * @example findLaneFaults([{ id: 'all', entryTerms: [] }, { id: 'makers', entryTerms: ['pellwright', 'smoker'] }, { id: 'best', entryTerms: ['smoker'] }]) // [{ fault: 'taken later', tier: 1, entryTerm: 'smoker', by: { tier: 2, entryTerm: 'smoker' } }]
 */
export function findLaneFaults(
  tiers: readonly Tier[],
  isCode: (text: string) => boolean = () => false,
): LaneFault[] {
  const { entryTerms: all } = compileLanes(tiers);
  const gate = compileGate(all);
  const faultOf = (entryTerm: string, tier: number): LaneFault | null => {
    if (isCode(entryTerm)) return { fault: 'product code', tier, entryTerm };
    const text = normalise(entryTerm);
    if (text === '') return { fault: 'no word', tier, entryTerm };
    const { entryMatch: match = 'phrase' } = tiers[tier]!;
    const others = gate.stoppers(text).map((i) => all[i]!);
    const by = others.findLast((other) => takesAll(other, { text, match, tier }));
    return by ? { fault: 'taken later', tier, entryTerm, by: { tier: by.tier, entryTerm: by.text } } : null;
  };
  return tiers.flatMap(({ entryTerms }, tier): LaneFault[] => {
    if (tier === 0) return [];
    const faults = entryTerms.flatMap((entryTerm) => faultOf(entryTerm, tier) ?? []);
    return faults.length < entryTerms.length ? faults : [...faults, { fault: 'unreachable', tier }];
  });
}

/** Whether a later entry term that stops another's text stops all that the other lets in. */
function takesAll(later: EntryTerm, entryTerm: EntryTerm): boolean {
  return later.tier > entryTerm.tier && (later.match === 'phrase' || entryTerm.match === 'exact');
}
