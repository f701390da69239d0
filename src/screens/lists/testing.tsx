import { screen } from '@testing-library/react';
import type { EditPlan } from '@/contracts/list-edits';
import { aListsView, aWeight } from '../testing/builders';
import { show, type Answers } from '../testing/screen';
import { ListsScreen } from './lists-screen';

/** What the tests of Lists start from: the lists there are, and a plan of an edit. */

export const few = { count: 0, first: [] };
export const aPlan = (over: Partial<EditPlan> = {}): EditPlan => ({
  ...{ said: 'Paste 2 entries into Films', changes: 2, some: ['Stop “movie” (phrase) in list Films'] },
  ...{ refused: few, twice: 0, already: 0, folded: few, stops: aWeight(), reopens: aWeight(), touched: [] },
  ...{ protectedTerms: few, reaches: { everywhere: false, campaigns: ['Hives'] }, over: [], proof: null },
  ...over,
});
export const outcome = {
  changeIds: [3, 4],
  said: 'Paste 2 entries into Films: in the tray',
  heldBack: null,
  refused: few,
};
export const stopped = {
  ...{
    terms: 9,
    clicks: 30,
    costMicros: 18_000_000,
    returningTerms: 0,
    conversions: 0,
    unknown: 0,
    known: 1,
  },
};

export const ANSWERS: Answers = {
  'GET lists': aListsView(),
  'GET lists/health': { lists: { '1': { stopped, redundant: 2, last: null } } },
  'GET lists/could-be': { sets: [] },
  'GET lists/account-wide': { used: 0, most: 1_200, entries: [] },
  'POST lists/plan': aPlan(),
  'POST lists/edit': outcome,
};
export const showLists = (more: Answers = {}, search = '') =>
  show(<ListsScreen />, { answers: { ...ANSWERS, ...more }, search });
export const inHand = () => screen.getByRole('region', { name: 'In hand' });
