import { compileGate, type MatchType, type Place } from '../gate';
import type { Change } from './change';
import { proposePullOuts } from './pull-out';

/**
 * A way to let through what a negative must not stop.
 * - longer: longer phrases and whole texts in its place
 * - narrower: the same words in a narrower match type
 * - taken down: its list no longer hangs on the one campaign
 * - removed: nothing in its place
 * - paused: the keyword gives way
 */
export type Mend = {
  how: 'longer' | 'narrower' | 'taken down' | 'removed' | 'paused';
  changes: Change[];
};

export type MendsQuestion = {
  negative: { text: string; match: MatchType; place: Place };
  /** texts that have to pass and that it stops, the one that matters most first */
  passing: readonly string[];
  /** other texts that it stops, with what they cost without return, micro-units */
  others: readonly { text: string; costMicros: number }[];
  /** texts that nothing put in its place may stop */
  open: readonly string[];
  /** the keyword that can be paused instead; null where there is none */
  keywordId: string | null;
  /** the campaign from which its list can be taken down alone; null where it hangs on none by itself */
  campaignId: string | null;
};

/**
 * The mends of a conflict (rules 4.2). Longer and narrower ones are offered where they let all of the texts pass.
 * @throws RangeError when there is nothing that has to pass, or the negative does not stop it
 * @example proposeMends({ negative: { text: 'free', match: 'phrase', place: { kind: 'account', id: null } }, passing: ['free delivery'], others: [], open: [], keywordId: null, campaignId: null }).map(({ how }) => how) // ['removed']
 */
export function proposeMends(question: MendsQuestion): Mend[] {
  const { negative, passing, others, open, keywordId, campaignId } = question;
  const [query, ...more] = passing;
  if (query === undefined) throw new RangeError('a mend needs a text that has to pass; got none');
  const { place, text, match } = negative;
  const remove: Change = { kind: 'remove negative', text, match, place };
  const ways = proposePullOuts({ negative, query, others, open: [...more, ...open] });
  const mends = ways.flatMap(({ how, negatives }): Mend[] => {
    const gate = compileGate(negatives);
    if (how === 'narrower' && more.some((one) => gate.isStopped(one))) return [];
    const instead = negatives.map((one): Change => ({ kind: 'add negative', ...one, place }));
    return [{ how: how === 'none' ? 'removed' : how, changes: [...instead, remove] }];
  });
  if (place.kind === 'list' && campaignId !== null)
    mends.push({ how: 'taken down', changes: [{ kind: 'take down list', listId: place.id!, campaignId }] });
  if (keywordId !== null) mends.push({ how: 'paused', changes: [{ kind: 'pause keyword', keywordId }] });
  const order: Mend['how'][] = ['longer', 'narrower', 'taken down', 'removed', 'paused'];
  return mends.sort((a, b) => order.indexOf(a.how) - order.indexOf(b.how));
}
