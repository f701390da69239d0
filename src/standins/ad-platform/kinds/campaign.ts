import { refuse, type ActionsFor } from './kind';

export const campaignActions: ActionsFor<'set budget'> = {
  async 'set budget'({ campaignId, budgetMicros }, account) {
    const campaign = account.structure.campaigns.find(({ id }) => id === campaignId);
    if (!campaign) return refuse('no such campaign', 'The campaign is not there.');
    if (campaign.sharedBudget !== null)
      return refuse('shared budget', `The campaign shares the budget ${campaign.sharedBudget} with others.`);
    Object.assign(campaign, { budgetMicros });
    await account.put('campaigns', campaign);
    return { id: campaignId };
  },
};
