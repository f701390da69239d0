import { screen } from '@testing-library/react';
import type { Candidate } from '@/contracts/candidates';
import type { RemainderLine, RemaindersPage, SheetView, Weighed } from '@/contracts/research';
import { aListsView, aWeight } from '../testing/builders';
import { show, type Answers } from '../testing/screen';
import { ResearchScreen } from './research-screen';

export const few = { count: 0, first: [] };

export const aRemainder = (over: Partial<RemainderLine> = {}): RemainderLine => ({
  ...{ text: 'near me', forms: ['near me'], ideas: 12, volume: 900, openingBidMicros: 400_000 },
  ...{ relatedness: 0.4, fault: null, location: null, example: 'bee hive near me' },
  ...over,
});

export const aRemaindersPage = (over: Partial<RemaindersPage> = {}): RemaindersPage => ({
  version: 1,
  counts: { open: 30, stopped: 0, kept: 2, dropped: 1, 'stopped already': 4 },
  ...{ total: 2, bare: 1, candidates: 3, offset: 0 },
  lines: [aRemainder(), aRemainder({ text: 'salary', forms: ['salary', 'salaries'], ideas: 5, fault: 0.97 })],
  ...over,
});

const sheet = {
  ...{ id: 1, name: 'Spring hives', stems: ['bee hive'], struck: ['yorkshire'], version: 1, ideasVersion: 1 },
  ...{ madeBy: 'Ilse Brandow', madeAt: '2026-11-20T09:00:00Z' },
};
const source = { asked: {}, missing: null, isOut: false, who: 'Ilse Brandow', at: '2026-11-20T09:00:00Z' };
export const aSheetView = (over: Partial<SheetView> = {}): SheetView => ({
  sheet,
  sources: [
    { id: 7, kind: 'ideas', title: 'ideas of bee hive', given: 40, added: 40, ...source },
    {
      id: 8,
      kind: 'pack',
      title: 'starter pack Jobs',
      given: 9,
      added: 9,
      ...source,
      missing: 'Half of it.',
    },
  ],
  proposed: [{ text: 'kit', ideas: 9 }],
  ...over,
});

export const aWeighed = (over: Partial<Weighed['negatives'][number]> = {}): Weighed => ({
  negatives: [
    {
      ...{ text: 'near me', isForm: false, ideas: 12, kept: 0, refusal: null },
      weight: aWeight({ terms: 3, costMicros: 12_300_000, conversions: 0 }),
      ...over,
    },
  ],
  ...{ keywords: [], protected: few },
});

export const aCandidate = (over: Partial<Candidate> = {}): Candidate => ({
  ...{ text: 'job', forms: ['job', 'jobs'], sources: [8], ideas: 2, keywords: [], protected: few },
  weight: aWeight({ terms: 4, costMicros: 5_000_000, conversions: 0 }),
  refusal: null,
  ...over,
});

export const ANSWERS: Answers = {
  'GET lists': aListsView(),
  'GET research': { sheets: [sheet] },
  'GET research/[sheet]': aSheetView(),
  'GET research/[sheet]/remainders': aRemaindersPage(),
  'GET research/[sheet]/ideas': {
    count: 12,
    first: [
      {
        ...{ key: 'bee hive near me', volume: 90, sources: [7] },
        words: ['bee', 'hive', 'near', 'me'].map((text, i) => ({ text, isChosen: i > 1 })),
      },
    ],
  },
  'GET research/[sheet]/groups': {
    version: 1,
    groups: [
      {
        ...{ name: 'Suits', isProposed: false, volume: 50, openingBidMicros: 400_000 },
        ideas: [{ text: 'bee suit', volume: 50 }],
      },
      {
        ...{ name: 'kit', isProposed: true, volume: 100, openingBidMicros: 600_000 },
        ideas: [
          { text: 'oak kit', volume: 90, keys: ['oak kit', 'oak kit leeds'] },
          { text: 'pine kit', volume: 10 },
        ],
      },
    ],
    left: [{ text: 'glass jar', volume: null }],
  },
  'GET research/[sheet]/candidates': {
    ...{ version: 1, total: 2, stopped: 1 },
    candidates: [
      aCandidate(),
      aCandidate({ text: 'hive', forms: ['hive'], protected: { count: 1, first: ['bee hive kit'] } }),
    ],
  },
  'GET research/[sheet]/locations': {
    served: ['united kingdom'],
    none: [],
    named: [
      { name: 'australia', kind: 'not served', ideas: 4 },
      { name: 'reading', kind: 'perhaps', ideas: 2 },
    ],
  },
  'POST research/check-keywords': few,
  'POST research/[sheet]/weigh': aWeighed(),
  'POST research/[sheet]/decide': { was: [{ verdict: null, keys: ['bee hive near me'] }] },
  'POST research/[sheet]/groups': { back: [{ keys: ['oak kit'], to: null }] },
};

export const showResearch = (more: Answers = {}, search = '') =>
  show(<ResearchScreen />, { answers: { ...ANSWERS, ...more }, search });
export const inHand = () => screen.getByRole('region', { name: 'In hand' });
