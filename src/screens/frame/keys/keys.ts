'use client';

import { useStored } from '@/ui/stored';

/** The keys of Gate Post, for the help page; single ones act only where they are said to. */
export const KEYS: readonly { where: string; keys: readonly (readonly [string, string])[] }[] = [
  {
    where: 'Everywhere',
    keys: [
      ['g', 'check whether a query gets through'],
      ['Ctrl K', 'go to a screen, campaign, list, term, setting or command'],
      ['Ctrl Z', 'undo what was done last'],
      ['Esc', 'back to the table, from filters, fields and pages'],
      ['?', 'this page'],
    ],
  },
  {
    where: 'In every table',
    keys: [
      ['↑ ↓', 'the row before or after; above the first, the heads'],
      ['← →', 'at the heads: the one beside it'],
      ['↵', 'at the heads: sort by it; among rows: open the row'],
      ['Shift ←→', 'at the heads: narrower, wider'],
      ['Space', 'at the heads: columns, and saving; among rows: mark'],
      ['Shift ↑↓', 'mark what is passed'],
      ['Ctrl A', 'mark all'],
      ['Ctrl C', 'copy what is marked, or the row in hand, as cells'],
      ['Esc', 'take all marks off'],
    ],
  },
  {
    where: 'Among the search terms',
    keys: [
      ['1 – 9', 'choose a word, or let it go'],
      ['m', 'the next match type'],
      ['p', 'the next place'],
      ['↵', 'put it in the tray'],
      ['w', 'stop the whole term as exact'],
      ['v', 'stop the variants that are offered too'],
      ['o', 'keep it open'],
      ['b', 'stop it here, and where it is likely to come back'],
      ['l', 'set it aside until it has more clicks'],
      ['n', 'the next term that nobody looked at in this pass'],
      ['k', 'the other keywords of its ad group'],
      ['f', 'to the filters'],
    ],
  },
  {
    where: 'In Promote',
    keys: [
      ['1 – 9', 'take a part of the plan out, or put it in again'],
      ['↵', 'put the plan in the tray; a keyword: lower its bid to what pays'],
      ['x', 'not for this, until it brings another conversion'],
      ['p', 'pause the keyword'],
      ['l', 'leave the keyword for more clicks'],
    ],
  },
  {
    where: 'In Rules',
    keys: [
      ['↵', 'a finding: put its stop in the tray; a rule: open its sentence'],
      ['x', 'a finding: no, for a reason'],
      ['l', 'a finding: look at it in a week'],
      ['o', 'a finding: open it again; a rule: on or off'],
      ['Del', 'remove the rule'],
    ],
  },
  {
    where: 'In Research',
    keys: [
      ['1 – 9', 'pick the word of the remainder that is at fault'],
      ['m', 'the next match type; among groups: move or merge'],
      ['v', 'with the other forms of the words, or without'],
      ['↵', 'put it in the tray; among groups: take the one that is proposed'],
      ['o', 'keep its ideas'],
      ['x', 'drop its ideas from the sheet; a group'],
      ['y', 'copy the negatives as lines'],
      ['← →', 'close a group, open it'],
      ['t', 'take all groups that are proposed'],
      ['n', 'name a group'],
      ['p', 'part the marked ideas off as a group'],
      ['w', 'make each idea of a group its own group'],
      ['s', 'turn a group into a negative'],
      ['f', 'to the filters'],
    ],
  },
  {
    where: 'In the tray',
    keys: [
      ['↑ ↓', 'the change before or after'],
      ['↵', 'open a group of changes, or close it'],
      ['Delete', 'take it out of the tray'],
    ],
  },
  {
    where: 'In the Ledger',
    keys: [
      ['u', 'undo the entry in hand'],
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
    where: 'In Untangle',
    keys: [
      ['1 – 9', 'choose a way out, or who stays'],
      ['↵', 'put it in the tray'],
      ['r', 'remove what stands twice, or is misspelt'],
      ['m', 'the next match type'],
      ['p', 'the next place'],
      ['l', 'leave it with a reason, or take it up again'],
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
    ],
  },
];

const STORED = 'gatepost-single-keys';
const areOn = (text: string | null) => text !== 'off';

/** Whether single letters act; each person can switch them off (WCAG 2.1.4). */
export function useSingleKeys(): [boolean, (on: boolean) => void] {
  const [on, store] = useStored(STORED, areOn);
  return [on, (next) => store(next ? 'on' : 'off')];
}

/** Whether a key is pressed alone, by a person who has single letters act. */
export function isPlain(
  { ctrlKey, metaKey, altKey }: Pick<KeyboardEvent, 'ctrlKey' | 'metaKey' | 'altKey'>,
  areSingleOn: boolean,
): boolean {
  return areSingleOn && !ctrlKey && !metaKey && !altKey;
}
