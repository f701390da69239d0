import { group } from 'd3';
import { factsOfLists, type AccountGate, type TermFacts, type UnhungFacts } from '@/core';
import { isNotGiven } from '../serving';
import type { Snapshot } from '../snapshot';
import { campaignByAdGroup } from './rule-places';
import { queryTextOf, type TermsById } from './term-facts';

/** A shared list of words, on a campaign where it does not hang; `key` is how findings call both. */
export type ListOnCampaign = { key: string; listId: string; campaignId: string };

/** What lists would stop where they do not hang; `termId` of the facts is a place among `lists`. */
export type ListFacts = UnhungFacts & { lists: readonly ListOnCampaign[] };

/**
 * What the shared lists of words would stop on live campaigns where they do not hang.
 * @param facts of terms
 * @param gate what stops a term by now is not counted; null where it is, since it did run in the past
 */
export function listFactsOf(
  snapshot: Snapshot,
  { facts, terms, gate }: { facts: TermFacts; terms: TermsById; gate: AccountGate | null },
): ListFacts {
  const { mirror, campaign } = snapshot;
  const entriesOf = group(
    mirror.negatives.filter(({ place }) => place.kind === 'list'),
    ({ place }) => place.id!,
  );
  const lists = mirror.lists.filter(({ id, holds }) => holds === 'words' && entriesOf.has(id));
  const mayHang = (id: string) =>
    campaign.get(id)?.status === 'live' && !isNotGiven(snapshot, { kind: 'campaign', id });
  const campaignOf = campaignByAdGroup(snapshot);
  const found = factsOfLists(
    facts,
    lists.map(({ id, hungOn }) => ({
      entries: entriesOf.get(id)!,
      mayHangOn: (campaignId) =>
        hungOn !== 'account' && !hungOn.includes(String(campaignId)) && mayHang(String(campaignId)),
    })),
    {
      campaignOf: (adGroupId) => campaignOf.get(adGroupId),
      textOf: queryTextOf(terms),
      ...(gate && { isStopped: (text, adGroupId) => gate.stoppers(text, String(adGroupId)).length > 0 }),
    },
  );
  return {
    ...found,
    lists: found.unhung.map(({ list, campaignId }) => {
      const on = { listId: lists[list]!.id, campaignId: String(campaignId) };
      return { ...on, key: keyOf(on) };
    }),
  };
}

/** How findings call a list on a campaign. */
const keyOf = ({ listId, campaignId }: Omit<ListOnCampaign, 'key'>) => `${campaignId} ${listId}`;

/** The list and the campaign that a finding is about. */
export function listOnOf(key: string): Omit<ListOnCampaign, 'key'> {
  const at = key.indexOf(' ');
  return { campaignId: key.slice(0, at), listId: key.slice(at + 1) };
}
