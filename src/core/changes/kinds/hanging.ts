import { hangingPlace } from '../hanging';
import { GONE, type Names } from '../names';
import type { ChangeOf } from '../change';
import type { KindRules, RulesFor } from './kind';

type Kind = 'hang list' | 'take down list';

const both = {
  key: ({ listId, campaignId }) => `hanging|${listId}|${campaignId ?? 'account'}`,
  list: ({ listId }) => listId,
  place: ({ campaignId }) => hangingPlace(campaignId),
  rowsIn({ listId }, gate, place) {
    const entries = gate.entriesAt({ kind: 'list', id: listId });
    return [...new Set(entries.flatMap((entry) => gate.reached(entry, place)))].sort((a, b) => a - b);
  },
  restore({ listId, campaignId }, gate, account) {
    const hung =
      campaignId === null
        ? account.hungOn(listId) === 'account'
        : account.listsOn(campaignId).includes(listId);
    return hung ? gate.hang(listId, campaignId) : gate.takeDown(listId, campaignId);
  },
} satisfies Partial<KindRules<ChangeOf<Kind>>>;

/** A shared list on a campaign, or on the whole account. */
export const hangingRules: RulesFor<Kind> = {
  'hang list': {
    ...both,
    does: 'stops',
    inverse: (change) => ({ ...change, kind: 'take down list' }),
    say: ({ listId, campaignId }, names) =>
      `Hang ${names.list(listId) ?? GONE} on ${sayWhere(campaignId, names)}`,
    stopsIn: ({ campaignId }) => hangingPlace(campaignId),
    brings: ({ listId }, gate) => gate.entriesAt({ kind: 'list', id: listId }),
    apply: ({ listId, campaignId }, gate) => gate.hang(listId, campaignId),
    fills: ({ campaignId }, count, limits) =>
      campaignId === null
        ? undefined
        : {
            what: 'lists',
            place: hangingPlace(campaignId),
            ...{ used: count.listsOn(campaignId), most: limits.listsOnCampaign },
          },
  },
  'take down list': {
    ...both,
    does: 'opens',
    inverse: (change) => ({ ...change, kind: 'hang list' }),
    say: ({ listId, campaignId }, names) =>
      `Take ${names.list(listId) ?? GONE} down from ${sayWhere(campaignId, names)}`,
    apply: ({ listId, campaignId }, gate) => gate.takeDown(listId, campaignId),
  },
};

function sayWhere(campaignId: string | null, names: Names): string {
  return campaignId === null ? 'the whole account' : (names.campaign(campaignId) ?? GONE);
}
