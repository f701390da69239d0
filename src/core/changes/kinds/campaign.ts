import { formatAmount } from '../../figures';
import { GONE } from '../names';
import type { RulesFor } from './kind';

/** A campaign's budget of a day. It stops no query. */
export const campaignRules: RulesFor<'set budget'> = {
  'set budget': {
    does: 'neither',
    key: ({ campaignId }) => `budget|${campaignId}`,
    inverse: (change) => ({ ...change, budgetMicros: change.wasMicros, wasMicros: change.budgetMicros }),
    value: ({ budgetMicros }) => String(budgetMicros),
    say: ({ campaignId, budgetMicros, wasMicros }, names) =>
      `Budget ${formatAmount(budgetMicros, names.currency)} a day (was ${formatAmount(wasMicros, names.currency)}) for campaign ${names.campaign(campaignId) ?? GONE}`,
  },
};
