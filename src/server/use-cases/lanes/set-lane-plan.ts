import { isDeepStrictEqual } from 'node:util';
import type { LanePlan } from '@/contracts/lanes';
import type { Db } from '../../db/connection';
import { lockAccount, raiseDecisionVersion } from '../../repositories/account/accounts';
import {
  deleteLanePlan,
  insertLanePlan,
  listLanePlans,
  updateLanePlan,
  type StoredLanePlan,
} from '../../repositories/decisions/lane-plans';
import { appendLedger } from '../../repositories/ledger';
import { loadMirror } from '../../repositories/structure/structure';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/** What one plan becomes: null before it is made, or once it is removed. */
type Setting = { was: LanePlan | null; plan: LanePlan | null };

/**
 * Makes, changes or removes a lane plan.
 * @param undoes the entry of the ledger that is taken back by it
 * @throws Refusal when it was changed meanwhile, its name is taken, or a campaign is gone or in two tiers
 */
export async function setLanePlan(
  deps: Deps,
  slug: string,
  personId: number,
  { was, plan }: Setting,
  undoes?: number,
): Promise<{ said: string; key: string | null }> {
  const { id: accountId } = await requireAccount(deps, slug);
  if (!was && !plan) throw new Refusal('There is nothing to change.');
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, accountId);
    const all = await listLanePlans(trx, accountId);
    const there = was && all.find((one) => isDeepStrictEqual(planOf(one), was));
    if (was && !there)
      throw new Refusal(`${was.name} was changed meanwhile. Nothing was changed: look again.`, 409);
    if (plan && all.some((one) => one !== there && one.name === plan.name))
      throw new Refusal(`There is a lane plan ${plan.name} already. Give it another name.`);
    if (plan) await refuseTiers(trx, accountId, plan);
    const id = await store(trx, accountId, there ?? null, plan);
    const said = say({ was, plan });
    await appendLedger(trx, accountId, {
      ...{ actor: { person: personId }, about: 'lanes', what: said, before: was, after: plan, undoes },
      undo: { do: 'set lane plan', was: plan, plan: was },
    });
    await raiseDecisionVersion(trx, accountId);
    return { said, key: id === null ? null : `plan ${id}` };
  });
}

const planOf = ({ name, tiers }: StoredLanePlan): LanePlan => ({ name, tiers });

/** @returns its id; null where it is removed */
async function store(
  trx: Db,
  accountId: number,
  there: StoredLanePlan | null,
  plan: LanePlan | null,
): Promise<number | null> {
  if (!there) return plan && insertLanePlan(trx, accountId, plan);
  if (plan) await updateLanePlan(trx, accountId, there.id, plan);
  else await deleteLanePlan(trx, accountId, there.id);
  return plan && there.id;
}

async function refuseTiers(trx: Db, accountId: number, { tiers }: LanePlan): Promise<void> {
  const names = tiers.map(({ name }) => name);
  const twice = names.find((name, i) => names.indexOf(name) !== i);
  if (twice !== undefined) throw new Refusal(`Two tiers are called ${twice}. Give one another name.`);
  const { campaigns } = await loadMirror(trx, accountId);
  const known = new Map(campaigns.map(({ id, name }) => [id, name]));
  const ids = tiers.flatMap((tier) => tier.campaigns);
  const gone = ids.find((id) => !known.has(id));
  if (gone !== undefined)
    throw new Refusal('A campaign of the plan is not there any more. Nothing was changed: look again.', 409);
  const inTwo = ids.find((id, i) => ids.indexOf(id) !== i);
  if (inTwo !== undefined)
    throw new Refusal(`${known.get(inTwo)} would be in two tiers. Take it out of one.`);
}

function say({ was, plan }: Setting): string {
  if (!was) return `Made the lane plan ${plan!.name}`;
  if (!plan) return `Removed the lane plan ${was.name}`;
  return was.name === plan.name
    ? `Changed the lane plan ${plan.name}`
    : `Renamed the lane plan ${was.name} to ${plan.name}`;
}
