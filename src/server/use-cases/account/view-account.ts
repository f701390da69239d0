import { productCodeTest } from '@/core';
import type { AccountView, CodesAnswer } from '@/contracts/account';
import { listMembers } from '../../repositories/account/members';
import { streamRawTerms } from '../../repositories/load/sort-terms-anew';
import { listConversionKinds } from '../../repositories/keyword-days';
import { loadOwnTargets } from '../../repositories/account/own-targets';
import { findDataDays } from '../../repositories/intake/reports';
import { loadMirror } from '../../repositories/structure/structure';
import type { Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { listAccountsOf } from './describe-account';
import { viewLookRules } from './look-rules';

const BY_NAME = new Intl.Collator('en', { numeric: true });

/** Settings, targets, people, and the accounts of who asks: what the Account screen shows. */
export async function viewAccount(deps: Deps, slug: string, personId: number): Promise<AccountView> {
  const account = await requireAccount(deps, slug);
  const targets = await loadOwnTargets(deps.db, account.id);
  const { campaigns, adGroups } = await loadMirror(deps.db, account.id);
  const targetOf = new Map(targets.campaigns.map((one) => [one.campaignId, one]));
  const nameOf = new Map(campaigns.map((c) => [c.id, c.name]));
  const isThere = ({ status }: { status: string }) => status !== 'removed';
  const { name, currency, steersBy, targetMicros, targetAcos, windowDays, lagDays } = account;
  const { defaultMatch, keeperConversions, productCodePattern, limits, platformAccountId, fileDays } =
    account;
  return {
    settings: {
      ...{ name, currency, steersBy, targetMicros, targetAcos, windowDays, lagDays },
      ...{ defaultMatch, keeperConversions, limits, platformAccountId, fileDays },
      logDays: account.logDays,
      promotionTolerance: account.promotionTolerance,
      productCodePattern: productCodePattern ?? '',
      ...{ brandWords: account.brandWords, conversionKinds: account.conversionKinds },
    },
    isRetired: account.isRetired,
    kindsThere: await listConversionKinds(deps.db, account.id),
    hasFigures: (await findDataDays(deps.db, account.id)) !== null,
    campaigns: campaigns
      .filter(isThere)
      .sort((a, b) => BY_NAME.compare(a.name, b.name))
      .map(({ id, name, status }) => ({
        ...{ id, name, status },
        targetMicros: targetOf.get(id)?.targetMicros ?? null,
        targetAcos: targetOf.get(id)?.targetAcos ?? null,
      })),
    productGroups: targets.productGroups,
    adGroups: adGroups
      .filter(isThere)
      .map(({ id, name, campaignId }) => ({ id, name, campaign: nameOf.get(campaignId) ?? '' }))
      .sort((a, b) => BY_NAME.compare(a.campaign, b.campaign) || BY_NAME.compare(a.name, b.name)),
    people: await listMembers(deps.db, account.id),
    secondLook: await viewLookRules(deps, account.id),
    accounts: await listAccountsOf(deps, personId),
  };
}

const MOST_SHOWN = 12;

/** Which search terms of all the data a pattern of product codes catches (rules 2.5). */
export async function findCodes(deps: Deps, slug: string, pattern: string): Promise<CodesAnswer> {
  const { id } = await requireAccount(deps, slug);
  const isCode = productCodeTest(pattern === '' ? null : pattern);
  const answer: CodesAnswer = { caught: 0, of: 0, first: [] };
  for await (const { raw } of streamRawTerms(deps.db, id)) {
    answer.of += 1;
    if (!isCode(raw)) continue;
    answer.caught += 1;
    if (answer.first.length < MOST_SHOWN) answer.first.push(raw);
  }
  return answer;
}
