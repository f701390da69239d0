import type * as v from 'valibot';
import { listed, MATCH_TYPES, type Change } from '@/core';
import type {
  MakeSeatsSchema,
  MadeSeatsSchema,
  SeatRequestSchema,
  SeatSaidSchema,
} from '@/contracts/promotion';
import type { Group } from '../../compute/promotion/groups';
import { loadOwnTargets, type OwnTargets } from '../../repositories/account/own-targets';
import { replaceTargets } from '../account/own-targets';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { draftChanges } from '../tray/draft-changes';
import { planningOf } from './planning';

/**
 * Chooses an ad group as a seat of a group, or leaves that to its name and content again. A campaign whose ad groups are in no
 * product group becomes one.
 * @returns what was said, and the seat that was chosen before
 * @throws Refusal when the group or the ad group is not there, or the ad group is in another group
 */
export async function setSeat(
  deps: Deps,
  slug: string,
  personId: number,
  { group: key, match, seat, unmakes = false }: v.InferInput<typeof SeatRequestSchema>,
): Promise<v.InferOutput<typeof SeatSaidSchema>> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const group = requireGroup(open, key);
  if (seat) refuseIfElsewhere(open, group, seat);
  const { targets, own } = await asProductGroup(deps, open, group);
  const { [match]: was = null, ...others } = own.seats;
  own.seats = seat ? { ...others, [match]: seat } : others;
  const isEmpty = Object.keys(own.seats).length === 0 && own.targetMicros === null && own.targetAcos === null;
  if (unmakes && isEmpty) targets.productGroups = targets.productGroups.filter((one) => one !== own);
  const said = seat
    ? `The ${match} seat of ${own.name} is ${seat.campaign} · ${seat.adGroup}`
    : `The ${match} seat of ${own.name} is found by name and content`;
  await replaceTargets(deps, slug, personId, targets, { said });
  return { said, was, group: `group ${own.name}`, isMade: !group.isOwn };
}

/**
 * Puts the seats that a group lacks in the tray, and chooses them: ad groups of a campaign that is there, or of a new one.
 * @throws Refusal when the group is gone, or a new campaign has no budget
 */
export async function makeSeats(
  deps: Deps,
  slug: string,
  personId: number,
  { group: key, matches, campaign, budgetMicros }: v.InferOutput<typeof MakeSeatsSchema>,
): Promise<v.InferOutput<typeof MadeSeatsSchema>> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const group = requireGroup(open, key);
  const isThere = isCampaign(open, campaign);
  if (!isThere && budgetMicros === null)
    throw new Refusal(`${campaign} is a new campaign: give its budget of a day. Nothing was changed.`);
  const wanted: Change[] = matches.map((match) => ({
    ...{ kind: 'add ad group', campaign, name: `${group.name} ${match}` },
  }));
  if (!isThere) wanted.unshift({ kind: 'add campaign', name: campaign, budgetMicros: budgetMicros! });
  const why = `seats of ${group.name}`;
  const outcomes = await draftChanges(
    deps,
    slug,
    personId,
    wanted.map((change) => ({ change, why })),
  );
  const { targets, own } = await asProductGroup(deps, open, group);
  const was = own.seats;
  own.seats = { ...was };
  const made = outcomes.slice(isThere ? 0 : 1);
  matches.forEach((match, i) => {
    const { outcome } = made[i]!;
    if (outcome === 'drafted' || outcome === 'already there')
      own.seats[match] = { campaign, adGroup: `${group.name} ${match}` };
  });
  const said = `Seats of ${own.name}: ${listed(MATCH_TYPES.flatMap((match) => own.seats[match]?.adGroup ?? []))}`;
  await replaceTargets(deps, slug, personId, targets, { said });
  return { outcomes, group: `group ${own.name}`, isMade: !group.isOwn, was };
}

function requireGroup(open: Open, key: string): Group {
  const group = planningOf(open).group.get(key);
  if (!group) throw new Refusal('This group is not there any more. Look again. Nothing was changed.', 404);
  return group;
}

function refuseIfElsewhere(open: Open, group: Group, seat: { campaign: string; adGroup: string }): void {
  const { groups, groupOf } = planningOf(open);
  const { mirror, campaign } = open.snapshot;
  const adGroup = mirror.adGroups.find(
    ({ name, campaignId, status }) =>
      status !== 'removed' && name === seat.adGroup && campaign.get(campaignId)?.name === seat.campaign,
  );
  const isInTray = open.laid.some(
    (change) =>
      change.kind === 'add ad group' && change.campaign === seat.campaign && change.name === seat.adGroup,
  );
  if (!adGroup && !isInTray)
    throw new Refusal(`There is no ad group ${seat.adGroup} in ${seat.campaign}. Nothing was changed.`, 404);
  const other = adGroup && groupOf.get(adGroup.id);
  if (other?.isOwn && other.key !== group.key)
    throw new Refusal(`${seat.adGroup} is in the product group ${other.name}. Nothing was changed.`, 409);
  const same = groups.find(
    (one) =>
      one.key !== group.key &&
      MATCH_TYPES.some(
        (match) =>
          one.seats[match]?.isChosen &&
          one.seats[match]!.adGroup === seat.adGroup &&
          one.seats[match]!.campaign === seat.campaign,
      ),
  );
  if (same) throw new Refusal(`${seat.adGroup} is a seat of ${same.name}. Nothing was changed.`, 409);
}

const isCampaign = ({ snapshot, laid }: Open, name: string) =>
  snapshot.mirror.campaigns.some((one) => one.name === name && one.status !== 'removed') ||
  laid.some((change) => change.kind === 'add campaign' && change.name === name);

/** All own targets, with the product group that a group is or becomes. */
async function asProductGroup(
  deps: Deps,
  { account }: Open,
  { name, isOwn, adGroupIds }: Group,
): Promise<{ targets: OwnTargets; own: OwnTargets['productGroups'][number] }> {
  const targets = await loadOwnTargets(deps.db, account.id);
  const known = targets.productGroups.find((one) => isOwn && one.name === name);
  if (known) return { targets, own: known };
  const names = new Set(targets.productGroups.map((one) => one.name.toLowerCase()));
  let free = name;
  for (let i = 2; names.has(free.toLowerCase()); i++) free = `${name} ${i}`;
  const own = { name: free, adGroupIds: [...adGroupIds], seats: {}, targetMicros: null, targetAcos: null };
  targets.productGroups.push(own);
  return { targets, own };
}
