import { normalise, plainAmount, words, type Change, type ChangeOf } from '@/core';
import { derivedFrom } from '../../../compute/derived';
import type { Mirror } from '../../../repositories/structure/structure';
import type { Open } from '../../open-workbench';
import { isFound, type WorkFor } from './kind';

type Kind =
  'add campaign' | 'remove campaign' | 'add ad group' | 'remove ad group' | 'add keyword' | 'remove keyword';

/** What a platform takes of a keyword (rules 12). */
const MOST_WORDS = 10;
const MOST_CHARACTERS = 80;

/** New campaigns, ad groups and keywords; all are known by their names. */
export const elementWork: WorkFor<Kind> = {
  'add campaign': {
    isSoAlready: ({ name }, { snapshot }) =>
      findCampaign(snapshot.mirror, name) ? `There is a campaign ${name} already.` : undefined,
    translate: (change) => change,
    find: ({ name }, mirror) => isFound(findCampaign(mirror, name) !== undefined),
    sheet: {
      ...{ task: 'Add the campaign, paused', status: 'paused' },
      cells: ({ name, budgetMicros }, { account }) => ({
        ...{ Place: 'campaign', Campaign: name },
        'Daily budget': plainAmount(budgetMicros, account.currency),
      }),
    },
    shownBy: () => 'campaign',
  },
  'remove campaign': {
    isSoAlready: ({ name }, { snapshot }) =>
      findCampaign(snapshot.mirror, name) ? undefined : `There is no campaign ${name}.`,
    translate: (change) => change,
    find: ({ name }, mirror) => isFound(findCampaign(mirror, name) === undefined),
    sheet: {
      ...{ task: 'Remove the campaign', status: 'removed' },
      cells: ({ name }) => ({ Place: 'campaign', Campaign: name }),
    },
    shownBy: () => 'campaign',
  },
  'add ad group': {
    refuse: ({ campaign }, open) =>
      isThere(open, { campaign }) ? undefined : `There is no campaign ${campaign}.`,
    isSoAlready: (change, { snapshot }) =>
      findAdGroup(snapshot.mirror, change.campaign, change.name)
        ? `There is an ad group ${change.name} in ${change.campaign} already.`
        : undefined,
    translate: (change) => change,
    find: ({ campaign, name }, mirror) => isFound(findAdGroup(mirror, campaign, name) !== undefined),
    sheet: { task: 'Add the ad group', status: 'live', cells: cellsOfAdGroup },
    shownBy: () => 'ad group',
  },
  'remove ad group': {
    isSoAlready: (change, { snapshot }) =>
      findAdGroup(snapshot.mirror, change.campaign, change.name)
        ? undefined
        : `There is no ad group ${change.name} in ${change.campaign}.`,
    translate: (change) => change,
    find: ({ campaign, name }, mirror) => isFound(findAdGroup(mirror, campaign, name) === undefined),
    sheet: { task: 'Remove the ad group', status: 'removed', cells: cellsOfAdGroup },
    shownBy: () => 'ad group',
  },
  'add keyword': {
    refuse({ campaign, adGroup, text }, open) {
      if (!isThere(open, { campaign, adGroup })) return `There is no ad group ${adGroup} in ${campaign}.`;
      return faultOfKeyword(text);
    },
    isSoAlready: (change, { snapshot }) =>
      findKeyword(snapshot.mirror, change)
        ? `“${change.text}” (${change.match}) is a keyword of ${change.adGroup} already.`
        : undefined,
    translate: (change) => change,
    find(change, mirror) {
      const found = findKeyword(mirror, change);
      if (!found) return 'missing';
      return found.bidMicros === null || found.bidMicros === change.bidMicros ? 'there' : 'different';
    },
    sheet: {
      ...{ task: 'Add the keyword', status: 'live' },
      cells: (change, open) => ({
        ...cellsOfKeyword(change),
        Bid: plainAmount(change.bidMicros, open.account.currency),
      }),
    },
    shownBy: () => 'keyword',
  },
  'remove keyword': {
    isSoAlready: (change, { snapshot }) =>
      findKeyword(snapshot.mirror, change)
        ? undefined
        : `“${change.text}” (${change.match}) is no keyword of ${change.adGroup}.`,
    translate: (change) => change,
    find: (change, mirror) => isFound(findKeyword(mirror, change) === undefined),
    sheet: { task: 'Remove the keyword', status: 'removed', cells: cellsOfKeyword },
    shownBy: () => 'keyword',
  },
};

/** Why no platform takes a text as a keyword; undefined where it does. */
export function faultOfKeyword(text: string): string | undefined {
  const count = words(text).length;
  if (count === 0) return `A keyword needs a word; “${text}” holds none.`;
  if (count > MOST_WORDS)
    return `A keyword may hold ${MOST_WORDS} words; “${text}” holds ${count}. Shorten it.`;
  const length = [...normalise(text)].length;
  return length > MOST_CHARACTERS
    ? `A keyword may hold ${MOST_CHARACTERS} characters; “${text}” holds ${length}. Shorten it.`
    : undefined;
}

function cellsOfAdGroup({ campaign, name }: ChangeOf<'add ad group' | 'remove ad group'>) {
  return { Place: 'ad group', Campaign: campaign, 'Ad group': name };
}

function cellsOfKeyword({ campaign, adGroup, text, match }: ChangeOf<'add keyword' | 'remove keyword'>) {
  return {
    ...cellsOfAdGroup({ kind: 'add ad group', campaign, name: adGroup }),
    Keyword: text,
    'Match type': match,
  };
}

/** Whether a campaign or an ad group is there, or will be once the tray is sent. */
function isThere({ snapshot, laid }: Open, { campaign, adGroup }: { campaign: string; adGroup?: string }) {
  if (adGroup === undefined) {
    const makes = (change: Change) => change.kind === 'add campaign' && change.name === campaign;
    return findCampaign(snapshot.mirror, campaign) !== undefined || laid.some(makes);
  }
  const makes = (change: Change) =>
    change.kind === 'add ad group' && change.name === adGroup && change.campaign === campaign;
  return findAdGroup(snapshot.mirror, campaign, adGroup) !== undefined || laid.some(makes);
}

/** The elements of a mirror that are not removed, by their names. */
const byName = derivedFrom((mirror: Mirror) => {
  const stands = ({ status }: { status: string }) => status !== 'removed';
  const campaigns = new Map(mirror.campaigns.filter(stands).map((c) => [c.name, c]));
  const adGroups = new Map(
    mirror.adGroups.filter(stands).map((g) => [JSON.stringify([g.campaignId, g.name]), g]),
  );
  const keywords = new Map(
    mirror.keywords.filter(stands).map((k) => [JSON.stringify([k.adGroupId, normalise(k.text), k.match]), k]),
  );
  return { campaigns, adGroups, keywords };
});

const findCampaign = (mirror: Mirror, name: string) => byName(mirror).campaigns.get(name);

function findAdGroup(mirror: Mirror, campaign: string, name: string) {
  const of = findCampaign(mirror, campaign);
  return of && byName(mirror).adGroups.get(JSON.stringify([of.id, name]));
}

function findKeyword(
  mirror: Mirror,
  { campaign, adGroup, text, match }: ChangeOf<'add keyword' | 'remove keyword'>,
) {
  const of = findAdGroup(mirror, campaign, adGroup);
  return of && byName(mirror).keywords.get(JSON.stringify([of.id, normalise(text), match]));
}
