import { STANDIN_LIMITS } from '../limits';
import { refuse, type AccountInWork, type ActionsFor, type Applied, type PlatformChangeOf } from './kind';
import { findList } from './list';

type Kind = 'hang list' | 'take down list';

export const hangingActions: ActionsFor<Kind> = {
  'hang list': (change, account) => setHung(change, account, true),
  'take down list': (change, account) => setHung(change, account, false),
};

async function setHung(
  { listId, campaignId }: PlatformChangeOf<Kind>,
  account: AccountInWork,
  isHung: boolean,
): Promise<Applied> {
  const list = await findList(account, listId);
  if (!list) return refuse('no such list', 'The list is not there, so it can not hang.');
  const { campaigns, hangings } = account.structure;
  if (campaignId !== null && !campaigns.some((c) => c.id === campaignId))
    return refuse('no such campaign', 'The campaign is not there.');
  const at = hangings.findIndex((h) => h.listId === list.id && h.campaignId === campaignId);
  if (isHung === at >= 0) return { id: null }; // it is so already
  const most = STANDIN_LIMITS.listsOnCampaign;
  if (isHung && campaignId !== null && hangings.filter((h) => h.campaignId === campaignId).length >= most)
    return refuse('too many lists', `A campaign takes ${most} lists, and this one has as many.`);
  const hanging: (typeof hangings)[number] = {
    ...{ listId: list.id, campaignId, status: isHung ? 'live' : 'removed' },
    since: isHung ? account.today : null,
  };
  if (isHung) hangings.push(hanging);
  else hangings.splice(at, 1);
  await account.put('hangings', hanging);
  return { id: null };
}
