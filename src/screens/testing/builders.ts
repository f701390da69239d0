import { noFigures, USUAL_LIMITS, type Reading } from '@/core';
import type { KnotsLook } from '@/contracts/knots';
import type { AccountView } from '@/contracts/account';
import type { IntakeView, ReadingAnswer, ReportFileView } from '@/contracts/intake';
import type { AccountSummary, Weight } from '@/contracts/common';
import type { ChoiceAnswer, MatchChoice, PlaceChoice, TermDetail } from '@/contracts/hand';
import type { LedgerLine } from '@/contracts/ledger';
import type { ListLine, ListsView } from '@/contracts/lists';
import type { TermLine, TermsPage } from '@/contracts/sift';
import type { SentState, TrayChange, TrayView } from '@/contracts/tray';

/** Values of the wire for tests of screens: each says only what matters to it. */

export const aSummary = (over: Partial<AccountSummary> = {}): AccountSummary => ({
  ...{ slug: 'web', name: 'Larkfell web', currency: 'EUR', steersBy: 'CPA' },
  ...{ targetMicros: 18_000_000, targetAcos: null, defaultMatch: 'phrase', lagDays: 3 },
  window: { from: '2026-10-22', to: '2026-11-20', days: 30 },
  dataDays: { from: '2026-09-01', to: '2026-11-23' },
  ...{ platformDay: '2026-11-25', isConnected: true, isRetired: false },
  ...over,
});

export const aWeight = (over: Partial<Weight> = {}): Weight => ({ terms: 0, ...noFigures(), ...over });

export const aTrayChange = (over: Partial<TrayChange> = {}): TrayChange => ({
  ...{ id: 1, kind: 'add negative', said: 'Stop “movie” (phrase) in campaign Hives' },
  change: { kind: 'add negative', text: 'movie', match: 'phrase', place: { kind: 'campaign', id: '1' } },
  stops: aWeight({ terms: 4, clicks: 12, costMicros: 7_500_000, conversions: 0 }),
  ...{ reopens: aWeight(), by: 'Ilse Brandow', why: null, forcedBecause: null, failedBefore: null },
  endsOn: null,
  comments: [],
  ...{ touched: [], reaches: null, placeNote: null, heldBackBy: { count: 0, first: [] } },
  action: `1 ${over.id ?? 1}`, // each by an action of its own
  ...over,
});

export const aSentState = (over: Partial<SentState> = {}): SentState => ({
  ...{ setId: 9, state: 'confirmed', sentBy: 'Ilse Brandow', sentAt: '2026-11-25T10:00:00Z' },
  ...{
    total: 2,
    answered: 2,
    waiting: [],
    confirmed: 2,
    failed: [],
    lost: 0,
    trouble: null,
    isStopped: false,
    sendAt: null,
  },
  ...over,
});

export const aTrayView = (over: Partial<TrayView> = {}): TrayView => ({
  window: { from: '2026-10-22', to: '2026-11-20' },
  ...{ changes: [], kept: 0, told: '0 ', stops: aWeight(), reopens: aWeight(), room: [], sent: [] },
  days: [
    { day: '2026-11-19', returnedMicros: 5_000_000, openMicros: 3_000_000, stoppedMicros: 1_000_000 },
    { day: '2026-11-20', returnedMicros: 4_000_000, openMicros: 2_000_000, stoppedMicros: 2_000_000 },
  ],
  ...over,
});

export const aTermLine = (over: Partial<TermLine> = {}): TermLine => ({
  ...{ id: 1, raw: 'bee hive movie', words: ['bee', 'hive', 'movie'], kind: 'query' },
  servedBy: { keyword: 'bee hive', match: 'broad' },
  ...{ others: 0, isProtected: false, isSeen: false, notes: 0, locations: [], evidence: null },
  ...{ campaign: 'Hives', adGroup: 'Starter', lastDay: '2026-11-20' },
  ...{ impressions: 900, clicks: 30, costMicros: 12_000_000, conversions: 0, valueMicros: 0 },
  beside: null,
  ...over,
});

