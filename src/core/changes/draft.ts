import { group } from 'd3-array';
import { matchingTexts, matchTexts } from '../mining';
import { normalise } from '../text';
import { isInForceIn, placeKey, type AccountShape, type NegativeText, type Place } from '../gate';
import { codeKey, type Change } from './change';
import type { RowGate, ServedRows } from './row-gate';

type Held = { negative: NegativeText; place: Place; times: number };

/** Where a list hangs: on the whole account, on campaigns, or on both. */
type Hung = { onAccount: boolean; campaigns: ReadonlySet<string> };
const NOWHERE: Hung = { onAccount: false, campaigns: new Set() };

type State = {
  /** negatives in force over each row, product exclusions among them */
  counts: Uint32Array;
  /** place → text key → how many times it stands there (years leave twins), and the text */
  held: Map<string, Map<string, Held>>;
  hangings: Map<string, Hung>;
  /** list → the placements in it */
  placements: Map<string, ReadonlySet<string>>;
  /** place and code → the exclusion that stands there */
  excluded: Map<string, { code: string; place: Place }>;
};

const exclusionKey = (code: string, place: Place) => `${placeKey(place)} ${codeKey(code)}`;
const textKey = ({ match, text }: NegativeText) => `${match} ${normalise(text)}`;

/**
 * Lays an account over the rows of a window.
 * @example layGate(served, account).stopCount(0) // 1
 */
export function layGate(rows: ServedRows, account: AccountShape): RowGate {
  const state: State = {
    counts: new Uint32Array(rows.adGroupOf.length),
    held: new Map(),
    hangings: new Map(),
    placements: new Map(),
    excluded: new Map(),
  };
  for (const { id, hungOn, besides, placements } of account.lists) {
    const onAccount = hungOn === 'account';
    state.hangings.set(id, { onAccount, campaigns: new Set(onAccount ? besides : hungOn) });
    if (placements) state.placements.set(id, new Set(placements));
  }
  const gate = gateOver(rows, state);
  for (const { text, match, place } of account.negatives)
    gate.apply({ kind: 'add negative', text, match, place });
  for (const { code, place } of account.exclusions ?? [])
    gate.apply({ kind: 'exclude product', code, place });
  return gate;
}

