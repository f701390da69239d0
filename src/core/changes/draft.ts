import { group } from 'd3-array';
import { matchingTexts, matchTexts, type TermTable } from '../mining';
import { normalise } from '../text';
import { isInForceIn, placeKey, type AccountShape, type NegativeText, type Place } from '../gate';
import { codeKey, type Change } from './change';

/**
 * What was served in a window: row r is term `termOf[r]` in ad group `adGroupOf[r]`.
 * Rows stand by term: term t owns rows rowStarts[t] .. rowStarts[t + 1].
 */
export type ServedRows = {
  table: TermTable;
  rowStarts: Uint32Array;
  adGroupOf: Uint32Array;
  /** ids of the ad groups, in the order of the integers in adGroupOf */
  adGroups: readonly { id: string; campaignId: string }[];
  /** product codes, as `codeKey` writes them, and the term each is; they hold no words in the table */
  codes?: ReadonlyMap<string, number>;
};

/**
 * The gate of an account over the rows of a window: how many negatives in force stop each row, as the account
 * stands and as each change leaves it. Changes are applied one after another; nothing is scanned but the posting
 * lists of the words they hold.
 */
export type RowGate = {
  /** Number of negatives in force that stop row r. */
  stopCount(row: number): number;
  /** Applies a change and returns the rows it stopped that were open, and the rows it opened that were stopped. */
  apply(change: Change): { stopped: number[]; reopened: number[] };
  /** Rows that the negative matches, wherever they are, open or not; ascending. */
  matched(negative: NegativeText): number[];
  /** Of them, those that nothing stops yet; ascending. */
  openTo(negative: NegativeText): Uint32Array;
  /** Those of the rows that lie within a place. */
  within(rows: readonly number[], place: Place): number[];
  /** Rows that the negative matches and that lie within its place, open or not; ascending. */
  reached(negative: NegativeText, place: Place): number[];
  /** Rows that the place's product exclusion of a code stops, or would stop; ascending. */
  reachedByCode(code: string, place: Place): number[];
  /** Whether the place already holds this negative. */
  holds(negative: NegativeText, place: Place): boolean;
  /** Whether the place already excludes this product. */
  excludes(code: string, place: Place): boolean;
  /** Whether an ad group lies within a place. */
  isWithin(place: Place, adGroup: { id: string; campaignId: string }): boolean;
  /** The negatives of a place, a twin as often as it stands there. */
  entriesAt(place: Place): NegativeText[];
  /** Ids of the lists that hang on a campaign; those on the whole account are not among them. */
  listsOn(campaignId: string): string[];
  hungOn(listId: string): readonly string[] | 'account';
  /** The account as it stands here, with ids of its own for the negatives. */
  shape(): AccountShape;
  /** A gate that starts as this one stands and goes its own way. */
  fork(): RowGate;
};

type Held = { negative: NegativeText; place: Place; times: number };

type State = {
  /** negatives in force over each row, product exclusions among them */
  counts: Uint32Array;
  /** place → text key → how many times it stands there (years leave twins), and the text */
  held: Map<string, Map<string, Held>>;
  hangings: Map<string, ReadonlySet<string> | 'account'>;
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
    excluded: new Map(),
  };
  for (const list of account.lists) {
    state.hangings.set(list.id, list.hungOn === 'account' ? 'account' : new Set(list.hungOn));
  }
  const gate = gateOver(rows, state);
  for (const { text, match, place } of account.negatives)
    gate.apply({ kind: 'add negative', text, match, place });
  for (const { code, place } of account.exclusions ?? [])
    gate.apply({ kind: 'exclude product', code, place });
  return gate;
}

function gateOver(rows: ServedRows, state: State): RowGate {
  /** places whose entries no fork shares, so that they may be changed where they are */
  let own = new Set<string>();

  function hangsOn(listId: string, campaignId: string): boolean {
    const hung = state.hangings.get(listId);
    return hung === 'account' || (hung?.has(campaignId) ?? false);
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

  function within(chosen: readonly number[], place: Place): number[] {
    if (place.kind === 'account') return [...chosen];
    const isInside = rows.adGroups.map((adGroup) => isWithin(place, adGroup));
    return chosen.filter((r) => isInside[rows.adGroupOf[r]!]);
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

  /** Rows of one campaign that the entries of a list match, a row once for each entry. */
  function reachedOnCampaign(listId: string, campaignId: string): number[] {
    const entries = entriesAt({ kind: 'list', id: listId });
    return entries.flatMap((entry) => reached(entry, { kind: 'campaign', id: campaignId }));
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

  function setHung(listId: string, hung: ReadonlySet<string>) {
    state.hangings.set(listId, hung);
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
      case 'hang list': {
        const hung = state.hangings.get(change.listId) ?? new Set<string>();
        if (hung === 'account' || hung.has(change.campaignId)) return nothing;
        setHung(change.listId, new Set([...hung, change.campaignId]));
        return raise(reachedOnCampaign(change.listId, change.campaignId));
      }
      case 'take down list': {
        const hung = state.hangings.get(change.listId);
        if (!hung || hung === 'account' || !hung.has(change.campaignId)) return nothing;
        setHung(change.listId, new Set([...hung].filter((id) => id !== change.campaignId)));
        return lower(reachedOnCampaign(change.listId, change.campaignId));
      }
      case 'make list':
        if (!state.hangings.has(change.listId)) setHung(change.listId, new Set());
        return nothing;
      case 'remove list':
        return nothing; // a platform removes only lists that are empty and hang nowhere
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
      [...state.hangings].flatMap(([id, hung]) => (hung !== 'account' && hung.has(campaignId) ? [id] : [])),
    hungOn(listId) {
      const hung = state.hangings.get(listId);
      return hung === 'account' ? 'account' : [...(hung ?? [])];
    },
    shape: () => ({
      campaigns: [...group(rows.adGroups, (adGroup) => adGroup.campaignId)].map(([id, adGroups]) => ({
        ...{ id, adGroups },
      })),
      lists: [...state.hangings].map(([id, hung]) => ({
        id,
        hungOn: hung === 'account' ? 'account' : [...hung],
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
      return gateOver(rows, {
        counts: state.counts.slice(),
        held: new Map(state.held),
        hangings: new Map(state.hangings),
        excluded: new Map(state.excluded),
      });
    },
  };
}