export const aTermsPage = (lines: TermLine[], over: Partial<TermsPage> = {}): TermsPage => ({
  total: lines.length,
  counts: { remaining: lines.length, stopped: 2, kept: 1, aside: 0, already: 7 },
  sums: aWeight({ terms: lines.length, clicks: 30, costMicros: 12_000_000, conversions: 0 }),
  ...{ unreportedMicros: 0, costMicros: 90_000_000, pass: null, beside: null, offset: 0, lines },
  ...over,
});

export const aTermDetail = (over: Partial<TermDetail> = {}): TermDetail => ({
  ...{ id: 1, raw: 'bee hive movie', words: ['bee', 'hive', 'movie'], kind: 'query' },
  ran: [
    {
      ...{ campaign: 'Hives', adGroupId: '11', adGroup: 'Starter', keyword: 'bee hive', match: 'broad' },
      ...{ clicks: 30, costMicros: 12_000_000, conversions: 0, stoppedBy: [] },
    },
  ],
  ...{ lastDay: '2026-11-20', verdict: { is: 'open' }, hasConverted: false, beside: null, sinceChange: null },
  days: [{ day: '2026-11-20', clicks: 3, costMicros: 1_000_000, conversions: 0 }],
  ...{ notes: [], ownKeyword: null, exclusions: [], draftedStops: [] },
  ...over,
});

export const aLedgerLine = (over: Partial<LedgerLine> = {}): LedgerLine => ({
  ...{ id: 1, at: '2026-11-25T10:00:00Z', who: 'Ilse Brandow', about: 'keep' },
  ...{ what: 'Keep “bee hive kit” open', why: null, canUndo: true, isUndone: false, change: null },
  ...over,
});

export const aListLine = (over: Partial<ListLine> = {}): ListLine => ({
  ...{ id: '1', name: 'Jobs', holds: 'words', isNew: false, entries: 12, room: 3_988 },
  ...{ hungOn: [0], drafted: [], hurts: { campaign: [], keywords: [] } },
  ...{ rules: [], wanted: [], waits: false },
  ...over,
});

export const aListsView = (over: Partial<ListsView> = {}): ListsView => ({
  window: { from: '2026-10-22', to: '2026-11-20', days: 30 },
  campaigns: [
    { id: '1', name: 'Hives', status: 'live', channel: 'search', labels: [] },
    { id: '2', name: 'Courses', status: 'paused', channel: 'search', labels: ['autumn'] },
  ],
  lists: [aListLine(), aListLine({ id: '2', name: 'Films', entries: 3, hungOn: [] })],
  accountWide: { used: 5, most: 1_200 },
  ...{ waiting: [], outside: [] },
  ...over,
});

/** A negative of some words at the places that In hand offers. */
export const aMatchChoice = (over: Partial<MatchChoice> = {}): MatchChoice => ({
  ...{ match: 'phrase', text: 'movie', refusal: null },
  places: [
    aPlaceChoice({ place: { kind: 'adGroup', id: '11' }, name: 'Starter' }),
    aPlaceChoice({ place: { kind: 'campaign', id: '1' }, name: 'Hives' }),
    aPlaceChoice({
      place: { kind: 'list', id: '7' },
      name: 'Films',
      note: 'hangs nowhere, so it stops nothing',
    }),
    aPlaceChoice({ place: { kind: 'account', id: null }, name: 'the whole account' }),
  ],
  ...over,
});

export const aPlaceChoice = (over: Partial<PlaceChoice> = {}): PlaceChoice => ({
  ...{ place: { kind: 'campaign', id: '1' }, name: 'Hives', note: null, heed: null },
  weight: aWeight({ terms: 4, clicks: 12, costMicros: 7_500_000, conversions: 0 }),
  ...{ touched: [], protectedTerms: { count: 0, first: [] }, isThere: false, coveredBy: null, isSafe: true },
  ...over,
});

export const aChoiceAnswer = (over: Partial<ChoiceAnswer> = {}): ChoiceAnswer => ({
  id: 1,
  choices: [
    aMatchChoice(),
    aMatchChoice({ match: 'broad' }),
    aMatchChoice({ match: 'exact', text: 'bee hive movie' }),
  ],
  smallestSafe: null,
  proposed: null,
  ...over,
});

