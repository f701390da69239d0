import { stopsIn, type Change, type NegativeText } from '@/core';
import type { Days } from '@/contracts/days';
import type { TrayOutlook } from '@/contracts/outlook';
import { derivedFrom } from '../../compute/derived';
import { lookAhead } from '../../compute/outlook/outlook';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { gather } from './gather';

/** What the tray is likely to bring, and each of its changes beyond those before it (rules 13). */
export async function foreseeTray(deps: Deps, slug: string, days?: Days): Promise<TrayOutlook> {
  return outlookOf(await openWorkbench(deps, await requireAccount(deps, slug), days));
}

/** The same of a workbench. */
export const outlookOf: (open: Open) => TrayOutlook = derivedFrom((open: Open): TrayOutlook => {
  const { draft, drafted, snapshot } = open;
  const all = gather(open);
  const stopped = new Set(draft.stopped);
  const changes = drafted.flatMap(({ id, change }, i) => {
    const rows = draft.steps[i]!.stopped.filter((r) => stopped.delete(r)); // each row once
    if (rows.length === 0) return [];
    const foreseen = lookAhead(
      snapshot,
      rows.sort((a, b) => a - b),
      { gate: draft.gate, besides: [] },
    );
    all.add(foreseen, negativeOf(change), stopsIn(change)?.kind ?? 'account');
    const back = [...foreseen.back.values()].reduce((sum, { costMicros }) => sum + costMicros, 0);
    const { stoppedMicros } = foreseen;
    const { variance } = foreseen;
    return [{ id, stoppedMicros, netMicros: stoppedMicros - back, variance }];
  });
  return { ...all.tell(), changes };
});

function negativeOf(change: Change): NegativeText | null {
  return change.kind === 'add negative' ? { text: change.text, match: change.match } : null;
}
