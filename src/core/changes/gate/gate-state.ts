import { group } from 'd3-array';
import { placeKey, type AccountShape, type NegativeText, type Place } from '../../gate';
import { normalise } from '../../text';
import { copyOnWrite, type CopyOnWrite } from './copy-on-write';
import { codeKey } from '../product-codes';
import type { ServedRows } from './row-gate';

type Held = { negative: NegativeText; place: Place; times: number };

/** Where a list hangs: on the whole account, on campaigns, or on both. */
type Hung = { onAccount: boolean; campaigns: ReadonlySet<string> };
export const NOWHERE: Hung = { onAccount: false, campaigns: new Set() };

/** What a gate over the rows of a window knows of the account. */
export type GateState = {
  /** negatives in force over each row, product exclusions among them */
  counts: Uint32Array;
  /** place → text key → how many times it stands there (years leave twins), and the text */
  held: CopyOnWrite<Map<string, Held>>;
  hangings: Map<string, Hung>;
  /** list → the placements in it */
  placements: CopyOnWrite<Set<string>>;
  /** place and code → the exclusion that stands there */
  excluded: Map<string, { code: string; place: Place }>;
};

/** A negative as often as it stands at its place. */
export const twinsOf = (held: Held | undefined): NegativeText[] =>
  held ? Array<NegativeText>(held.times).fill(held.negative) : [];

export const exclusionKey = (code: string, place: Place) => `${placeKey(place)} ${codeKey(code)}`;
export const textKey = ({ match, text }: NegativeText) => `${match} ${normalise(text)}`;

/** Nothing in force yet; its lists hang where they do. */
export function startState(rows: ServedRows, { lists }: AccountShape): GateState {
  const state: GateState = {
    counts: new Uint32Array(rows.adGroupOf.length),
    held: copyOnWrite((of) => new Map(of)),
    hangings: new Map(),
    placements: copyOnWrite((of) => new Set(of)),
    excluded: new Map(),
  };
  for (const { id, hungOn, besides, placements } of lists) {
    const onAccount = hungOn === 'account';
    state.hangings.set(id, { onAccount, campaigns: new Set(onAccount ? besides : hungOn) });
    for (const placement of placements ?? []) state.placements.toChange(id).add(placement);
  }
  return state;
}

/** The same state, which goes its own way from here. */
export function forkState({ counts, held, hangings, placements, excluded }: GateState): GateState {
  return {
    counts: counts.slice(),
    held: held.fork(),
    hangings: new Map(hangings),
    placements: placements.fork(),
    excluded: new Map(excluded),
  };
}

/** Ad groups, and where the lists of a state hang. */
export function frameOf(rows: ServedRows, state: GateState): Pick<AccountShape, 'campaigns' | 'lists'> {
  return {
    campaigns: [...group(rows.adGroups, (adGroup) => adGroup.campaignId)].map(([id, adGroups]) => ({
      ...{ id, adGroups },
    })),
    lists: [...state.hangings].map(([id, { onAccount, campaigns }]) => ({
      id,
      hungOn: onAccount ? 'account' : [...campaigns],
      ...(onAccount && { besides: [...campaigns] }),
      placements: [...(state.placements.get(id) ?? [])],
    })),
  };
}

/** The account as it stands in a state, with ids of its own for the negatives. */
export function shapeOf(rows: ServedRows, state: GateState): AccountShape {
  return {
    ...frameOf(rows, state),
    negatives: [...state.held.entries()].flatMap(([at, entries]) =>
      [...entries].flatMap(([key, { negative, place, times }]) =>
        Array.from({ length: times }, (_, i) => ({ ...negative, place, id: `${at} ${key} ${i}` })),
      ),
    ),
    exclusions: [...state.excluded.values()],
  };
}
