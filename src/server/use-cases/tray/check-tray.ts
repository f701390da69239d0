import {
  changeKey,
  describeChange,
  describePlace,
  findRedundant,
  listMadeBy,
  listOf,
  type Change,
} from '@/core';
import type { TrayCheck } from '@/contracts/tray';
import { derivedFrom } from '../../compute/derived';
import type { Deps } from '../deps';
import { findList } from '../lists/known-lists';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { workOf } from './kinds';

/** What is wrong with the tray besides what each change says of itself: it is looked for when somebody is about to send. */
export async function checkTray(deps: Deps, slug: string): Promise<TrayCheck> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  return { needless: [...needlessIn(open)], gone: goneIn(open) };
}

/** Negatives of the draft that others, in force or in the draft, make needless (rules 3), and which. Cached per draft. */
const needlessIn = derivedFrom((open: Open): TrayCheck['needless'] => {
  const idOf = new Map(
    open.drafted.flatMap(({ id, change }) =>
      change.kind === 'add negative' ? [[changeKey(change), id] as const] : [],
    ),
  );
  if (idOf.size === 0) return [];
  const shape = open.draft.gate.shape();
  const byId = new Map(shape.negatives.map((negative) => [negative.id, negative]));
  return findRedundant(shape).flatMap(({ id, coveredBy }) => {
    const changeId = idOf.get(changeKey({ kind: 'add negative', ...byId.get(id)! }));
    const { text, match, place } = byId.get(coveredBy)!;
    const said = `“${text}” (${match}) in ${describePlace(place, open.names)}`;
    return changeId === undefined ? [] : [{ changeId, coveredBy: said }];
  });
});

/** Changes that can not be made any more: what they are about is gone, or is another by now. */
function goneIn(open: Open): TrayCheck['gone'] {
  return open.drafted.flatMap(({ id, change }) => {
    const reason = sayGone(open, change) ?? workOf(change).refuseToSend?.(change, open);
    return reason === undefined ? [] : [{ changeId: id, said: describeChange(change, open.names), reason }];
  });
}

/** Why an element that a change names can not be found any more; undefined where it can. */
function sayGone(open: Open, change: Change): string | undefined {
  const { campaign, adGroup, keyword } = open.snapshot;
  const listId = listOf(change);
  if (listId !== undefined && !listMadeBy(change) && !findList(open, listId))
    return 'the list is not there any more.';
  if ('keywordId' in change && !keyword.has(change.keywordId)) return 'the keyword is not there any more.';
  const place = 'place' in change ? change.place : undefined;
  const inCampaign =
    place?.kind === 'campaign' ? place.id : 'campaignId' in change ? change.campaignId : null;
  if (inCampaign !== null && !campaign.has(inCampaign)) return 'the campaign is not there any more.';
  return place?.kind === 'adGroup' && !adGroup.has(place.id!)
    ? 'the ad group is not there any more.'
    : undefined;
}
