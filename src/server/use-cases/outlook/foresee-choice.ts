import type { NegativeText, Place } from '@/core';
import type { Days } from '@/contracts/days';
import type { Outlook } from '@/contracts/outlook';
import { lookAhead } from '../../compute/outlook/outlook';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';
import { gather } from './gather';

/** What a negative at a place is likely to bring beyond the draft (rules 13). */
export async function foreseeChoice(
  deps: Deps,
  slug: string,
  { negative, place, days }: { negative: NegativeText; place: Place; days?: Days },
): Promise<Outlook> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), days);
  const { gate } = open.draft;
  const rows = gate.reached(negative, place).filter((r) => gate.stopCount(r) === 0);
  const gathered = gather(open);
  gathered.add(
    lookAhead(open.snapshot, rows, { gate, besides: [{ ...negative, place }] }),
    negative,
    place.kind,
  );
  return gathered.tell();
}
