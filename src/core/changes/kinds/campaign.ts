import { formatAmount } from '../../figures';
import type { ChangeOf } from '../change';
import { GONE, type Names } from '../names';
import type { KindRules, RulesFor } from './kind';

type Sharing = 'share budget' | 'leave budget';

const nameOf = (campaignId: string, names: Names) => names.campaign(campaignId) ?? GONE;

const sharing = {
  does: 'neither',
  key: ({ campaignId }) => `sharing|${campaignId}`,
  value: ({ budget, budgetMicros, ownMicros }) => JSON.stringify([budget, budgetMicros, ownMicros]),
} satisfies Partial<KindRules<ChangeOf<Sharing>>>;

/** What a campaign may cost a day, and how early it is asked. It stops no query. */
export const campaignRules: RulesFor<'set budget' | 'set priority' | Sharing> = {
  'set budget': {
    does: 'neither',
    key: ({ campaignId }) => `budget|${campaignId}`,
    inverse: (change) => ({ ...change, budgetMicros: change.wasMicros, wasMicros: change.budgetMicros }),
    value: ({ budgetMicros }) => String(budgetMicros),
    say: ({ campaignId, budgetMicros, wasMicros }, names) =>
      `Budget ${formatAmount(budgetMicros, names.currency)} a day (was ${formatAmount(wasMicros, names.currency)}) for campaign ${nameOf(campaignId, names)}`,
  },
  'share budget': {
    ...sharing,
    inverse: (change) => ({ ...change, kind: 'leave budget' }),
    say: ({ campaignId, budget, budgetMicros, ownMicros }, names) =>
      `Pay campaign ${nameOf(campaignId, names)} out of the shared budget ${budget}, ${formatAmount(budgetMicros, names.currency)} a day (was ${formatAmount(ownMicros, names.currency)} of its own)`,
  },
  'leave budget': {
    ...sharing,
    inverse: (change) => ({ ...change, kind: 'share budget' }),
    say: ({ campaignId, budget, ownMicros }, names) =>
      `Pay campaign ${nameOf(campaignId, names)} out of a budget of its own, ${formatAmount(ownMicros, names.currency)} a day (was the shared budget ${budget})`,
  },
  'set priority': {
    does: 'neither',
    key: ({ campaignId }) => `priority|${campaignId}`,
    inverse: (change) => ({ ...change, priority: change.was, was: change.priority }),
    value: ({ priority }) => priority,
    say: ({ campaignId, priority, was }, names) =>
      `Priority ${priority} (was ${was}) for campaign ${nameOf(campaignId, names)}`,
  },
};
