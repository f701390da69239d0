import { sum } from 'd3';
import { formatAmount, PRIORITIES, type Change } from '@/core';
import type { ShownLanes } from '@/contracts/lanes';
import type { LanesInUse } from '../../compute/lanes/lanes-in-use';
import type { Campaign } from '../../repositories/structure/structure';
import type { Open } from '../open-workbench';

type Budgets = Pick<ShownLanes, 'budget' | 'sharing'> & { fault: string | null };

/** Whether all tiers pay out of one budget, and what makes them do so. */
export function budgetsOf(
  { account, laid }: Open,
  { name }: LanesInUse,
  campaigns: readonly Campaign[],
): Budgets {
  const names = new Set(campaigns.map(({ sharedBudget }) => sharedBudget));
  const [only] = names;
  if (names.size === 1 && only)
    return { budget: { name: only, micros: campaigns[0]!.budgetMicros }, sharing: [], fault: null };
  if (campaigns.every(({ budgetMicros }) => budgetMicros === null))
    return {
      ...{ budget: null, sharing: [] },
      fault: 'Nothing says what its campaigns may cost a day, so that nobody knows whether one runs dry.',
    };
  const own = campaigns.filter(({ sharedBudget }) => sharedBudget === null);
  const shared = [...names].filter((one) => one !== null);
  const isOneBudget = shared.length <= 1 && own.every(({ budgetMicros }) => budgetMicros !== null);
  const fault = 'Its tiers do not pay out of one budget: one can run dry, and its queries fall elsewhere.';
  if (!isOneBudget) return { budget: null, sharing: [], fault };
  const sharing = own.filter(({ id }) => !laid.some((c) => c.kind === 'share budget' && c.campaignId === id));
  const [budget] = shared;
  const sharers = campaigns.filter(({ sharedBudget }) => sharedBudget !== null);
  const budgetMicros = sharers[0]?.budgetMicros ?? sum(own, (one) => one.budgetMicros ?? 0);
  return {
    budget: null,
    sharing: sharing.map((one): Change => ({
      ...{ kind: 'share budget', campaignId: one.id, budget: budget ?? name },
      ...{ budgetMicros, ownMicros: one.budgetMicros! },
    })),
    fault:
      sharing.length > 0
        ? `${fault} Together they may cost ${formatAmount(budgetMicros, account.currency)} a day.`
        : null,
  };
}

/** Whether campaigns are asked in the order of the tiers, and what makes them be. */
export function orderOf(
  { laid }: Open,
  { tiers, by }: LanesInUse,
  campaignsOf: (tier: number) => readonly Campaign[],
): { faults: string[]; ordering: Change[] } {
  if (by === 'match type') return { faults: [], ordering: [] };
  const all = tiers.map((_, tier) => campaignsOf(tier));
  if (all.flat().every(({ priority }) => priority === null))
    return {
      ordering: [],
      faults: [
        'Its campaigns have no priority: a later tier also gets what its keywords match without an entry term.',
      ],
    };
  if (tiers.length > PRIORITIES.length)
    return {
      ordering: [],
      faults: [`Campaigns are asked in ${PRIORITIES.length} steps, and the plan has ${tiers.length} tiers.`],
    };
  const wanted = wantedPriorities(tiers.length);
  const ordering = all.flatMap((campaigns, tier) =>
    campaigns.flatMap(({ id, priority }): Change[] =>
      priority === null ||
      priority === wanted[tier] ||
      laid.some((c) => c.kind === 'set priority' && c.campaignId === id)
        ? []
        : [{ kind: 'set priority', campaignId: id, priority: wanted[tier]!, was: priority }],
    ),
  );
  const none = all.flat().filter(({ priority }) => priority === null);
  return {
    ordering,
    faults: [
      ...(ordering.length > 0 ? ['Its campaigns are not asked in the order of the tiers.'] : []),
      ...none.map(({ name }) => `${name} has no priority, so that it is always asked.`),
    ],
  };
}

/** Two tiers are the first and the last step. */
function wantedPriorities(tiers: number) {
  return tiers === 2 ? [PRIORITIES[0], PRIORITIES[2]] : [...PRIORITIES];
}
