import { matchAll, matchingTexts, matchTexts } from '../../mining';
import { memoised } from '../../memoised';
import {
  isInForceIn,
  placeKey,
  type AccountShape,
  type NegativeText,
  type Place,
  type PlacedNegative,
} from '../../gate';
import { rulesOf } from '../kinds';
import { codeKey } from '../product-codes';
import type { GateWriter, RowGate, ServedRows, Step } from './row-gate';
import {
  exclusionKey,
  forkState,
  frameOf,
  NOWHERE,
  shapeOf,
  startState,
  textKey,
  twinsOf,
  type GateState,
} from './gate-state';

/**
 * Lays an account over the rows of a window.
 * @example layGate(served, account).stopCount(0) // 1
 */
export function layGate(rows: ServedRows, account: AccountShape): RowGate {
  const state = startState(rows, account);
  const gate = gateOver(rows, state);
  gate.layAll(account.negatives);
  for (const { code, place } of account.exclusions ?? [])
    gate.apply({ kind: 'exclude product', code, place });
  return gate;
}

const NOTHING: Step = { stopped: [], reopened: [] };

/** @param insideLists what is known of where lists are in force; never changed in place, so that forks may share it */
function gateOver(
  rows: ServedRows,
  state: GateState,
  insideLists = new Map<string, Uint8Array>(),
): RowGate & { layAll(negatives: readonly PlacedNegative[]): void } {
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

  /** Whether an ad group, by its integer, lies within a place. */
  function insideOf({ kind, id }: Place): (adGroup: number) => boolean {
    const { adGroups } = rows;
    switch (kind) {
      case 'account':
        return () => true;
      case 'campaign':
        return (g) => adGroups[g]!.campaignId === id;
      case 'adGroup':
        return (g) => adGroups[g]!.id === id;
      case 'list': {
        const inside = insideList(id ?? '');
        return (g) => inside[g] === 1;
      }
    }
  }

  function within(chosen: readonly number[], place: Place): number[] {
    if (place.kind === 'account' || chosen.length === 0) return [...chosen];
    const isInside = insideOf(place);
    return chosen.filter((r) => isInside(rows.adGroupOf[r]!));
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

  const heldAt = (place: Place) => state.held.get(placeKey(place)) ?? new Map<string, never>();
  const entriesAt = (place: Place) => [...heldAt(place).values()].flatMap(twinsOf);

  /** Rows that come under a list by its hanging there, a row once for each entry that matches it. */
  function reachedByHanging(listId: string, campaignId: string | null): number[] {
    const { campaigns } = state.hangings.get(listId) ?? NOWHERE;
    const isNew = rows.adGroups.map((g) =>
      campaignId === null ? !campaigns.has(g.campaignId) : g.campaignId === campaignId,
    );
    const rowsOf = (entry: NegativeText) => matched(entry).filter((r) => isNew[rows.adGroupOf[r]!]);
    return entriesAt({ kind: 'list', id: listId }).flatMap(rowsOf);
  }

  function setHung(listId: string, campaignId: string | null, isHung: boolean): Step {
    const hung = state.hangings.get(listId) ?? NOWHERE;
    const hangs = campaignId === null ? hung.onAccount : hung.campaigns.has(campaignId);
    if (hangs === isHung) return NOTHING;
    const isCovered = campaignId !== null && hung.onAccount;
    const touched = isCovered ? [] : reachedByHanging(listId, campaignId);
    insideLists.delete(listId);
    if (campaignId === null) state.hangings.set(listId, { ...hung, onAccount: isHung });
    else {
      const campaigns = new Set(hung.campaigns);
      if (isHung) campaigns.add(campaignId);
      else campaigns.delete(campaignId);
      state.hangings.set(listId, { ...hung, campaigns });
    }
    return isHung ? raise(touched) : lower(touched);
  }

  function hold({ text, match }: NegativeText, place: Place) {
    const key = textKey({ text, match });
    const times = heldAt(place).get(key)?.times ?? 0;
    state.held.toChange(placeKey(place)).set(key, { negative: { text, match }, place, times: times + 1 });
  }

  /** The same as adding one after another, in one way through the texts. */
  function layAll(negatives: readonly PlacedNegative[]) {
    const { rowStarts, adGroupOf } = rows;
    const insideAt = memoised(placeKey, insideOf);
    const isInside = negatives.map(({ place }) => insideAt(place));
    for (const negative of negatives) hold(negative, negative.place);
    matchAll(rows.table, negatives, (t, n) => {
      for (let r = rowStarts[t]!; r < rowStarts[t + 1]!; r++)
        if (isInside[n]!(adGroupOf[r]!)) state.counts[r]! += 1;
    });
  }

  const writer: GateWriter = {
    addNegative(negative, place) {
      hold(negative, place);
      return raise(reached(negative, place));
    },
    removeNegative(negative, place) {
      const entry = heldAt(place).get(textKey(negative));
      if (!entry) return NOTHING;
      const opened: number[] = [];
      for (let i = 0; i < entry.times; i++) opened.push(...lower(reached(negative, place)).reopened);
      state.held.toChange(placeKey(place)).delete(textKey(negative));
      return { stopped: [], reopened: opened };
    },
    makeList(listId) {
      if (!state.hangings.has(listId)) state.hangings.set(listId, NOWHERE);
      return NOTHING;
    },
    dropList(listId) {
      state.hangings.delete(listId);
      insideLists.delete(listId);
      return NOTHING;
    },
    hang: (listId, campaignId) => setHung(listId, campaignId, true),
    takeDown: (listId, campaignId) => setHung(listId, campaignId, false),
    addPlacement(listId, address) {
      state.placements.toChange(listId).add(address);
      return NOTHING;
    },
    removePlacement(listId, address) {
      state.placements.toChange(listId).delete(address);
      return NOTHING;
    },
    exclude(code, place) {
      if (state.excluded.has(exclusionKey(code, place))) return NOTHING;
      state.excluded.set(exclusionKey(code, place), { code, place });
      return raise(reachedByCode(code, place));
    },
    readmit(code, place) {
      if (!state.excluded.delete(exclusionKey(code, place))) return NOTHING;
      return lower(reachedByCode(code, place));
    },
  };

  return {
    layAll,
    stopCount: (row) => state.counts[row]!,
    apply: (change) => rulesOf(change).apply?.(change, writer) ?? NOTHING,
    restore: (change, account) => rulesOf(change).restore?.(change, writer, account) ?? NOTHING,
    matched,
    openTo,
    within,
    reached,
    reachedByCode,
    excludes: (code, place) => state.excluded.has(exclusionKey(code, place)),
    holds: (negative, place) => heldAt(place).has(textKey(negative)),
    twinsAt: (negative, place) => twinsOf(heldAt(place).get(textKey(negative))),
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
    hasList: (listId) => state.hangings.has(listId),
    frame: () => frameOf(rows, state),
    shape: () => shapeOf(rows, state),
    fork: () => gateOver(rows, forkState(state), new Map(insideLists)),
  };
}
