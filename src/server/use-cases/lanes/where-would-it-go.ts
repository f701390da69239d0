import type * as v from 'valibot';
import { compileLanes } from '@/core';
import type { Where, WhereQuerySchema } from '@/contracts/lanes';
import { stoppersIn } from '../../compute/lanes/lanes-ground';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';
import { listLanes } from './view-lanes';

/**
 * Where a query would go: by a plan, and as the tray leaves the account.
 * @throws Refusal when there is no such plan
 */
export async function whereWouldItGo(
  deps: Deps,
  slug: string,
  { plan: key, query, days }: v.InferOutput<typeof WhereQuerySchema>,
): Promise<Where> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), days);
  const plan = (await listLanes(deps, open)).find((one) => one.key === key);
  if (!plan) throw new Refusal('This lane plan is not there any more.', 404);
  const { tiers } = plan;
  const lanes = compileLanes(tiers);
  const stoppers = stoppersIn(open, tiers);
  const first = tiers.findIndex(
    ({ serving }, tier) => serving.length > 0 && stoppers(tier, query).length === 0,
  );
  return {
    byPlan: lanes.route(query),
    entryTerm: lanes.entryTermOf(query)?.text ?? null,
    asItIs: first < 0 ? null : first,
  };
}
