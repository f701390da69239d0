import type { Structure } from '@/contracts/platform';
import { refuse, type AccountInWork, type ActionsFor, type Applied } from './kind';

type Campaign = Structure['campaigns'][number];

export const campaignActions: ActionsFor<'set budget' | 'share budget' | 'leave budget' | 'set priority'> = {
  'set budget': ({ campaignId, budgetMicros }, account) =>
    alter(campaignId, account, ({ sharedBudget }) =>
      sharedBudget === null
        ? { budgetMicros }
        : refuse('shared budget', `The campaign shares the budget ${sharedBudget} with others.`),
    ),

  'share budget': ({ campaignId, budget, budgetMicros }, account) =>
    alter(campaignId, account, ({ sharedBudget }) => {
      if (sharedBudget === budget) return refuse('stands there', `The campaign shares ${budget} already.`);
      const sharing = account.structure.campaigns.find((other) => other.sharedBudget === budget);
      return sharing && sharing.budgetMicros !== budgetMicros
        ? refuse('another amount', `There is a shared budget ${budget} of another amount.`)
        : { sharedBudget: budget, budgetMicros };
    }),

  'leave budget': ({ campaignId, budget, ownMicros }, account) =>
    alter(campaignId, account, ({ sharedBudget }) =>
      sharedBudget === budget
        ? { sharedBudget: null, budgetMicros: ownMicros }
        : refuse('not there', `The campaign does not share the budget ${budget}.`),
    ),

  'set priority': ({ campaignId, priority }, account) =>
    alter(campaignId, account, (campaign) =>
      campaign.priority === null
        ? refuse('no priority', 'The campaign is not asked by priority.')
        : { priority },
    ),
};

/** Makes a campaign another in some points, unless that is refused. */
async function alter(
  campaignId: string,
  account: AccountInWork,
  become: (campaign: Campaign) => Partial<Campaign> | Extract<Applied, { refused: string }>,
): Promise<Applied> {
  const campaign = account.structure.campaigns.find(({ id }) => id === campaignId);
  if (!campaign) return refuse('no such campaign', 'The campaign is not there.');
  const becomes = become(campaign);
  if ('refused' in becomes) return becomes;
  Object.assign(campaign, becomes);
  await account.put('campaigns', campaign);
  return { id: campaignId };
}
