import type { Change, Figures, MatchType } from '@/core';
import type { Few, NegativeInPlace, Touched, Weight } from './common';

/** Gate check: whether a query gets through, where, and what stops it. */
export type GateAnswer = {
  /** the query as it is compared; '' when it holds no word */
  text: string;
  adGroups: number;
  open: number;
  /** ad groups that are open now and that the tray would stop; and the other way round */
  stoppedByTray: number;
  openedByTray: number;
  stoppers: (NegativeInPlace & {
    /** ad groups in which it stops the query */
    adGroups: number;
    campaigns: string[];
    inTray: boolean;
  })[];
  campaigns: {
    id: string;
    name: string;
    status: string;
    open: number;
    stopped: number;
    stoppedIn: string[];
    openIn: string[];
  }[];
};

export type ListsView = {
  window: { from: string; to: string };
  campaigns: { id: string; name: string; status: string }[];
  lists: {
    id: string;
    name: string;
    /** made in the tray, not sent yet */
    isNew: boolean;
    entries: number;
    hungOn: readonly string[] | 'account';
    /** by campaign id: in the tray to be hung (true) or taken down (false) */
    drafted: Record<string, boolean>;
    /** by campaign id: live keywords that its entries shut out or narrow where it hangs */
    hurts: Record<string, number>;
    room: number;
  }[];
};

export type ListEntry = {
  text: string;
  match: MatchType;
  since: string | null;
  drafted: 'added' | 'removed' | null;
};

/** A list and one campaign: what hanging it there stops, or would stop. */
export type CellAnswer = {
  listId: string;
  name: string;
  campaignId: string | null;
  campaignName: string | null;
  hangs: boolean;
  /** of the rows that its entries match in the campaign, those that only this list stops (hung) or would stop */
  weight: Weight;
  touched: Touched;
  protectedTerms: Few<string>;
  entries: ListEntry[];
};

export type LedgerLine = {
  id: number;
  at: string;
  who: string;
  about: 'change' | 'keep' | 'load' | 'note' | 'mark' | 'view';
  what: string;
  why: string | null;
  change: {
    id: number;
    state: string;
    undo: Change;
    undoneBy: 'drafted' | 'sent' | null;
    sentDay: string;
    before: { days: number; terms: number; figures: Figures } | null;
    /** null until a report reaches the day it was sent */
    since: {
      days: number;
      /** what its terms cost where it acts */
      here: Weight;
      /** what its terms cost elsewhere: they slip through */
      elsewhere: Weight;
      slips: {
        text: string;
        adGroup: string;
        campaign: string;
        clicks: number | null;
        costMicros: number | null;
      }[];
    } | null;
  } | null;
};
export type LedgerPage = { lines: LedgerLine[]; next: number | null };
