import {
  changeKey,
  compileAccountGate,
  describePlace,
  normalise,
  type AccountShape,
  type PlacedNegative,
} from '@/core';
import type { GateAnswer } from '@/contracts/screens';
import { shapeOf } from '../repositories/structure';
import type { Deps } from './deps';
import { openWorkbench, requireAccount, type Open } from './open-workbench';

/** Whether a query gets through, in which campaigns and ad groups, and what stops it; with the tray beside it. */
export async function checkGate(deps: Deps, slug: string, query: string): Promise<GateAnswer> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const { snapshot, names } = open;
  const text = normalise(query);
  const now = snapshot.accountGate;
  const withTray =
    open.drafted.length + open.onItsWay.length > 0 ? compileAccountGate(shapeWithTray(open)) : now;
  const live = snapshot.mirror.campaigns.filter((c) => c.status === 'live' || c.status === 'unknown');
  const stoppers = new Map<string, { adGroups: number; campaigns: Set<string>; inTray: boolean }>();
  const answer: GateAnswer = {
    text,
    adGroups: 0,
    open: 0,
    stoppedByTray: 0,
    openedByTray: 0,
    stoppers: [],
    campaigns: [],
  };

  for (const campaign of live) {
    const line = {
      id: campaign.id,
      name: campaign.name,
      status: campaign.status,
      open: 0,
      stopped: 0,
      stoppedIn: [] as string[],
      openIn: [] as string[],
    };
    for (const adGroup of snapshot.mirror.adGroups) {
      if (adGroup.campaignId !== campaign.id || (adGroup.status !== 'live' && adGroup.status !== 'unknown'))
        continue;
      const [before, after] = [now.stoppers(text, adGroup.id), withTray.stoppers(text, adGroup.id)];
      answer.adGroups += 1;
      if (before.length === 0) {
        answer.open += 1;
        line.open += 1;
        line.openIn.push(adGroup.name);
        if (after.length > 0) answer.stoppedByTray += 1;
      } else {
        line.stopped += 1;
        line.stoppedIn.push(adGroup.name);
        if (after.length === 0) answer.openedByTray += 1;
      }
      for (const id of new Set([...before, ...after])) {
        const stopper = stoppers.get(id) ?? {
          adGroups: 0,
          campaigns: new Set<string>(),
          inTray: !before.includes(id),
        };
        stopper.adGroups += 1;
        stopper.campaigns.add(campaign.name);
        stoppers.set(id, stopper);
      }
    }
    answer.campaigns.push(line);
  }

  const negatives = new Map(
    [...snapshot.mirror.negatives, ...shapeWithTray(open).negatives].map((n) => [n.id, n]),
  );
  answer.stoppers = [...stoppers].map(([id, { adGroups, campaigns, inTray }]) => {
    const negative = negatives.get(id)!;
    return {
      text: negative.text,
      match: negative.match,
      place: negative.place,
      placeName: describePlace(negative.place, names),
      adGroups,
      campaigns: [...campaigns],
      inTray,
    };
  });
  answer.stoppers.sort((a, b) => b.adGroups - a.adGroups);
  return answer;
}

/** The account as what is on its way and the tray would leave it. */
function shapeWithTray({ snapshot, draft, drafted, onItsWay }: Open): AccountShape {
  const shape = shapeOf(snapshot.mirror);
  const changes = [...onItsWay, ...drafted].map((c) => c.change);
  const removed = new Set(changes.flatMap((c) => (c.kind === 'remove negative' ? [changeKey(c)] : [])));
  const added = changes.flatMap((c, i): PlacedNegative[] =>
    c.kind === 'add negative' ? [{ id: `tray ${i}`, text: c.text, match: c.match, place: c.place }] : [],
  );
  const made = changes.flatMap((c) => (c.kind === 'make list' ? [c.listId] : []));
  return {
    campaigns: shape.campaigns,
    lists: [...shape.lists.map((l) => l.id), ...made].map((id) => ({ id, hungOn: draft.gate.hungOn(id) })),
    negatives: [
      ...shape.negatives.filter((n) => !removed.has(changeKey({ kind: 'add negative', ...n }))),
      ...added,
    ],
  };
}
