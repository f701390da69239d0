import type { AccountShape, NegativeText, Place } from '../../gate';
import type { TermTable } from '../../mining';
import type { Change } from '../change';

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

/** The open rows that a step stopped, and the stopped rows that it opened. */
export type Step = { stopped: number[]; reopened: number[] };

/** What the kinds of change do to a gate; each answers with the rows that crossed. */
export type GateWriter = {
  addNegative(negative: NegativeText, place: Place): Step;
  /** Takes a negative away with its twins, as platforms do. */
  removeNegative(negative: NegativeText, place: Place): Step;
  makeList(listId: string): Step;
  /** Takes away a list that is empty and hangs nowhere. */
  dropList(listId: string): Step;
  /** @param campaignId null is the whole account */
  hang(listId: string, campaignId: string | null): Step;
  takeDown(listId: string, campaignId: string | null): Step;
  addPlacement(listId: string, address: string): Step;
  removePlacement(listId: string, address: string): Step;
  exclude(code: string, place: Place): Step;
  readmit(code: string, place: Place): Step;
};

/**
 * The gate of an account over the rows of a window: how many negatives in force stop each row, as the account
 * stands and as each change leaves it. Changes are applied one after another; nothing is scanned but the posting
 * lists of the words they hold.
 */
export type RowGate = {
  /** Number of negatives in force that stop row r. */
  stopCount(row: number): number;
  /** Applies a change. Returns the open rows that it stopped and the stopped rows that it opened. */
  apply(change: Change): Step;
  /**
   * Takes a change back that was applied: what the change is about stands again as it does in `account`. Unlike the opposite
   * change, it brings back every twin. Nothing else that was applied is touched.
   */
  restore(change: Change, account: RowGate): Step;
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
  /** The negative as often as it stands there: years leave twins. */
  twinsAt(negative: NegativeText, place: Place): NegativeText[];
  /** Whether the place already excludes this product. */
  excludes(code: string, place: Place): boolean;
  /** Whether an ad group lies within a place. */
  isWithin(place: Place, adGroup: { id: string; campaignId: string }): boolean;
  /** The negatives of a place, a twin as often as it stands there. */
  entriesAt(place: Place): NegativeText[];
  /** Ids of the lists that hang on a campaign; those on the whole account are not among them. */
  listsOn(campaignId: string): string[];
  hungOn(listId: string): readonly string[] | 'account';
  /** Whether there is such a list. */
  hasList(listId: string): boolean;
  /** The placements of a list, in the order in which they came. */
  placementsIn(listId: string): string[];
  holdsPlacement(listId: string, address: string): boolean;
  /** Its ad groups and where its lists hang. */
  frame(): Pick<AccountShape, 'campaigns' | 'lists'>;
  /** The account as it stands here, with ids of its own for the negatives. */
  shape(): AccountShape;
  /** A gate that starts as this one stands and goes its own way. */
  fork(): RowGate;
};
