import {
  Armchair,
  BookText,
  CalendarDays,
  Inbox,
  Lightbulb,
  ListTree,
  Rows3,
  Ruler,
  ScanSearch,
  SlidersHorizontal,
  Spline,
} from 'lucide-react';

/** The screens of an account, in the order of the work; the rail shows them, and what is open in each. */
export const SCREENS = [
  { path: 'today', name: 'Today', icon: CalendarDays, open: null },
  { path: 'intake', name: 'Intake', icon: Inbox, open: 'files that are not loaded' },
  { path: 'sift', name: 'Sift', icon: ScanSearch, open: 'terms that surely miss' },
  { path: 'promote', name: 'Promote', icon: Armchair, open: null },
  { path: 'research', name: 'Research', icon: Lightbulb, open: null },
  { path: 'lists', name: 'Lists', icon: ListTree, open: 'changes made elsewhere' },
  { path: 'untangle', name: 'Untangle', icon: Spline, open: 'conflicts' },
  { path: 'lanes', name: 'Lanes', icon: Rows3, open: null },
  { path: 'rules', name: 'Rules', icon: Ruler, open: 'findings that wait' },
  { path: 'ledger', name: 'Ledger', icon: BookText, open: 'changes not read back yet' },
  { path: 'account', name: 'Account', icon: SlidersHorizontal, open: 'setting to make: the target' },
] as const;

/** The settings of the Account screen, by their headings. */
export const SETTINGS = [
  ...['Name', 'Steering', 'Own targets', 'Days', 'Match type', 'Promotion', 'Protection', 'Brand words'],
  ...['Product codes', 'Limits', 'Platform', 'People', 'Accounts'],
];