export const aReportFile = (over: Partial<ReportFileView> = {}): ReportFileView => ({
  ...{
    id: 4,
    name: 'november.csv',
    source: 'file',
    kind: 'search terms',
    sizeBytes: 52_000,
    state: 'uploaded',
  },
  ...{ rowsRead: 0, rowsPerSecond: null, outcome: null, error: null, createdAt: '2026-11-25T10:00:00Z' },
  isGone: false,
  ...over,
});

export const anIntakeView = (over: Partial<IntakeView> = {}): IntakeView => ({
  ...{
    files: [],
    daysThere: ['2026-11-19', '2026-11-20'],
    fetchesDaily: false,
    largestFile: 2e9,
    recipes: [],
  },
  ...over,
});

export const aReading = (over: Partial<Reading> = {}): Reading => ({
  ...{
    kind: 'search terms',
    encoding: 'utf-8',
    separator: ',',
    headerLine: 1,
    dayOrder: null,
    currency: null,
  },
  columns: [
    {
      index: 0,
      header: 'Search term',
      role: 'search term',
      because: 'by its name',
      sample: 'bee hive movie',
    },
    { index: 1, header: 'Cost', role: 'cost', because: 'by its name', sample: '4.10', decimalMark: '.' },
    { index: 2, header: 'Note', role: null, because: 'nothing is known of it', sample: 'x' },
  ],
  ...{
    days: { from: '2026-11-19', to: '2026-11-20' },
    rowsByDay: { '2026-11-19': 1, '2026-11-20': 1 },
    rows: 2,
  },
  sums: { ...noFigures(), clicks: 5, costMicros: 8_200_000 },
  ...{ bounds: {}, rejected: [], rejectedCount: 0, questions: [], isPartial: false, error: null },
  preview: [
    {
      ...{
        line: 2,
        term: 'bee hive movie',
        campaign: 'Hives',
        adGroup: 'Starter',
        keyword: null,
        match: null,
      },
      ...{ day: '2026-11-20', ...noFigures(), clicks: 3, costMicros: 4_100_000 },
    },
  ],
  ...over,
});

export const aReadingAnswer = (over: Partial<ReadingAnswer> = {}): ReadingAnswer => ({
  ...{ file: aReportFile(), reading: aReading(), decisions: {}, recipe: null, whole: null },
  ...{ loadedBefore: null, daysThere: ['2026-11-19'], obstacle: null, currency: 'EUR' },
  ...over,
});

/** A look at the knots of an account that is looked at for the first time. */
export const NOTHING_FRESH: KnotsLook = {
  fresh: { conflict: [], needless: [], misspelt: [], duplicate: [], overlap: [] },
  days: [],
};

export const anAccountView = (over: Partial<AccountView> = {}): AccountView => ({
  settings: {
    ...{ name: 'Larkfell web', currency: 'EUR', steersBy: 'CPA', targetMicros: 18_000_000, targetAcos: null },
    promotionTolerance: 0.01,
    ...{
      windowDays: 30,
      lagDays: 3,
      fileDays: 90,
      logDays: 365,
      defaultMatch: 'phrase',
      keeperConversions: 3,
      productCodePattern: '',
    },
    ...{ brandWords: [], conversionKinds: [], limits: USUAL_LIMITS, platformAccountId: null },
  },
  ...{ isRetired: false, kindsThere: [], hasFigures: true, productGroups: [] },
  campaigns: [{ id: '1', name: 'Hives', status: 'live', targetMicros: null, targetAcos: null }],
  adGroups: [{ id: '11', name: 'Starter', campaign: 'Hives' }],
  people: [
    { id: 1, name: 'Ilse Brandow', role: 'own' },
    { id: 2, name: 'Tobias Finch', role: 'none' },
  ],
  secondLook: { always: false, changes: null, costMicros: null, people: [] },
  accounts: [{ slug: 'web', name: 'Larkfell web', isRetired: false }],
  ...over,
});
