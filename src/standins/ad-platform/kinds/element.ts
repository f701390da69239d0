import { normalise } from '@/core';
import type { Structure } from '@/contracts/platform';
import { refuse, take, type AccountInWork, type ActionsFor, type PlatformChangeOf } from './kind';

type Kind =
  'add campaign' | 'remove campaign' | 'add ad group' | 'remove ad group' | 'add keyword' | 'remove keyword';

/** Campaigns, ad groups and keywords that are named by their names. */
export const elementActions: ActionsFor<Kind> = {
  async 'add campaign'({ name, budgetMicros }, account) {
    if (name.trim() === '') return refuse('no name', 'A campaign needs a name.');
    if (findCampaign(account, name)) return refuse('name taken', `There is a campaign ${name} already.`);
    const campaign: Structure['campaigns'][number] = {
      ...{ id: account.newId('NC'), name, status: 'paused', channel: 'search', budgetMicros },
      ...{ location: [], audience: [], device: [], language: [] },
      ...{ sharedBudget: null, endDate: null, labels: [], priority: null },
    };
    account.structure.campaigns.push(campaign);
    await account.put('campaigns', campaign);
    return { id: campaign.id };
  },

  async 'remove campaign'({ name }, account) {
    const campaign = findCampaign(account, name);
    if (!campaign) return refuse('not there', `There is no campaign ${name}.`);
    if (account.structure.adGroups.some((g) => g.campaignId === campaign.id))
      return refuse('not empty', `${name} holds ad groups. Remove them first.`);
    take(account.structure.campaigns, campaign);
    await account.put('campaigns', { ...campaign, status: 'removed' });
    return { id: campaign.id };
  },

  async 'add ad group'({ campaign, name }, account) {
    const of = findCampaign(account, campaign);
    if (!of) return refuse('no such place', `There is no campaign ${campaign}.`);
    if (name.trim() === '') return refuse('no name', 'An ad group needs a name.');
    if (findAdGroup(account, campaign, name))
      return refuse('name taken', `There is an ad group ${name} in ${campaign} already.`);
    const adGroup: Structure['adGroups'][number] = {
      ...{ id: account.newId('NG'), campaignId: of.id, name, status: 'live' },
    };
    account.structure.adGroups.push(adGroup);
    await account.put('adGroups', adGroup);
    return { id: adGroup.id };
  },

  async 'remove ad group'({ campaign, name }, account) {
    const adGroup = findAdGroup(account, campaign, name);
    if (!adGroup) return refuse('not there', `There is no ad group ${name} in ${campaign}.`);
    if (account.structure.keywords.some((k) => k.adGroupId === adGroup.id))
      return refuse('not empty', `${name} holds keywords. Remove them first.`);
    take(account.structure.adGroups, adGroup);
    await account.put('adGroups', { ...adGroup, status: 'removed' });
    return { id: adGroup.id };
  },

  async 'add keyword'(change, account) {
    const { campaign, adGroup, match, bidMicros } = change;
    const of = findAdGroup(account, campaign, adGroup);
    if (!of) return refuse('no such place', `There is no ad group ${adGroup} in ${campaign}.`);
    const text = normalise(change.text);
    if (text === '') return refuse('no word', 'A keyword needs a word.');
    if (findKeyword(account, change))
      return refuse('stands there', `“${text}” (${match}) is a keyword of ${adGroup} already.`);
    const keyword: Structure['keywords'][number] = {
      ...{ id: account.newId('NK'), adGroupId: of.id, text, match, status: 'live', bidMicros },
      changedOn: account.today,
    };
    account.structure.keywords.push(keyword);
    await account.put('keywords', keyword);
    return { id: keyword.id };
  },

  async 'remove keyword'(change, account) {
    const keyword = findKeyword(account, change);
    if (!keyword)
      return refuse('not there', `“${change.text}” (${change.match}) is no keyword of ${change.adGroup}.`);
    take(account.structure.keywords, keyword);
    await account.put('keywords', { ...keyword, status: 'removed' });
    return { id: keyword.id };
  },
};

const findCampaign = ({ structure }: AccountInWork, name: string) =>
  structure.campaigns.find((c) => c.name === name);

function findAdGroup(account: AccountInWork, campaign: string, name: string) {
  const of = findCampaign(account, campaign);
  return of && account.structure.adGroups.find((g) => g.campaignId === of.id && g.name === name);
}

function findKeyword(
  account: AccountInWork,
  { campaign, adGroup, text, match }: PlatformChangeOf<'add keyword' | 'remove keyword'>,
) {
  const of = findAdGroup(account, campaign, adGroup);
  const key = normalise(text);
  return (
    of &&
    account.structure.keywords.find(
      (k) => k.adGroupId === of.id && k.match === match && normalise(k.text) === key,
    )
  );
}
