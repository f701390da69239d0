import { group } from 'd3-array';
import type { TwoDays } from '@/contracts/days';
import type { ListsBeside } from '@/contracts/lists';
import { rowsOfEntries } from '../../compute/lists/list-reach';
import { besideFigures, weighRows } from '../../compute/workbench';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';

/**
 * What the terms that each list stops cost where it hangs, in the days looked at and in those beside: once it hangs,
 * little of it is left. Lists of placements stop no term, and are left out.
 */
export async function viewListsBeside(
  deps: Deps,
  slug: string,
  { days, beside }: TwoDays,
): Promise<ListsBeside> {
  const account = await requireAccount(deps, slug);
  const now = weighLists(await openWorkbench(deps, account, days));
  const then = weighLists(await openWorkbench(deps, account, beside));
  return {
    lists: Object.fromEntries([...now].map(([id, figures]) => [id, { now: figures, then: then.get(id)! }])),
  };
}

function weighLists(open: Open): Map<string, ReturnType<typeof besideFigures>> {
  const { served, mirror } = open.snapshot;
  const entriesOf = group(
    mirror.negatives.filter(({ place }) => place.kind === 'list'),
    ({ place }) => place.id!,
  );
  const lists = mirror.lists.filter(({ holds }) => holds === 'words');
  return new Map(
    lists.map(({ id, hungOn }) => {
      const onAccount = hungOn === 'account';
      const campaigns = new Set(onAccount ? [] : hungOn);
      const acts = (r: number) =>
        onAccount || campaigns.has(served.adGroups[served.adGroupOf[r]!]!.campaignId);
      const reached = rowsOfEntries(open, entriesOf.get(id) ?? []).filter(acts);
      return [id, besideFigures(weighRows(open.snapshot, reached))];
    }),
  );
}
