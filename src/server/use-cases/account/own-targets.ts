import { formatAmount, listed } from '@/core';
import { parseTarget, type TargetsRequest } from '@/contracts/account';
import { lockAccount, raiseDataVersion, raiseDecisionVersion } from '../../repositories/account/accounts';
import { appendLedger } from '../../repositories/ledger';
import {
  loadOwnTargets,
  replaceOwnTargets,
  type OwnTarget,
  type OwnTargets,
} from '../../repositories/account/own-targets';
import { loadMirror, type Mirror } from '../../repositories/structure/structure';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/**
 * Sets the targets that campaigns and product groups have of their own (rules 7.3): all of them at once.
 * @throws Refusal when one can not be read, names what is gone, or an ad group would be in two product groups
 */
export async function setOwnTargets(
  deps: Deps,
  slug: string,
  personId: number,
  request: TargetsRequest,
): Promise<{ said: string }> {
  const account = await requireAccount(deps, slug);
  const before = await loadOwnTargets(deps.db, account.id);
  const read = <Of extends { target: string }>({ target, ...of }: Of, was: OwnTarget | undefined) => {
    const parsed = parseTarget(target, account);
    if ('fault' in parsed) throw new Refusal(`${parsed.fault} Nothing was changed.`);
    // The target of the other way to steer stays for when it is steered so again.
    const kept = { targetMicros: was?.targetMicros ?? null, targetAcos: was?.targetAcos ?? null };
    return { ...of, ...kept, ...parsed };
  };
  const isSet = (one: OwnTarget) => one.targetMicros !== null || one.targetAcos !== null;
  const targets: OwnTargets = {
    campaigns: request.campaigns
      .map((one) =>
        read(
          one,
          before.campaigns.find((c) => c.campaignId === one.campaignId),
        ),
      )
      .filter(isSet),
    productGroups: request.productGroups.map((one) => {
      const was = before.productGroups.find((g) => g.name === one.name);
      return { ...read(one, was), seats: one.seats ?? was?.seats ?? {} };
    }),
  };
  return replaceTargets(deps, slug, personId, targets);
}

/**
 * Sets targets as they are stored.
 * @param as.undoes the entry of the ledger that is taken back by it
 * @param as.said as the ledger tells it, where something else than a target is set
 */
export async function replaceTargets(
  deps: Deps,
  slug: string,
  personId: number,
  targets: OwnTargets,
  { undoes, said: what }: { undoes?: number | undefined; said?: string } = {},
): Promise<{ said: string }> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, id);
    const mirror = await loadMirror(trx, id);
    refuseIfNot(mirror, targets);
    const before = await loadOwnTargets(trx, id);
    await replaceOwnTargets(trx, id, targets);
    const said = what ?? sayTargets(mirror, account, targets);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'setting', what: said, undoes },
      ...{ before, after: targets, undo: { do: 'set targets', targets: before } },
    });
    await raiseDataVersion(trx, id); // they are a part of what is kept of a window
    await raiseDecisionVersion(trx, id);
    return { said };
  });
}

function refuseIfNot({ campaigns, adGroups }: Mirror, targets: OwnTargets): void {
  const known = new Set(campaigns.map((c) => c.id));
  const names = new Map(adGroups.map((g) => [g.id, g.name]));
  if (targets.campaigns.some(({ campaignId }) => !known.has(campaignId)))
    throw new Refusal('One of the campaigns is not there any more. Nothing was changed.', 404);
  const groupOf = new Map<string, string>();
  const taken = new Set<string>();
  for (const { name, adGroupIds } of targets.productGroups) {
    if (taken.has(name.toLowerCase()))
      throw new Refusal(`Two product groups are named ${name}. Nothing was changed.`, 409);
    taken.add(name.toLowerCase());
    for (const id of adGroupIds) {
      const adGroup = names.get(id);
      if (adGroup === undefined)
        throw new Refusal('One of the ad groups is not there any more. Nothing was changed.', 404);
      const other = groupOf.get(id);
      if (other !== undefined)
        throw new Refusal(`${adGroup} would be in ${other} and in ${name}. Nothing was changed.`, 409);
      groupOf.set(id, name);
    }
  }
}

type Steering = { steersBy: 'CPA' | 'ACoS'; currency: string };

function sayTargets({ campaigns }: Mirror, account: Steering, targets: OwnTargets): string {
  const amount = ({ targetMicros, targetAcos }: OwnTarget) => {
    if (account.steersBy === 'CPA')
      return targetMicros === null ? 'none' : formatAmount(targetMicros, account.currency);
    return targetAcos === null ? 'none' : `${Number((targetAcos * 100).toFixed(2))} %`;
  };
  const name = (id: string) => campaigns.find((c) => c.id === id)?.name ?? id;
  const all = [
    ...targets.campaigns.map((one) => `${name(one.campaignId)} ${amount(one)}`),
    ...targets.productGroups.map((one) => `product group ${one.name} ${amount(one)}`),
  ];
  return all.length === 0 ? 'No campaign has a target of its own' : `Targets of their own: ${listed(all)}`;
}
