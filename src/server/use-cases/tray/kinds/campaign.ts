import { formatAmount, plainAmount, type Change, type ChangeKind, type ChangeOf } from '@/core';
import type { Mirror } from '../../../repositories/structure/structure';
import type { Open } from '../../open-workbench';
import type { Found, KindWork, PlatformIds, WorkFor } from './kind';
import { cellsOfPlace } from './sheet-cells';

type Sharing = ChangeOf<'share budget' | 'leave budget'>;

const GONE = 'This campaign is not there any more.';
const changed = (what: string) => `${what} has changed meanwhile. Nothing was changed: look again.`;

/** No structure file says anything of budgets and priorities. */
const shownBy = () => null;
const sameInTray = 'A budget for this campaign is in the tray already';
const IN_TRAY = `${sameInTray}: send that, or take it out first.`;

export const campaignWork: WorkFor<'set budget' | 'share budget' | 'leave budget' | 'set priority'> = {
  'set budget': {
    refuse({ campaignId, wasMicros }, open) {
      const campaign = open.snapshot.campaign.get(campaignId);
      if (!campaign) return GONE;
      const { name, sharedBudget, budgetMicros } = campaign;
      if (sharedBudget !== null)
        return `${name} shares the budget ${sharedBudget} with other campaigns: set it on the platform.`;
      if (budgetMicros !== wasMicros) return changed(`The budget of ${name}`);
      return isInTray(campaignId, ['share budget', 'leave budget'], open) ? IN_TRAY : undefined;
    },
    isSoAlready: ({ budgetMicros, wasMicros }) =>
      budgetMicros === wasMicros ? 'This is the budget already.' : undefined,
    sameInTray,
    translate: ({ kind, campaignId, budgetMicros }, ids) => ({
      ...{ kind, campaignId: ids.campaign(campaignId), budgetMicros },
    }),
    find: ({ campaignId, budgetMicros, wasMicros }, mirror) =>
      which(campaignIn(mirror, campaignId)?.budgetMicros, budgetMicros, wasMicros),
    findOutside: ({ campaigns }, before, after) =>
      campaigns.flatMap(({ id }) => {
        const [was, is] = [before.campaigns.get(id), after.campaigns.get(id)];
        if (!was || !is || was.sharedBudget !== null || is.sharedBudget !== null) return [];
        if (was.budgetMicros === is.budgetMicros || was.budgetMicros === null || is.budgetMicros === null)
          return [];
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
    shownBy,
  },
  'share budget': {
    refuse({ campaignId, budget, budgetMicros, ownMicros }, open) {
      const { account, snapshot } = open;
      const campaign = snapshot.campaign.get(campaignId);
      if (!campaign) return GONE;
      if (campaign.sharedBudget !== null)
        return `${campaign.name} shares the budget ${campaign.sharedBudget} with other campaigns: take it out of that first.`;
      if (campaign.budgetMicros !== ownMicros) return changed(`The budget of ${campaign.name}`);
      if (isInTray(campaignId, ['set budget'], open)) return IN_TRAY;
      const amount = amountOf(budget, open);
      return amount === null || amount === budgetMicros
        ? undefined
        : `The shared budget ${budget} is ${formatAmount(amount, account.currency)} a day. Nothing was changed: look again.`;
    },
    isSoAlready: ({ campaignId, budget }, { snapshot }) => {
      const campaign = snapshot.campaign.get(campaignId);
      return campaign?.sharedBudget === budget
        ? `${campaign.name} pays out of ${budget} already.`
        : undefined;
    },
    sameInTray,
    translate: translateSharing,
    find: ({ campaignId, budget }, mirror) =>
      which(campaignIn(mirror, campaignId)?.sharedBudget, budget, null),
    findOutside: ({ campaigns }, before, after) =>
      campaigns.flatMap(({ id }): Change[] => {
        const [was, is] = [before.campaigns.get(id), after.campaigns.get(id)];
        if (!was || !is || was.sharedBudget === is.sharedBudget) return [];
        if (was.budgetMicros === null || is.budgetMicros === null) return [];
        const [then, now] = [was.budgetMicros, is.budgetMicros];
        return is.sharedBudget === null
          ? [sharingOf('leave budget', is.id, was.sharedBudget!, { all: then, own: now })]
          : [sharingOf('share budget', is.id, is.sharedBudget, { all: now, own: then })];
      }),
    sheet: {
      ...{ task: 'Pay out of the shared budget', status: 'live' },
      cells: (change, open) => cellsOfSharing(change, open, change.budgetMicros),
    },
    shownBy,
  },
  'leave budget': {
    refuse({ campaignId, budget }, { snapshot }) {
      const campaign = snapshot.campaign.get(campaignId);
      if (!campaign) return GONE;
      return campaign.sharedBudget === budget
        ? undefined
        : `${campaign.name} does not pay out of ${budget} any more. Nothing was changed: look again.`;
    },
    isSoAlready: ({ campaignId }, { snapshot }) => {
      const campaign = snapshot.campaign.get(campaignId);
      return campaign?.sharedBudget === null
        ? `${campaign.name} has a budget of its own already.`
        : undefined;
    },
    sameInTray,
    translate: translateSharing,
    find: ({ campaignId, budget }, mirror) =>
      which(campaignIn(mirror, campaignId)?.sharedBudget, null, budget),
    sheet: {
      ...{ task: 'Pay out of a budget of its own', status: 'live' },
      cells: (change, open) => cellsOfSharing(change, open, change.ownMicros),
    },
    shownBy,
  },
  'set priority': {
    refuse({ campaignId, was }, { snapshot }) {
      const campaign = snapshot.campaign.get(campaignId);
      if (!campaign) return GONE;
      if (campaign.priority === null) return `${campaign.name} is not asked by priority.`;
      return campaign.priority === was ? undefined : changed(`The priority of ${campaign.name}`);
    },
    isSoAlready: ({ priority, was }) => (priority === was ? 'This is the priority already.' : undefined),
    sameInTray: 'A priority for this campaign is in the tray already',
    translate: ({ kind, campaignId, priority }, ids) => ({
      ...{ kind, campaignId: ids.campaign(campaignId), priority },
    }),
    find: ({ campaignId, priority, was }, mirror) =>
      which(campaignIn(mirror, campaignId)?.priority, priority, was),
    findOutside: ({ campaigns }, before, after) =>
      campaigns.flatMap(({ id }) => {
        const [was, is] = [before.campaigns.get(id), after.campaigns.get(id)];
        if (!was?.priority || !is?.priority || was.priority === is.priority) return [];
        return [{ kind: 'set priority', campaignId: is.id, priority: is.priority, was: was.priority }];
      }),
    sheet: {
      ...{ task: 'Set the priority', status: 'live' },
      cells: ({ campaignId, priority }, open) => ({
        ...{ Priority: priority, ...cellsOfPlace(open, { kind: 'campaign', id: campaignId }) },
      }),
    },
    shownBy,
  },
};

const campaignIn = ({ campaigns }: Mirror, campaignId: string) =>
  campaigns.find(({ id }) => id === campaignId);

function isInTray(campaignId: string, kinds: readonly ChangeKind[], { laid }: Open): boolean {
  return laid.some(
    (change) => kinds.includes(change.kind) && 'campaignId' in change && change.campaignId === campaignId,
  );
}

/** What campaigns may cost a day that share a budget, or will once the tray is sent; null where there is none of that name. */
function amountOf(budget: string, { snapshot, laid }: Open): number | null {
  const standing = snapshot.mirror.campaigns.find(({ sharedBudget }) => sharedBudget === budget);
  const drafted = laid.find((change) => change.kind === 'share budget' && change.budget === budget);
  return standing?.budgetMicros ?? (drafted?.kind === 'share budget' ? drafted.budgetMicros : null);
}

/** What is found where something was to become another: that, what it was, or neither. */
function which<T>(found: T | undefined, wanted: T, was: T): Found {
  if (found === wanted) return 'there';
  return found === was ? 'missing' : 'different';
}

function translateSharing({ kind, campaignId, budget, budgetMicros, ownMicros }: Sharing, ids: PlatformIds) {
  return { kind, campaignId: ids.campaign(campaignId), budget, budgetMicros, ownMicros };
}

function cellsOfSharing(
  { campaignId, budget }: Sharing,
  open: Open,
  micros: number,
): ReturnType<KindWork<Sharing>['sheet']['cells']> {
  return {
    ...{ 'Shared budget': budget, 'Daily budget': plainAmount(micros, open.account.currency) },
    ...cellsOfPlace(open, { kind: 'campaign', id: campaignId }),
  };
}

/** @param micros what all may cost a day that share the budget, and what the campaign may by itself */
function sharingOf<K extends Sharing['kind']>(
  kind: K,
  campaignId: string,
  budget: string,
  { all, own }: { all: number; own: number },
) {
  return { kind, campaignId, budget, budgetMicros: all, ownMicros: own };
}
