import { isHungOn, isRuled, type ChangeOf } from '@/core';
import { isNotGiven, sayNotGiven } from '../../../compute/serving';
import { listHangRules } from '../../../repositories/lists/hang-rules';
import { loadMirror } from '../../../repositories/structure/structure';
import type { Deps } from '../../deps';
import type { KnownList } from '../../lists/known-lists';
import { exceptFromRule } from '../../lists/rule-hangings';
import { requireAccount, type Open } from '../../open-workbench';
import { isFound, type KindWork, type PlatformIds, type WorkFor } from './kind';
import { cellsOfList, WHOLE_ACCOUNT } from './sheet-cells';

type Kind = 'hang list' | 'take down list';
type Hanging = ChangeOf<Kind>;

const cells: KindWork<Hanging>['sheet']['cells'] = ({ listId, campaignId }, open) => ({
  ...cellsOfList(open, listId),
  Place: campaignId === null ? 'account' : 'campaign',
  Campaign: campaignId === null ? WHOLE_ACCOUNT : (open.names.campaign(campaignId) ?? campaignId),
});
/** A structure file names a list beside a campaign; it has no row for the whole account. */
const shownBy = ({ campaignId }: Hanging) => (campaignId === null ? null : 'list');

export const hangingWork: WorkFor<Kind> = {
  'hang list': {
    refuse: refuseHanging,
    isSoAlready: ({ listId, campaignId }, { draft, names }) =>
      isHungOn(draft.gate.hungOn(listId), campaignId)
        ? `${names.list(listId)} hangs there already.`
        : undefined,
    translate,
    find: ({ listId, campaignId }, { lists }) => isFound(isHungOn(hungOn(lists, listId), campaignId)),
    sheet: { task: 'Apply the shared list', status: 'live', cells },
    shownBy,
    afterUndo: leaveOutOfRules,
  },
  'take down list': {
    refuse: refuseHanging,
    isSoAlready: ({ listId, campaignId }, { draft, names }) =>
      isHungOn(draft.gate.hungOn(listId), campaignId)
        ? undefined
        : `${names.list(listId)} does not hang there.`,
    translate,
    find: ({ listId, campaignId }, { lists }) => isFound(!isHungOn(hungOn(lists, listId), campaignId)),
    sheet: { task: 'Take the shared list off', status: 'removed', cells },
    shownBy,
    dropUnnamed: ({ listId, campaignId }, gone) => void gone.hangings.push({ listId, campaignId }),
  },
};

function hungOn(lists: readonly { id: string; hungOn: readonly string[] | 'account' }[], listId: string) {
  return lists.find(({ id }) => id === listId)?.hungOn;
}

function refuseHanging(
  { listId, campaignId }: Hanging,
  open: Open,
  list: KnownList | undefined,
): string | undefined {
  if (campaignId === null) return undefined;
  if (open.names.campaign(campaignId) === undefined) return 'This campaign is not there any more.';
  if (isNotGiven(open.snapshot, { kind: 'campaign', id: campaignId })) return sayNotGiven('campaign');
  return open.draft.gate.hungOn(listId) === 'account'
    ? `${list!.name} hangs on the whole account, so it hangs on each campaign. Take it down there first.`
    : undefined;
}

function translate({ kind, campaignId }: Hanging, ids: PlatformIds) {
  return { kind, listId: ids.list!, campaignId: campaignId === null ? null : ids.campaign(campaignId) };
}

/** A list that is taken down again by undo is not wanted there any more by a rule either. */
async function leaveOutOfRules(
  { listId, campaignId }: Hanging,
  deps: Deps,
  slug: string,
  personId: number,
): Promise<void> {
  const account = await requireAccount(deps, slug);
  const campaign = (await loadMirror(deps.db, account.id)).campaigns.find((c) => c.id === campaignId);
  if (!campaign) return;
  const wanting = (await listHangRules(deps.db, account.id)).filter(
    ({ listId: of, rule, except }) =>
      of === listId && isRuled(rule, campaign) && !except.includes(campaign.id),
  );
  for (const { id } of wanting)
    await exceptFromRule(deps, slug, personId, id, { campaign: campaign.id, isOut: true });
}