/** @param insideLists what is known of where lists are in force; never changed in place, so that forks may share it */
function gateOver(rows: ServedRows, state: State, insideLists = new Map<string, Uint8Array>()): RowGate {
  /** places whose entries no fork shares, so that they may be changed where they are */
  let own = new Set<string>();

  function hangsOn(listId: string, campaignId: string): boolean {
    const hung = state.hangings.get(listId);
    return hung !== undefined && (hung.onAccount || hung.campaigns.has(campaignId));
  }

  const isWithin = (place: Place, adGroup: { id: string; campaignId: string }) =>
    isInForceIn(place, adGroup, hangsOn);

  function matched(negative: NegativeText): number[] {
    const found: number[] = [];
    for (const t of matchingTexts(rows.table, negative)) {
      for (let r = rows.rowStarts[t]!; r < rows.rowStarts[t + 1]!; r++) found.push(r);
    }
    return found;
  }

  function openTo(negative: NegativeText): Uint32Array {
    const { rowStarts } = rows;
    const texts = matchTexts(rows.table, negative);
    let most = 0;
    for (let i = 0; i < texts.length; i++) most += rowStarts[texts[i]! + 1]! - rowStarts[texts[i]!]!;
    const found = new Uint32Array(most);
    let count = 0;
    for (let i = 0; i < texts.length; i++) {
      const end = rowStarts[texts[i]! + 1]!;
      for (let r = rowStarts[texts[i]!]!; r < end; r++) if (state.counts[r] === 0) found[count++] = r;
    }
    return found.subarray(0, count);
  }

  /** For each ad group, whether a list is in force there; found once until the list hangs otherwise. */
  function insideList(listId: string): Uint8Array {
    let inside = insideLists.get(listId);
    if (!inside) {
      inside = Uint8Array.from(rows.adGroups, ({ campaignId }) => (hangsOn(listId, campaignId) ? 1 : 0));
      insideLists.set(listId, inside);
    }
    return inside;
  }

  function within(chosen: readonly number[], { kind, id }: Place): number[] {
    if (kind === 'account' || chosen.length === 0) return [...chosen];
    const { adGroupOf, adGroups } = rows;
    switch (kind) {
      case 'campaign':
        return chosen.filter((r) => adGroups[adGroupOf[r]!]!.campaignId === id);
      case 'adGroup':
        return chosen.filter((r) => adGroups[adGroupOf[r]!]!.id === id);
      case 'list': {
        const inside = insideList(id ?? '');
        return chosen.filter((r) => inside[adGroupOf[r]!] === 1);
      }
    }
  }

  const reached = (negative: NegativeText, place: Place) => within(matched(negative), place);

  function reachedByCode(code: string, place: Place): number[] {
    const t = rows.codes?.get(codeKey(code));
    if (t === undefined) return [];
    const start = rows.rowStarts[t]!;
    return within(
      Array.from({ length: rows.rowStarts[t + 1]! - start }, (_, i) => start + i),
      place,
    );
  }

  function shift(touched: readonly number[], by: 1 | -1) {
    const crossed: number[] = [];
    for (const r of touched) {
      if (state.counts[r] === (by === 1 ? 0 : 1)) crossed.push(r);
      state.counts[r]! += by;
    }
    return crossed;
  }
  const raise = (touched: readonly number[]) => ({ stopped: shift(touched, 1), reopened: [] });
  const lower = (touched: readonly number[]) => ({ stopped: [], reopened: shift(touched, -1) });
  const nothing = { stopped: [], reopened: [] };

  const heldAt = (place: Place) => state.held.get(placeKey(place)) ?? new Map<string, never>();
  const entriesAt = (place: Place) =>
    [...heldAt(place).values()].flatMap((e) => Array<NegativeText>(e.times).fill(e.negative));

  /** Rows that come under a list by its hanging there, a row once for each entry that matches it. */
  function reachedByHanging(listId: string, campaignId: string | null): number[] {
    const { campaigns } = state.hangings.get(listId) ?? NOWHERE;
    const isNew = rows.adGroups.map((g) =>
      campaignId === null ? !campaigns.has(g.campaignId) : g.campaignId === campaignId,
    );
    const rowsOf = (entry: NegativeText) => matched(entry).filter((r) => isNew[rows.adGroupOf[r]!]);
    return entriesAt({ kind: 'list', id: listId }).flatMap(rowsOf);
  }

  function changeHanging({
    kind,
    listId,
    campaignId,
  }: Extract<Change, { kind: 'hang list' | 'take down list' }>) {
    const hung = state.hangings.get(listId) ?? NOWHERE;
    const hangs = campaignId === null ? hung.onAccount : hung.campaigns.has(campaignId);
    if (hangs === (kind === 'hang list')) return nothing;
    const isCovered = campaignId !== null && hung.onAccount;
    const touched = isCovered ? [] : reachedByHanging(listId, campaignId);
    insideLists.delete(listId);
    if (campaignId === null) state.hangings.set(listId, { ...hung, onAccount: !hangs });
    else {
      const campaigns = new Set(hung.campaigns);
      if (hangs) campaigns.delete(campaignId);
      else campaigns.add(campaignId);
      state.hangings.set(listId, { ...hung, campaigns });
    }
    return hangs ? lower(touched) : raise(touched);
  }

  function changePlacement({
    kind,
    listId,
    address,
  }: Extract<Change, { kind: 'add placement' | 'remove placement' }>) {
    const placements = ownPlacements(listId);
    if (kind === 'add placement') placements.add(address);
    else placements.delete(address);
    return nothing;
  }

  function ownPlacements(listId: string): Set<string> {
    const at = `placements ${listId}`;
    let placements = state.placements.get(listId) as Set<string> | undefined;
    if (!placements || !own.has(at)) {
      placements = new Set(placements); // copied once: a fork may share it
      state.placements.set(listId, placements);
      own.add(at);
    }
    return placements;
  }

  function replaceAt(place: Place, key: string, entry: Held) {
    const at = placeKey(place);
    if (!own.has(at)) {
      state.held.set(at, new Map(heldAt(place))); // copied once: a fork may share it
      own.add(at);
    }
    const entries = state.held.get(at)!;
    if (entry.times === 0) entries.delete(key);
    else entries.set(key, entry);
  }

  function apply(change: Change): { stopped: number[]; reopened: number[] } {
    switch (change.kind) {
      case 'add negative': {
        const times = heldAt(change.place).get(textKey(change))?.times ?? 0;
        const negative = { text: change.text, match: change.match };
        replaceAt(change.place, textKey(change), { negative, place: change.place, times: times + 1 });
        return raise(reached(change, change.place));
      }
      case 'remove negative': {
        const entry = heldAt(change.place).get(textKey(change));
        if (!entry) return nothing;
        const opened: number[] = [];
        for (let i = 0; i < entry.times; i++) opened.push(...lower(reached(change, change.place)).reopened);
        replaceAt(change.place, textKey(change), { ...entry, times: 0 });
        return { stopped: [], reopened: opened };
      }
      case 'hang list':
      case 'take down list':
        return changeHanging(change);
      case 'add placement':
      case 'remove placement':
        return changePlacement(change);
      case 'make list':
        if (!state.hangings.has(change.listId)) state.hangings.set(change.listId, NOWHERE);
        return nothing;
      case 'remove list': // a platform removes only lists that are empty and hang nowhere
      case 'rename list':
        return nothing;
      case 'exclude product': {
        const { code, place } = change;
        if (state.excluded.has(exclusionKey(code, place))) return nothing;
        state.excluded.set(exclusionKey(code, place), { code, place });
        return raise(reachedByCode(code, place));
      }
      case 'readmit product': {
        if (!state.excluded.delete(exclusionKey(change.code, change.place))) return nothing;
        return lower(reachedByCode(change.code, change.place));
      }
      case 'set bid':
      case 'pause keyword':
      case 'run keyword':
        return nothing; // they stop no query: another keyword may serve it
    }
  }

  return {
    stopCount: (row) => state.counts[row]!,
    apply,
    matched,
    openTo,
    within,
    reached,
    reachedByCode,
    excludes: (code, place) => state.excluded.has(exclusionKey(code, place)),
    holds: (negative, place) => heldAt(place).has(textKey(negative)),
    isWithin,
    entriesAt,
    listsOn: (campaignId) =>
      [...state.hangings].flatMap(([id, { campaigns }]) => (campaigns.has(campaignId) ? [id] : [])),
    placementsIn: (listId) => [...(state.placements.get(listId) ?? [])],
    holdsPlacement: (listId, address) => state.placements.get(listId)?.has(address) ?? false,
    hungOn(listId) {
      const { onAccount, campaigns } = state.hangings.get(listId) ?? NOWHERE;
      return onAccount ? 'account' : [...campaigns];
    },
    shape: () => ({
      campaigns: [...group(rows.adGroups, (adGroup) => adGroup.campaignId)].map(([id, adGroups]) => ({
        ...{ id, adGroups },
      })),
      lists: [...state.hangings].map(([id, { onAccount, campaigns }]) => ({
        id,
        hungOn: onAccount ? 'account' : [...campaigns],
        ...(onAccount && { besides: [...campaigns] }),
        placements: [...(state.placements.get(id) ?? [])],
      })),
      negatives: [...state.held].flatMap(([at, entries]) =>
        [...entries].flatMap(([key, { negative, place, times }]) =>
          Array.from({ length: times }, (_, i) => ({ ...negative, place, id: `${at} ${key} ${i}` })),
        ),
      ),
      exclusions: [...state.excluded.values()],
    }),
    fork() {
      own = new Set();
      return gateOver(
        rows,
        {
          counts: state.counts.slice(),
          held: new Map(state.held),
          hangings: new Map(state.hangings),
          placements: new Map(state.placements),
          excluded: new Map(state.excluded),
        },
        new Map(insideLists),
      );
    },
  };
}
