import type { Change, Figures } from '@/core';
import type { NegativeInPlace, Weight } from './common';

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
    /** accepted: by the platform, and not read back yet; in the tray: drafted, sent or handed over */
    state: 'in force' | 'accepted' | 'said to be done' | 'in the tray';
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

export type LedgerLine = {
  id: number;
  at: string;
  who: string;
  about: 'change' | 'keep' | 'load' | 'note' | 'mark' | 'view' | 'setting' | 'rule';
  /** whether it can be taken back here: what was sent is taken back by a change in the tray */
  canUndo: boolean;
  isUndone: boolean;
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
