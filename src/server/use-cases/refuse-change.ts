import {
  checkNegative,
  cleanPlacement,
  isHungOn,
  isNewListId,
  listOf,
  nameKeyword,
  productCodeTest,
  type Change,
  type Place,
} from '@/core';
import { NOT_GIVEN } from '@/contracts/common';
import { findList, knownLists } from './lists/known-lists';
import type { Open } from './open-workbench';

const UUID = /^[\da-f]{8}(-[\da-f]{4}){3}-[\da-f]{12}$/;

/** A list's id while it is in the tray carries the key of the change that makes it. */
export function keyOfNewList(listId: string): string {
  return listId.slice('new:'.length);
}

/** Whether a place is one that a report did not name: nobody can stop anything there. */
export function isNotGiven({ snapshot }: Pick<Open, 'snapshot'>, { kind, id }: Place): boolean {
  const adGroup = kind === 'adGroup' ? snapshot.adGroup.get(id!) : undefined;
  if (adGroup?.name === NOT_GIVEN) return true;
  const campaign = kind === 'campaign' ? id : adGroup?.campaignId;
  return snapshot.campaign.get(campaign ?? '')?.name === NOT_GIVEN;
}

const sayNotGiven = (kind: Place['kind']) =>
  `The report does not name this ${kind === 'campaign' ? 'campaign' : 'ad group'}, so nothing can be stopped there. Choose a wider place, or bring a report that names it.`;

/** Why a change can not be asked of the platform at all. */
export function refuse(open: Open, change: Change): string | undefined {
  const { account, snapshot, names } = open;
  const listId = listOf(change);
  const list = listId === undefined ? undefined : findList(open, listId);
  if (listId !== undefined && !list && change.kind !== 'make list') return 'This list is not there any more.';
  switch (change.kind) {
    case 'add negative': {
      const isCode = productCodeTest(account.productCodePattern);
      const refusal = checkNegative(change, account.limits, isCode);
      if (refusal) return refusal.message;
      const { kind, id } = change.place;
      if (kind === 'campaign' && !snapshot.campaign.has(id!)) return 'This campaign is not there any more.';
      if (kind === 'adGroup' && !snapshot.adGroup.has(id!)) return 'This ad group is not there any more.';
      if (isNotGiven(open, change.place)) return sayNotGiven(kind);
      return list?.holds === 'placements'
        ? `${list.name} holds placements, so no negative can stand in it.`
        : undefined;
    }
    case 'make list': {
      if (!isNewListId(change.listId) || !UUID.test(keyOfNewList(change.listId)))
        return 'A new list needs an id of its own.';
      return refuseName(open, change.name);
    }
    case 'rename list': {
      if (list!.isNew)
        return 'This list is not made yet: take it out of the tray and make it under its name.';
      if (list!.name !== change.was)
        return `This list is called ${list!.name} by now. Nothing was changed: look again.`;
      return refuseName(open, change.name);
    }
    case 'add placement':
      if (list!.holds !== 'placements') return `${list!.name} holds words, so no placement can stand in it.`;
      return cleanPlacement(change.address) === change.address
        ? undefined
        : `“${change.address}” is no address of a site, an app or a channel.`;
    case 'hang list':
    case 'take down list':
      if (change.campaignId === null) return undefined;
      if (names.campaign(change.campaignId) === undefined) return 'This campaign is not there any more.';
      if (isNotGiven(open, { kind: 'campaign', id: change.campaignId })) return sayNotGiven('campaign');
      return open.draft.gate.hungOn(change.listId) === 'account'
        ? `${list!.name} hangs on the whole account, so it hangs on each campaign. Take it down there first.`
        : undefined;
    case 'remove list': {
      const { gate } = open.draft;
      const holds = gate.entriesAt({ kind: 'list', id: change.listId }).length;
      if (holds + gate.placementsIn(change.listId).length > 0)
        return `${change.name} still holds entries. Remove them first.`;
      return gate.hungOn(change.listId).length > 0
        ? `${change.name} still hangs on campaigns. Take it down first.`
        : undefined;
    }
    case 'remove placement':
    case 'remove negative':
    case 'readmit product':
      return undefined;
    case 'exclude product': {
      const isCode = productCodeTest(account.productCodePattern);
      if (!isCode(change.code)) return `“${change.code}” is no product code of this account.`;
      const { kind, id } = change.place;
      if (kind === 'campaign' && snapshot.campaign.has(id!)) return undefined;
      return kind === 'adGroup' && snapshot.adGroup.has(id!)
        ? undefined
        : 'A product is excluded in a campaign or an ad group, and this one is not there.';
    }
    case 'set bid': {
      const keyword = snapshot.keyword.get(change.keywordId);
      if (!keyword) return 'This keyword is not there any more.';
      return keyword.bidMicros === change.wasMicros
        ? undefined
        : `The bid of ${nameKeyword(keyword)} has changed meanwhile. Nothing was changed: look again.`;
    }
    case 'pause keyword':
    case 'run keyword':
      return snapshot.keyword.has(change.keywordId) ? undefined : 'This keyword is not there any more.';
  }
}

/** Why a change would change nothing, against the account as the draft leaves it. */
export function saysNothingNew({ draft, names, snapshot }: Open, change: Change): string | undefined {
  const { gate } = draft;
  switch (change.kind) {
    case 'add negative':
      return gate.holds(change, change.place)
        ? `“${change.text}” (${change.match}) stands there already.`
        : undefined;
    case 'remove negative':
      return gate.holds(change, change.place)
        ? undefined
        : `“${change.text}” (${change.match}) does not stand there.`;
    case 'hang list':
    case 'take down list': {
      const hangs = isHungOn(gate.hungOn(change.listId), change.campaignId);
      if (hangs === (change.kind === 'take down list')) return undefined;
      return `${names.list(change.listId)} ${hangs ? 'hangs there already' : 'does not hang there'}.`;
    }
    case 'add placement':
    case 'remove placement':
      return gate.holdsPlacement(change.listId, change.address) === (change.kind === 'add placement')
        ? `${change.address} ${change.kind === 'add placement' ? 'stands there already' : 'does not stand there'}.`
        : undefined;
    case 'rename list':
      return change.name === change.was ? 'This is its name already.' : undefined;
    case 'make list':
    case 'remove list':
      return undefined;
    case 'exclude product':
    case 'readmit product':
      return gate.excludes(change.code, change.place) === (change.kind === 'exclude product')
        ? `${change.code} is ${change.kind === 'exclude product' ? 'excluded there already' : 'not excluded there'}.`
        : undefined;
    case 'set bid':
      return change.bidMicros === change.wasMicros ? 'This is the bid already.' : undefined;
    case 'pause keyword':
    case 'run keyword': {
      const wanted = change.kind === 'pause keyword' ? 'paused' : 'live';
      const { status } = snapshot.keyword.get(change.keywordId)!;
      return status === wanted ? `${names.keyword?.(change.keywordId)} is ${status} already.` : undefined;
    }
  }
}

function refuseName(open: Open, name: string): string | undefined {
  const renamed = open.drafted.flatMap(({ change }) => (change.kind === 'rename list' ? [change.name] : []));
  const taken = [...knownLists(open).map((l) => l.name), ...renamed];
  return taken.includes(name) ? `There is a list named ${name} already. Choose another name.` : undefined;
}
