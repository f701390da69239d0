'use client';

import { useSyncExternalStore } from 'react';

/** The keys of Gate Post, for the help page; single ones act only where they are said to. */
export const KEYS: readonly { where: string; keys: readonly (readonly [string, string])[] }[] = [
  {
    where: 'Everywhere',
    keys: [
      ['g', 'check whether a query gets through'],
      ['Ctrl Z', 'undo what was done last'],
      ['?', 'this page'],
    ],
  },
  {
    where: 'Among the search terms',
    keys: [
      ['↑ ↓', 'the term before or after'],
      ['1 – 9', 'choose a word, or let it go'],
      ['m', 'the next match type'],
      ['p', 'the next place'],
      ['↵', 'put it in the tray'],
      ['w', 'stop the whole term as exact'],
      ['v', 'stop the variants that are offered too'],
      ['o', 'keep it open'],
      ['l', 'set it aside until it has more clicks'],
      ['n', 'the next term that nobody looked at in this pass'],
      ['k', 'the other keywords of its ad group'],
      ['Space', 'mark it for a batch'],
      ['Ctrl A', 'mark all that the filters show'],
      ['Esc', 'take all marks off'],
      ['f', 'to the filters'],
    ],
  },
  {
    where: 'In the pass through what surely can’t pay',
    keys: [
      ['↑ ↓', 'the word or term before or after'],
      ['↵', 'put it in the tray'],
      ['Shift ↵', 'put all of its step in the tray'],
      ['p', 'the next place for a word'],
      ['l', 'not at fault; a term: set it aside'],
      ['o', 'keep a term open'],
    ],
  },
  {
    where: 'Among the runs of words',
    keys: [
      ['↑ ↓', 'the run before or after'],
      ['↵', 'the terms that hold it, or all again'],
    ],
  },
  {
    where: 'In Lists',
    keys: [
      ['↑ ↓ ← →', 'the cell, list or entry beside it'],
      ['↵', 'hang what is marked, or take it down; open a list'],
      ['Shift →', 'mark cells'],
      ['Space', 'mark the row of the grid, or the entry'],
      ['Ctrl Spc', 'mark the column of the grid'],
      ['Ctrl A', 'mark all entries that are shown'],
    ],
  },
];

const STORED = 'gatepost-single-keys';
const listeners = new Set<() => void>();

const areOn = () => typeof localStorage === 'undefined' || localStorage.getItem(STORED) !== 'off';

/** Whether single letters act; each person can switch them off (WCAG 2.1.4). */
export function useSingleKeys(): [boolean, (on: boolean) => void] {
  const on = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
    areOn,
    () => true,
  );
  const set = (next: boolean) => {
    localStorage.setItem(STORED, next ? 'on' : 'off');
    for (const listener of listeners) listener();
  };
  return [on, set];
}
