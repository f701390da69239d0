import {
  changesFor,
  differenceOf,
  findRedundant,
  foldPlacements,
  gatherIntoList,
  mergeEntries,
  newListId,
  normalise,
  splitByTheme,
  type Change,
  type ListState,
  type RowGate,
  counted,
  listed,
} from '@/core';
import { randomUUID } from 'node:crypto';
import { Refusal } from '../../deps';
import type { Open } from '../../open-workbench';
import { requireList } from '../known-lists';
import { adds, distinct, made, placeOf, removes, stateOf, type EditOf, type Planned } from './planned';

/** Each theme becomes a list that hangs where the whole one did: no gate answers otherwise. */
export function split(open: Open, { list, themes }: EditOf<'split'>): Planned {
  const { name } = requireList(open, list);
  const { gate } = open.draft;
  const parts = splitByTheme(gate.entriesAt(placeOf(list))).filter(
    ({ theme }) => theme !== null && themes.includes(theme),
  );
  const changes = parts.flatMap(({ theme, entries }) => {
    const part = made(`${name} · ${theme}`);
    return [
      ...part.makes,
      ...adds(part.id, entries),
      ...hangsAs(gate, list, part.id),
      ...removes(list, entries),
    ];
  });
  return {
    said: `Split ${name}: ${counted(parts.length, 'list')} of ${listed(parts.flatMap(({ theme }) => theme ?? []))}`,
    ...{ changes, why: `split from ${name}`, keepsAnswers: true },
  };
}

function hangsAs(gate: RowGate, of: string, listId: string): Change[] {
  const hungOn = gate.hungOn(of);
  return (hungOn === 'account' ? [null] : hungOn).map((campaignId) => ({
    kind: 'hang list',
    listId,
    campaignId,
  }));
}

/** All entries stand in the first list, which hangs wherever one of them did; the other goes. */
export function merge(open: Open, { list, from }: EditOf<'merge'>): Planned {
  const [into, other] = [requireList(open, list), requireList(open, from)];
  if (into.id === other.id) throw new Refusal('A list can not be merged with itself. Choose another.');
  if (into.holds !== other.holds)
    throw new Refusal(
      `${into.name} holds ${into.holds} and ${other.name} ${other.holds}: they can not be one list.`,
    );
  const [first, second] = [stateOf(open, list), stateOf(open, from)];
  const merged: ListState = {
    name: first.name,
    entries: mergeEntries([first.entries, second.entries]).entries,
    placements: foldPlacements([...first.placements, ...second.placements]).addresses,
    hungOn: [...new Set([...first.hungOn, ...second.hungOn])],
  };
  const nothing = { name: second.name, entries: [], placements: [], hungOn: [] };
  return {
    said: `Merge ${other.name} into ${into.name}`,
    changes: [
      ...changesFor(differenceOf(first, merged), list),
      ...changesFor(differenceOf(second, nothing), from),
      ...(other.isNew
        ? []
        : [{ kind: 'remove list' as const, listId: from, name: other.name, holds: other.holds }]),
    ],
    why: `${other.name} merged into ${into.name}`,
  };
}

/** Entries that others make needless for good (rules 3). */
export function dropNeedless(open: Open, { list }: EditOf<'drop needless'>): Planned {
  const { name } = requireList(open, list);
  const shape = open.draft.gate.shape();
  const own = new Map(
    shape.negatives.filter(({ place }) => place.kind === 'list' && place.id === list).map((n) => [n.id, n]),
  );
  const needless = findRedundant(shape).flatMap(({ id, lasting }) => (lasting ? (own.get(id) ?? []) : []));
  const staying = new Set(
    [...own.values()].filter((n) => !needless.includes(n)).map((n) => `${n.match} ${normalise(n.text)}`),
  );
  const gone = distinct(needless).filter((n) => !staying.has(`${n.match} ${normalise(n.text)}`));
  return {
    said: `Drop ${counted(gone.length, 'needless entry', 'needless entries')} of ${name}`,
    ...{ changes: removes(list, gone), why: 'others stop the same', keepsAnswers: true },
  };
}

export function removeList(open: Open, { list }: EditOf<'remove list'>): Planned {
  const { name, holds, isNew } = requireList(open, list);
  if (isNew) throw new Refusal(`${name} is not made yet: take it out of the tray.`);
  const state = stateOf(open, list);
  const nothing = { name: state.name, entries: [], placements: [], hungOn: [] };
  return {
    said: `Remove the list ${name}, with its ${counted(state.entries.length + state.placements.length, 'entry', 'entries')}`,
    changes: [
      ...changesFor(differenceOf(state, nothing), list),
      { kind: 'remove list', listId: list, name, holds },
    ],
    why: 'the list was removed',
  };
}

/** Takes a list down from one campaign, and hangs a new list there with its other entries: those that hurt nothing. */
export function hangRest(open: Open, { list, campaign, without }: EditOf<'rest'>): Planned {
  const { name } = requireList(open, list);
  const { gate } = open.draft;
  const campaignName = open.names.campaign(campaign);
  if (campaignName === undefined) throw new Refusal('This campaign is not there any more.', 404);
  const left = new Set(without.map((entry) => `${entry.match} ${normalise(entry.text)}`));
  const rest = gate.entriesAt(placeOf(list)).filter((e) => !left.has(`${e.match} ${normalise(e.text)}`));
  const part = made(`${name} · for ${campaignName}`);
  const hangs = gate.hungOn(list);
  if (hangs === 'account') throw new Refusal(`${name} hangs on the whole account. Take it down there first.`);
  return {
    said: `Hang ${counted(rest.length, 'entry', 'entries')} of ${name} on ${campaignName} as a list of its own`,
    changes: [
      ...part.makes,
      ...adds(part.id, rest),
      { kind: 'hang list', listId: part.id, campaignId: campaign },
      ...(hangs.includes(campaign)
        ? [{ kind: 'take down list' as const, listId: list, campaignId: campaign }]
        : []),
    ],
    why: `${name} without what hurts ${campaignName}`,
  };
}

export function gather({ name, entries, from }: EditOf<'gather'>): Planned {
  const where = from[0]!.kind === 'account' ? 'the whole account' : counted(from.length, 'campaign');
  return {
    said: `Move ${counted(entries.length, 'negative')} that stand one by one on ${where} into the list ${name}`,
    changes: gatherIntoList({ listId: newListId(randomUUID()), name }, entries, from),
    ...{ why: `gathered into the list ${name}`, keepsAnswers: true },
  };
}
