import { counted, describePlace, type Change, type NegativeText, type Place, type Rule } from '@/core';
import { offersOf } from '../../compute/evidence/offers';
import { derivedFrom } from '../../compute/derived';
import type { StoredFinding } from '../../repositories/decisions/findings';
import type { Open } from '../open-workbench';

/** Negatives by the word at fault that offers them (rules 7.12, 7.14). */
const negativesOf = derivedFrom(
  (open: Open): ReadonlyMap<string, readonly NegativeText[]> =>
    new Map(offersOf(open, open.account).offered.map(({ word, negatives }) => [word.ngram, negatives])),
);

/** Whether a word that a rule found is still offered, and not stopped by now where the rule would. */
export const waitsForWord = (open: Open, rule: Rule, one: StoredFinding): boolean =>
  rule.then.do === 'tell' ? negativesOf(open).has(one.term) : changesOfWord(open, rule, one).length > 0;

/** What a yes to a word puts in the tray: its negatives in each place that does not hold them. */
export function changesOfWord(open: Open, rule: Rule, one: StoredFinding): Change[] {
  const negatives = negativesOf(open).get(one.term) ?? [];
  return placesFor(open, rule, one).flatMap((place) => {
    const there = new Set(open.draft.gate.entriesAt(place).map(({ text, match }) => `${match} ${text}`));
    return negatives
      .filter(({ text, match }) => !there.has(`${match} ${text}`))
      .map(({ text, match }): Change => ({ kind: 'add negative', text, match, place }));
  });
}

/** Where a word would be stopped, in words. */
export function sayWordStopped(open: Open, rule: Rule, one: StoredFinding): string {
  const [first, ...more] = placesFor(open, rule, one);
  if (first === undefined) return 'nowhere: the rule only tells';
  const negatives = negativesOf(open).get(one.term)?.length ?? 0;
  const around = negatives > 1 ? `, by ${counted(negatives, 'negative')} around what must stay open` : '';
  return `${describePlace(first, open.names)}${more.length === 0 ? '' : ` and ${more.length} more`}${around}`;
}

function placesFor(
  { snapshot: { adGroup, campaign } }: Open,
  { then }: Rule,
  { ranIn }: StoredFinding,
): Place[] {
  if (then.do === 'stop in list') return [{ kind: 'list', id: then.list }];
  if (then.do !== 'stop') return [];
  if (then.at === 'account') return [{ kind: 'account', id: null }];
  const there = ranIn.map(String).filter((id) => isLive(adGroup.get(id)));
  const campaigns = [...new Set(there.map((id) => adGroup.get(id)!.campaignId))].filter((id) =>
    isLive(campaign.get(id)),
  );
  if (then.at === 'campaign') return campaigns.map((id) => ({ kind: 'campaign', id }));
  return there
    .filter((id) => campaigns.includes(adGroup.get(id)!.campaignId))
    .map((id) => ({ kind: 'adGroup', id }));
}

/** Only live ad groups of live campaigns serve anything (rules 5.1). */
export const isLive = (one: { status: string } | undefined): boolean =>
  one?.status === 'live' || one?.status === 'unknown';
