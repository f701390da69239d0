import { screen } from '@testing-library/react';
import type { Change } from '@/core';
import type { ConflictLine, ConflictsView, MendsView, NeedlessView } from '@/contracts/untangle';
import { NOTHING_FRESH } from '../testing/builders';
import { show, type Answers } from '../testing/screen';
import { UntangleScreen } from './untangle-screen';

/** An account with two conflicts and two needless negatives, and the screen over it. */
export const none = { count: 0, first: [] };
export const aConflict = (over: Partial<ConflictLine> = {}): ConflictLine => ({
  key: 'free',
  negative: { text: 'free', match: 'broad', place: { kind: 'list', id: '3' }, placeName: 'list Free' },
  severity: 'shut out',
  keyword: {
    ...{ id: '5', text: 'Free standing hive', match: 'phrase' },
    ...{ adGroup: 'Stands', campaign: 'Hives' },
  },
  ...{ protected: none, seat: null, left: null },
  lost: { terms: 9, clicks: 61, costMicros: 186_400_000, conversions: 4.1, valueMicros: 0 },
  ...over,
});
export const course = aConflict({
  ...{ key: 'course', severity: 'protected', keyword: null, lost: null },
  negative: { ...aConflict().negative, text: 'course', placeName: 'campaign Hives' },
  protected: { count: 5, first: ['bee course', 'hive course', 'course kit'] },
});
export const aView = (over: Partial<ConflictsView> = {}): ConflictsView => ({
  ...{ days: 30, counts: { open: 2, meant: 1, left: 0, inTray: 3 } },
  ...{ lost: { conversions: 4.1, unknown: 1 }, unjudged: none, lines: [aConflict(), course] },
  ...over,
});

export const place = { kind: 'list', id: '3' } as const;
export const remove: Change = { kind: 'remove negative', text: 'free', match: 'broad', place };
export const longer: Change = { kind: 'add negative', text: 'free plans', match: 'phrase', place };
export const aMendsView = (key: string): MendsView => ({
  ...{
    key,
    since: '2025-09-28',
    hangsOn: 12,
    stops: 338,
    passing: { count: 1, first: ['free standing hive'] },
  },
  mends: [
    {
      ...{ how: 'removed', said: 'Let “free” (broad) through again', changes: [remove], letsPass: true },
      opens: { terms: 203, conversions: 4.3, costMicros: 400_000_000, wastedMicros: 311_500_000 },
      ...{ stillStops: 135, isProposed: false },
    },
    {
      ...{ how: 'longer', said: 'Stop “free plans” in its place', changes: [longer, remove], letsPass: true },
      opens: { terms: 9, conversions: 4.1, costMicros: 1_000_000, wastedMicros: 0 },
      ...{ stillStops: 329, isProposed: true },
    },
    {
      ...{ how: 'paused', said: 'Pause it', changes: [{ kind: 'pause keyword', keywordId: '5' }] },
      ...{ opens: null, letsPass: false, stillStops: 338, isProposed: false },
    },
  ],
});

export const jobs = { text: 'bee jobs', match: 'exact', place, placeName: 'list Free' } as const;
export const aNeedlessView: NeedlessView = {
  counts: { open: 2, left: 0 },
  lines: [
    {
      ...{ key: 'jobs', negative: jobs, isLasting: true, left: null },
      coveredBy: { ...jobs, text: 'jobs', match: 'broad' },
    },
    {
      ...{ key: 'song', negative: { ...jobs, text: 'bee song' }, isLasting: false, left: null },
      coveredBy: { ...jobs, text: 'song', match: 'broad' },
    },
  ],
  ...{ twins: 1, proof: { adGroups: 6, real: 4, generated: 8, differences: 0 } },
};

export const showUntangle = (more: Answers = {}, search = '') =>
  show(<UntangleScreen />, {
    answers: {
      'GET untangle': aView(),
      'GET untangle/needless': aNeedlessView,
      'POST untangle/look': NOTHING_FRESH,
      'GET untangle/mends': ({ query }) => aMendsView(query.key!),
      'POST tray': {
        outcomes: [{ outcome: 'drafted', changeId: 1, change: remove, said: 'Done.', heed: null }],
      },
      ...more,
    },
    search,
  });
export const grid = () => screen.findByRole('grid', { name: 'Conflicts' });
export const inHand = () => screen.getByRole('region', { name: 'In hand' });
