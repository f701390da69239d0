import * as v from 'valibot';
import type { Change, ChangeKind, NegativeText } from '@/core';
import { ChangeSchema, DaysSchema, StoredNumberSchema, type Few, type Touched, type Weight } from './common';

export const DraftRequestSchema = v.object({
  changes: v.pipe(
    v.array(
      v.object({
        change: ChangeSchema,
        why: v.optional(v.nullable(v.pipe(v.string(), v.maxLength(500)))),
        /** stops protected terms in spite of it, for this reason */
        forcedBecause: v.optional(
          v.pipe(v.string(), v.trim(), v.minLength(3, 'Give a reason.'), v.maxLength(500)),
        ),
        /** the search term from which a negative is made */
        from: v.optional(v.pipe(v.string(), v.maxLength(500))),
      }),
    ),
    v.minLength(1),
    v.maxLength(10_000),
  ),
  days: DaysSchema,
});

/** Changes of a tray that was given out: those named, or all that can be taken back. */
export const BackRequestSchema = v.object({
  changeIds: v.optional(v.pipe(v.array(StoredNumberSchema), v.minLength(1), v.maxLength(10_000))),
});

export const RemoveRequestSchema = v.object({
  changeIds: v.pipe(v.array(StoredNumberSchema), v.minLength(1), v.maxLength(10_000)),
});

/** What became of one change that was put in the tray. */
export type DraftOutcome =
  /** `heed`: what is to be known of its place */
  | { outcome: 'drafted'; changeId: number; change: Change; said: string; heed: string | null }
  /** its opposite was in the tray; both are gone now */
  | { outcome: 'cancelled'; removed: Change; said: string }
  | { outcome: 'already there'; said: string }
  | { outcome: 'refused'; said: string }
  /** it would stop protected terms */
  | { outcome: 'held back'; said: string; terms: Few<string> };

export type TrayChange = {
  id: number;
  kind: ChangeKind;
  change: Change;
  said: string;
  /** what it stops beyond the changes before it, and what it opens again */
  stops: Weight;
  reopens: Weight;
  by: string;
  why: string | null;
  forcedBecause: string | null;
  failedBefore: string | null;
  touched: Touched;
  /** of a list: where it hangs, by name */
  reaches: string | null;
  /** what is to be known of its place: that it is paused, or known only from a report */
  placeNote: string | null;
  /** protected terms that it would stop, with no reason given: it can not be sent so */
  heldBackBy: Few<string>;
};

export type SentState = {
  setId: number;
  /** handed over and said to be done: of an account without a platform */
  state: 'sending' | 'handed over' | 'said to be done' | 'confirmed' | 'partly failed';
  sentBy: string | null;
  sentAt: string | null;
  total: number;
  answered: number;
  /** the first of those that nobody has answered or shown yet */
  waiting: { id: number; said: string }[];
  confirmed: number;
  failed: { said: string; reason: string }[];
  /** how many of those that failed can be put back in the tray: they were not found as they should be */
  lost: number;
  trouble: string | null;
};

type Room = {
  place: string;
  what: 'negatives' | 'lists' | 'placements';
  used: number;
  most: number;
  /** over the limit: what is needless there */
  couldDrop: Few<NegativeText>;
};

export type TrayView = {
  window: { from: string; to: string };
  changes: TrayChange[];
  /** all changes together, each term once */
  stops: Weight;
  reopens: Weight;
  /** how full the places are that the changes add to, once they are sent */
  room: Room[];
  /** spend of each day of the window, split by what it brought and what the draft stops */
  days: { day: string; returnedMicros: number; openMicros: number; stoppedMicros: number }[];
  /** what was sent or handed over and is not settled, the newest first; else what was settled last */
  sent: SentState[];
};

/** What is needless where a limit is passed, as a sentence; nothing where there is none. */
export function sayCouldDrop({ count, first }: Few<NegativeText>): string {
  if (count === 0) return '';
  const named = first.map(({ text, match }) => `“${text}” (${match})`).join(', ');
  const more = count > first.length ? ` and ${count - first.length} more` : '';
  return ` Needless there, since others stop the same: ${named}${more}.`;
}
