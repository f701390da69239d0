import {
  changeKey,
  compileAccountGate,
  describePlace,
  listMadeBy,
  normalise,
  type AccountGate,
  type AccountShape,
  type PlacedNegative,
  type RowGate,
} from '@/core';
import type { GateAnswer } from '@/contracts/gate';
import type { StoredChange } from '../../repositories/tray/changes';
import { shapeOf } from '../../repositories/structure/structure';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';

/** Whether a query gets through, in which campaigns and ad groups, and what stops it; with the tray beside it. */
export async function checkGate(deps: Deps, slug: string, query: string): Promise<GateAnswer> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const text = normalise(query);
  const { accepted, waiting, drafted, snapshot } = open;
  const given = [...accepted, ...waiting, ...drafted];
  const now = gateOf(open, accepted, open.standing);
  const withTray = waiting.length + drafted.length > 0 ? gateOf(open, given, open.draft.gate) : now;
  const answer: GateAnswer = {
    ...{ text, adGroups: 0, open: 0, stoppedByTray: 0, openedByTray: 0 },
    ...{ stoppers: [], campaigns: [] },
  };
  const stoppers = new Map<string, Found>();
  for (const campaign of snapshot.mirror.campaigns) {
    if (campaign.status === 'removed') continue;
    const line = askCampaign(open, campaign, text, { now, withTray }, { answer, stoppers });
    answer.campaigns.push(line);
  }
  const negatives = shapeWith(open, given, open.draft.gate, true).negatives;
  const byId = new Map(negatives.map((n) => [n.id, n]));
  const stateOf = new Map(given.map((change) => [idOf(change), stateIn(change)]));
  answer.stoppers = [...stoppers].map(([id, { adGroups, campaigns }]) => {
    const { text, match, place } = byId.get(id)!;
    return {
      ...{ text, match, place, placeName: describePlace(place, open.names) },
      ...{ adGroups, campaigns: [...campaigns], state: stateOf.get(id) ?? 'in force' },
    };
  });
  answer.stoppers.sort((a, b) => b.adGroups - a.adGroups);
  return answer;
}

type Found = { adGroups: number; campaigns: Set<string> };
type Sums = { answer: GateAnswer; stoppers: Map<string, Found> };

/** Only live ad groups of live campaigns serve anything (rules 5.1); the others are named as what they are. */
function askCampaign(
  { snapshot }: Open,
  campaign: Open['snapshot']['mirror']['campaigns'][number],
  text: string,
  gates: { now: AccountGate; withTray: AccountGate },
  { answer, stoppers }: Sums,
): GateAnswer['campaigns'][number] {
  const { id, name, status } = campaign;
  const line = { id, name, status, open: 0, stopped: 0, stoppedIn: [] as string[], openIn: [] as string[] };
  if (!isLive(campaign)) return line;
  for (const adGroup of snapshot.mirror.adGroups) {
    if (adGroup.campaignId !== id || !isLive(adGroup)) continue;
    const [before, after] = [gates.now.stoppers(text, adGroup.id), gates.withTray.stoppers(text, adGroup.id)];
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
    for (const stopper of new Set([...before, ...after])) {
      const found = stoppers.get(stopper) ?? { adGroups: 0, campaigns: new Set<string>() };
      found.adGroups += 1;
      found.campaigns.add(name);
      stoppers.set(stopper, found);
    }
  }
  return line;
}

const isLive = ({ status }: { status: string }) => status === 'live' || status === 'unknown';

/** A change as the negative that it would be. */
const idOf = ({ id }: StoredChange) => `change ${id}`;

function stateIn({ state }: StoredChange): GateAnswer['stoppers'][number]['state'] {
  return state === 'said' ? 'said to be done' : state === 'applied' ? 'accepted' : 'in the tray';
}

function gateOf(open: Open, changes: readonly StoredChange[], gate: RowGate): AccountGate {
  return changes.length === 0
    ? open.snapshot.accountGate
    : compileAccountGate(shapeWith(open, changes, gate));
}

/**
 * The account as some changes would leave it.
 * @param gate the same over the rows of the window
 * @param keeps negatives that the changes remove stay in the answer, so that they can be named
 */
function shapeWith(
  { snapshot }: Open,
  changes: readonly StoredChange[],
  gate: RowGate,
  keeps = false,
): AccountShape {
  const shape = shapeOf(snapshot.mirror);
  const removed = new Set(
    changes.flatMap(({ change }) => (change.kind === 'remove negative' ? [changeKey(change)] : [])),
  );
  const added = changes.flatMap((stored): PlacedNegative[] => {
    const { change } = stored;
    if (change.kind !== 'add negative') return [];
    return [{ id: idOf(stored), text: change.text, match: change.match, place: change.place }];
  });
  const made = changes.flatMap(({ change }) => listMadeBy(change)?.listId ?? []);
  const isRemoved = (n: PlacedNegative) => removed.has(changeKey({ kind: 'remove negative', ...n }));
  return {
    campaigns: shape.campaigns,
    lists: [...shape.lists.map((l) => l.id), ...made].map((id) => ({ id, hungOn: gate.hungOn(id) })),
    negatives: [...shape.negatives.filter((n) => keeps || !isRemoved(n)), ...added],
  };
}
