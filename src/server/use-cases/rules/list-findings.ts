import { isHungOn, type Change, type Rule } from '@/core';
import { listOnOf } from '../../compute/rules/list-facts';
import type { StoredFinding } from '../../repositories/decisions/findings';
import type { Open } from '../open-workbench';

/** Whether a list that a rule found is there and does not hang on its campaign, with the tray, and the campaign is still live. */
export function waitsForList({ snapshot, draft }: Open, { term: key }: StoredFinding): boolean {
  const { listId, campaignId } = listOnOf(key);
  if (snapshot.campaign.get(campaignId)?.status !== 'live') return false;
  const isThere = snapshot.mirror.lists.some(({ id }) => id === listId);
  const hungOn = draft.gate.hungOn(listId);
  return isThere && hungOn !== 'account' && !isHungOn(hungOn, campaignId);
}

/** A list that a rule found where it does not hang: what a yes puts in the tray, and what would become of it in words. */
export function ofList(
  open: Open,
  { then }: Rule,
  { term: key }: StoredFinding,
): { term: string; changes: Change[]; place: string } {
  const { listId, campaignId } = listOnOf(key);
  return {
    term: sayListOn(open, key),
    changes: then.do === 'hang' ? [{ kind: 'hang list', listId, campaignId }] : [],
    place: then.do === 'hang' ? `hung on ${open.names.campaign(campaignId)}` : 'nothing: the rule only tells',
  };
}

/** How findings call a list where it does not hang. */
export function sayListOn({ names }: Pick<Open, 'names'>, key: string): string {
  const { listId, campaignId } = listOnOf(key);
  const list = names.list(listId) ?? 'a list that is gone';
  return `${list} on ${names.campaign(campaignId) ?? 'a campaign that is gone'}`;
}
