import { screen, within } from '@testing-library/react';
import { noFigures } from '@/core';
import type {
  OwnKeywordLine,
  OwnKeywordsView,
  PartLine,
  PlanRequest,
  PlanView,
  PromotionGroup,
  PromotionLine,
  PromotionsView,
} from '@/contracts/promotion';
import type { DraftOutcome } from '@/contracts/tray';
import { anAccountView, aListsView, aWeight } from '../testing/builders';
import { show, type Answers } from '../testing/screen';
import { PromoteScreen } from './promote-screen';

const none = { count: 0, first: [] };
export const aSeat = (adGroup: string) => ({
  campaign: 'Hives',
  adGroup,
  isChosen: false,
  state: 'serves' as const,
});
export const aGroup = (over: Partial<PromotionGroup> = {}): PromotionGroup => ({
  ...{ key: 'group Hives', name: 'Hives', isOwn: true, target: 18_000_000, gone: [], terms: 2, adGroups: 5 },
  seats: { exact: aSeat('Hives exact'), phrase: aSeat('Hives phrase'), broad: aSeat('Hives broad') },
  ...over,
});
export const bare = aGroup({
  ...{ key: 'campaign 2', name: 'Courses', isOwn: false, terms: 1, target: null },
  seats: { exact: null, phrase: null, broad: null },
});
const aLine = (term: string, over: Partial<PromotionLine> = {}): PromotionLine => ({
  ...{ term, group: 'group Hives', ...noFigures() },
  ...{ clicks: 40, costMicros: 20_000_000, conversions: 4 },
  ...{
    target: 18_000_000,
    reaches: 0.97,
    searches: 320,
    isExact: false,
    keywords: 3,
    negatives: 2,
    left: null,
  },
  servedIn: { count: 3, first: ['Hives · Starter', 'Hives · Stands'] },
  ...over,
});
export const lines = [aLine('bee hive kit'), aLine('hive box', { conversions: 2, searches: null })];
const course = aLine('bee course', { group: 'campaign 2', conversions: 1, target: null });

export const aView = (over: Partial<PromotionsView> = {}): PromotionsView => ({
  ...{ days: 30, counts: { open: 3, left: 1 }, groups: [aGroup(), bare], total: 3 },
  ...{ campaigns: [{ id: '1', name: 'Hives' }], lines: [...lines, course] },
  ...over,
});
const aPart = (key: string, adGroup: string, over: Partial<PartLine> = {}): PartLine => {
  const [kind, at] = key.split(' ') as ['keyword' | 'negative', PartLine['at']];
  const match =
    at === 'source'
      ? 'exact'
      : kind === 'negative' && at === 'phrase'
        ? 'exact'
        : at === 'broad' && kind === 'negative'
          ? 'phrase'
          : at;
  return { ...{ key, kind, at, match, campaign: 'Hives', adGroup, state: 'new', why: null }, ...over };
};
const PARTS = [
  aPart('keyword exact', 'Hives exact'),
  aPart('keyword phrase', 'Hives phrase'),
  aPart('keyword broad', 'Hives broad'),
  aPart('negative phrase', 'Hives phrase'),
  aPart('negative broad', 'Hives broad'),
];
const traffic = (adGroup: string, clicks: number) => ({
  ...{ campaign: 'Hives', adGroup, weight: aWeight({ terms: 1, clicks, conversions: 2 }) },
});
export const aPlan = (over: Partial<PlanView> = {}): PlanView => ({
  ...{
    parts: PARTS,
    terms: 1,
    keywords: 3,
    negatives: 2,
    withoutBid: none,
    missing: [],
    obstacles: none,
    refusal: null,
  },
  bid: { bidMicros: 420_000, cpcMicros: 500_000, actual: 21_400_000, target: 18_000_000 },
  gets: [{ match: 'exact', ...traffic('Hives exact', 12) }],
  leaves: [traffic('Hives broad', 12)],
  stays: [traffic('Starter', 28)],
  nowhere: { ...aWeight(), first: [] },
  ...over,
});
const outOf = ({ without = [] }: PlanRequest) =>
  PARTS.map((part) => (without.includes(part.key) ? { ...part, state: 'out' as const } : part));

export const drafted = (changeId: number): DraftOutcome => ({
  ...({ outcome: 'drafted', changeId, said: 'Add keyword “bee hive kit”', heed: null } as const),
  change: {
    ...({ kind: 'add keyword', campaign: 'Hives', adGroup: 'Hives exact', text: 'bee hive kit' } as const),
    ...{ match: 'exact', bidMicros: 420_000 },
  },
});

const keywords: OwnKeywordLine[] = ['top bar hive', 'long hive'].map((text, i) => ({
  ...{ id: String(i + 1), text, campaign: 'Hives', adGroup: 'Top bar', bidMicros: 1_410_000 },
  ...{
    changedOn: '2026-10-10',
    target: 18_000_000,
    misses: 0.94,
    paysMicros: 280_000,
    drafted: null,
    left: null,
  },
  ever: { clicks: 26, costMicros: 24_710_000, conversions: 0, valueMicros: 0 },
  since: { clicks: 9, costMicros: 8_000_000, conversions: 0, valueMicros: 0 },
}));
const aKeywordsView = (over: Partial<OwnKeywordsView> = {}): OwnKeywordsView => ({
  ...{ counts: { open: 2, left: 0 }, costMicros: 49_420_000, lines: keywords },
  ...over,
});

export const showPromote = (search = '', more: Answers = {}) =>
  show(<PromoteScreen />, {
    answers: {
      'GET promotion': aView(),
      'GET promotion/keywords': aKeywordsView(),
      'POST promotion/plan': ({ body }) => aPlan({ parts: outOf(body as PlanRequest) }),
      'POST promotion/draft': { outcomes: [drafted(7), drafted(8)] },
      'POST tray': { outcomes: [] },
      'DELETE tray': { removed: [] },
      'GET account': anAccountView(),
      'GET lists': aListsView({ campaigns: [aListsView().campaigns[0]!] }),
      ...more,
    },
    search,
  });
export async function grid(name = 'Terms to promote', row = /bee hive kit/) {
  const table = await screen.findByRole('grid', { name });
  await within(table).findByRole('row', { name: row });
  return table;
}
export const inHand = () => screen.getByRole('region', { name: 'In hand' });
