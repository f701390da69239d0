import { plainAmount } from '@/core';
import type { WorkFor } from './kind';
import { cellsOfPlace } from './sheet-cells';

export const campaignWork: WorkFor<'set budget'> = {
  'set budget': {
    refuse({ campaignId, wasMicros }, { snapshot }) {
      const campaign = snapshot.campaign.get(campaignId);
      if (!campaign) return 'This campaign is not there any more.';
      const { name, sharedBudget, budgetMicros } = campaign;
      if (sharedBudget !== null)
        return `${name} shares the budget ${sharedBudget} with other campaigns: set it on the platform.`;
      return budgetMicros === wasMicros
        ? undefined
        : `The budget of ${name} has changed meanwhile. Nothing was changed: look again.`;
    },
    isSoAlready: ({ budgetMicros, wasMicros }) =>
      budgetMicros === wasMicros ? 'This is the budget already.' : undefined,
    sameInTray: 'A budget for this campaign is in the tray already',
    translate: ({ kind, campaignId, budgetMicros }, ids) => ({
      ...{ kind, campaignId: ids.campaign(campaignId), budgetMicros },
    }),
    find({ campaignId, budgetMicros, wasMicros }, { campaigns }) {
      const found = campaigns.find(({ id }) => id === campaignId)?.budgetMicros;
      if (found === budgetMicros) return 'there';
      return found === wasMicros ? 'missing' : 'different';
    },
    findOutside: ({ campaigns }, before, after) =>
      campaigns.flatMap(({ id }) => {
        const [was, is] = [before.campaigns.get(id), after.campaigns.get(id)];
        if (!was || !is || is.isShared || was.budgetMicros === is.budgetMicros) return [];
        if (was.budgetMicros === null || is.budgetMicros === null) return [];
        return [
          {
            ...{ kind: 'set budget', campaignId: is.id },
            ...{ budgetMicros: is.budgetMicros, wasMicros: was.budgetMicros },
          },
        ];
      }),
    sheet: {
      ...{ task: 'Set the budget of a day', status: 'live' },
      cells: ({ campaignId, budgetMicros }, open) => ({
        'Daily budget': plainAmount(budgetMicros, open.account.currency),
        ...cellsOfPlace(open, { kind: 'campaign', id: campaignId }),
      }),
    },
    shownBy: () => 'campaign',
  },
};
