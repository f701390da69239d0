import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
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
const aSeat = (adGroup: string) => ({
  campaign: 'Hives',
  adGroup,
  isChosen: false,
  state: 'serves' as const,
});
const aGroup = (over: Partial<PromotionGroup> = {}): PromotionGroup => ({
  ...{ key: 'group Hives', name: 'Hives', isOwn: true, target: 18_000_000, gone: [], terms: 2, adGroups: 5 },
  seats: { exact: aSeat('Hives exact'), phrase: aSeat('Hives phrase'), broad: aSeat('Hives broad') },
  ...over,
});
const bare = aGroup({
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
const lines = [aLine('bee hive kit'), aLine('hive box', { conversions: 2, searches: null })];
const course = aLine('bee course', { group: 'campaign 2', conversions: 1, target: null });

const aView = (over: Partial<PromotionsView> = {}): PromotionsView => ({
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
const aPlan = (over: Partial<PlanView> = {}): PlanView => ({
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

const drafted = (changeId: number): DraftOutcome => ({
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

const showPromote = (search = '', more: Answers = {}) =>
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
async function grid(name = 'Terms to promote', row = /bee hive kit/) {
  const table = await screen.findByRole('grid', { name });
  await within(table).findByRole('row', { name: row });
  return table;
}
const inHand = () => screen.getByRole('region', { name: 'In hand' });

describe('terms to promote', () => {
  test('stand with their figures, their target and what promoting them makes', async () => {
    showPromote();
    const row = within(await grid()).getByRole('row', { name: /bee hive kit/ });
    expect(row.textContent).toContain('Hives');
    expect(row.textContent).toContain('20.00');
    expect(row.textContent).toContain('3 + 2');
    expect(within(row).getByRole('img', { name: '97 %' })).toBeDefined();
  });

  test('the plan in hand shows the seats within each other, the bid with its reckoning, and what goes on', async () => {
    showPromote();
    (await grid()).focus();
    await waitFor(() => expect(inHand().textContent).toContain('Makes 3 keywords and 2 negatives.'));
    const broad = within(inHand()).getByRole('region', { name: 'broad seat' });
    const phrase = within(broad).getByRole('region', { name: 'phrase seat' });
    expect(within(phrase).getByRole('region', { name: 'exact seat' }).textContent).toContain(
      'gets 1 query, 12 clicks',
    );
    expect(inHand().textContent).toContain('A click cost 0.50 × 18.00 target ÷ 21.40 CPA.');
    expect(inHand().textContent).toContain('Starter goes on serving it: 1 query, 28 clicks');
  });

  test('digits take parts out, Enter puts the rest in the tray, with its undo', async () => {
    const { user, asked } = showPromote();
    (await grid()).focus();
    await waitFor(() => expect(inHand().textContent).toContain('Makes 3'));
    await user.keyboard('2');
    await waitFor(() =>
      expect(within(inHand()).getByRole('checkbox', { name: /phrase keyword/ })).toHaveProperty(
        'checked',
        false,
      ),
    );
    await user.keyboard('{Enter}');
    await waitFor(() => expect(asked('POST promotion/draft')).toHaveLength(1));
    expect(asked('POST promotion/draft')[0]!.body).toEqual({
      ...{ terms: [{ term: 'bee hive kit', group: 'group Hives' }], without: ['keyword phrase'] },
    });
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('DELETE tray')[0]!.body).toEqual({ changeIds: [7, 8] }));
  });

  test('another opening bid is planned with; one that is none is refused beside it', async () => {
    const { user, asked } = showPromote();
    await grid();
    const field = await screen.findByRole('textbox', { name: 'Opening bid' });
    await user.clear(field);
    await user.type(field, 'much{Enter}');
    expect(await screen.findByText('Give the bid as an amount above 0.')).toBeDefined();
    await user.clear(field);
    await user.type(field, '0.60{Enter}');
    await waitFor(() =>
      expect(asked('POST promotion/plan').at(-1)!.body).toMatchObject({ bidMicros: 600_000 }),
    );
  });

  test('x: not for this, and back', async () => {
    const left = { why: 'not for this', until: null, by: 'Ilse Brandow', at: '2026-11-25T10:00:00Z' };
    const { user, asked } = showPromote('', {
      'POST untangle/left': {},
      'DELETE untangle/left': { why: '', until: null },
    });
    (await grid()).focus();
    await user.keyboard('x');
    await waitFor(() =>
      expect(asked('POST untangle/left')[0]!.body).toMatchObject({
        ...{ kind: 'promotion', key: 'group Hives → bee hive kit', why: 'not for this', until: null },
      }),
    );
    const other = showPromote('?pile=left', {
      'GET promotion': aView({ lines: [{ ...lines[0]!, left }] }),
      'DELETE untangle/left': { why: 'not for this', until: null },
    });
    const tables = await screen.findAllByRole('grid', { name: 'Terms to promote' });
    await within(tables.at(-1)!).findByRole('row', { name: /bee hive kit/ });
    tables.at(-1)!.focus();
    await other.user.keyboard('x');
    await waitFor(() => expect(other.asked('DELETE untangle/left')).toHaveLength(1));
  });

  test('marked ones are planned together, a kind of part taken out for all', async () => {
    const many = aPlan({
      ...{ parts: [], bid: null, terms: 2, keywords: 6, negatives: 4, stays: [] },
      missing: [{ group: 'Courses', matches: ['exact', 'phrase'] }],
      obstacles: { count: 4, first: ['No exact keyword “x” in Hives · Starter: it is stopped by “y”.'] },
      nowhere: { ...aWeight({ terms: 1, conversions: 1 }), first: ['odd query'] },
    });
    const { user, asked } = showPromote('', { 'POST promotion/plan': many });
    (await grid()).focus();
    await user.keyboard(' {ArrowDown} ');
    await waitFor(() =>
      expect(inHand().textContent).toContain('Makes 6 keywords and 4 negatives; the seats get 12 clicks'),
    );
    expect(inHand().textContent).toContain('Courses has no exact and no phrase seat');
    expect(inHand().textContent).toContain('it is stopped by “y”.');
    expect(inHand().textContent).toContain('3 more parts');
    expect(inHand().textContent).toContain('served by no seat (1 conversion): “odd query”.');
    await user.keyboard('6{Enter}');
    await waitFor(() => expect(asked('POST promotion/draft')).toHaveLength(1));
    const { terms, without } = asked('POST promotion/draft')[0]!.body as PlanRequest;
    expect([terms.map(({ term }) => term), without]).toEqual([
      ['bee hive kit', 'hive box'],
      ['negative source'],
    ]);
  });

  test('filters ask anew, and what they leave can be saved', async () => {
    const { user, asked } = showPromote();
    await grid();
    const choose = async (label: string, option: string) => {
      await user.click(screen.getByRole('combobox', { name: label }));
      await user.click(await screen.findByRole('option', { name: option }));
    };
    await choose('Conversions', '3 conversions');
    await choose('Against the target', 'within the target');
    await choose('Group', 'Courses');
    await choose('Campaign', 'Hives');
    await choose('Searches a month', 'searched 100 times or less');
    await waitFor(() =>
      expect(asked('GET promotion').at(-1)!.query).toMatchObject({
        ...{ conversions: '3', reach: 'within', group: 'campaign 2', campaign: '1', searchesTo: '100' },
      }),
    );
    expect(screen.getByRole('link', { name: 'CSV' }).getAttribute('href')).toContain(
      '/api/web/promotion/sheet?pile=open&reach=within&conversions=3&group=campaign+2&campaign=1&searchesTo=100&as=csv',
    );
  });

  test('where a group has no seat, the plan leads to where they are made', async () => {
    const { user, search } = showPromote();
    (await grid()).focus();
    await user.keyboard('{ArrowDown}{ArrowDown}');
    await user.click(await within(inHand()).findByRole('button', { name: 'Choose or make them' }));
    expect([search().get('shown'), search().get('seatsOf')]).toEqual(['seats', 'campaign 2']);
    expect(inHand().textContent).toContain('Courses');
  });
});

describe('seats', () => {
  test('are told of each group, those that are gone or serve nothing too; another one is chosen, with its undo', async () => {
    const group = aGroup({
      gone: [{ match: 'phrase', campaign: 'Hives', adGroup: 'Old phrase' }],
      seats: { ...aGroup().seats, exact: { ...aSeat('Hives exact'), isChosen: true, state: 'in the tray' } },
    });
    const { user, asked } = showPromote('?shown=seats', {
      'GET promotion': aView({ groups: [group] }),
      'PUT promotion/seat': {
        said: 'The broad seat of Hives is Hives · Stands',
        was: null,
        group: 'group Hives',
        isMade: true,
      },
    });
    const row = within(await grid('Seats', /Hives/)).getByRole('row', { name: /Hives/ });
    expect(row.textContent).toContain('Old phrase is gone');
    expect(row.textContent).toContain('in the tray');
    expect(inHand().textContent).toContain('nothing is left to it before it serves');
    await user.click(within(inHand()).getByRole('button', { name: 'broad seat' }));
    await user.click(await screen.findByRole('option', { name: /Hives · Starter/ }));
    await waitFor(() =>
      expect(asked('PUT promotion/seat')[0]!.body).toEqual({
        ...{ group: 'group Hives', match: 'broad', seat: { campaign: 'Hives', adGroup: 'Starter' } },
        unmakes: false,
      }),
    );
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(asked('PUT promotion/seat')[1]!.body).toMatchObject({ seat: null, unmakes: true }),
    );
  });

  test('that are missing are made: in a campaign that is there, or in a new one with a budget', async () => {
    const { user, asked } = showPromote('?shown=seats', {
      'GET promotion': aView({ groups: [bare] }),
      'POST promotion/seats': { outcomes: [drafted(4)], group: 'group Courses', isMade: true, was: {} },
      'PUT promotion/seat': { said: '', was: null, group: 'group Courses', isMade: true },
    });
    await grid('Seats', /Courses/);
    expect(inHand().textContent).toContain('It becomes one when a seat is chosen');
    expect(inHand().textContent).toContain('It has no target');
    await user.click(await within(inHand()).findByRole('button', { name: 'Put the seats in the tray' }));
    expect(await screen.findByText('Give the daily budget as an amount above 0.')).toBeDefined();
    await user.type(within(inHand()).getByRole('textbox', { name: 'Daily budget' }), '12');
    await user.click(within(inHand()).getByRole('checkbox', { name: 'Courses broad' }));
    await user.click(within(inHand()).getByRole('button', { name: 'Put the seats in the tray' }));
    await waitFor(() =>
      expect(asked('POST promotion/seats')[0]!.body).toEqual({
        ...{
          group: 'campaign 2',
          matches: ['exact', 'phrase'],
          campaign: 'Courses seats',
          budgetMicros: 12_000_000,
        },
      }),
    );
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('DELETE tray')[0]!.body).toEqual({ changeIds: [4] }));
    await waitFor(() => expect(asked('PUT promotion/seat')).toHaveLength(2));
  });
});

describe('own keywords that miss', () => {
  type Put = { changes: { change: object }[] };

  test('Enter lowers the bid to what pays, p pauses; of all that are marked', async () => {
    const { user, asked } = showPromote('?shown=keywords');
    (await grid('Own keywords that miss', /top bar hive/)).focus();
    expect(inHand().textContent).toContain('Since it was changed on 10 Oct: 9 clicks, 8.00, no conversion.');
    await user.keyboard('{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect((asked('POST tray')[0]!.body as Put).changes[0]!.change).toEqual({
      ...{ kind: 'set bid', keywordId: '1', bidMicros: 280_000, wasMicros: 1_410_000 },
    });
    await user.keyboard(' {ArrowDown} p');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(2));
    expect((asked('POST tray')[1]!.body as Put).changes.map(({ change }) => change)).toEqual([
      { kind: 'pause keyword', keywordId: '1' },
      { kind: 'pause keyword', keywordId: '2' },
    ]);
  });

  test('another bid is set from its field', async () => {
    const { user, asked } = showPromote('?shown=keywords');
    await grid('Own keywords that miss', /top bar hive/);
    const field = within(inHand()).getByRole('textbox', { name: 'Bid' });
    await user.clear(field);
    await user.type(field, '1.41{Enter}');
    expect(await screen.findByText('That is the bid already.')).toBeDefined();
    await user.clear(field);
    await user.type(field, '0.50{Enter}');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
  });

  test('l leaves it for more clicks, and takes it up again', async () => {
    const { user, asked } = showPromote('?shown=keywords', {
      ...{
        'POST untangle/left': {},
        'DELETE untangle/left': { why: 'more clicks will tell', until: null, moreClicks: 20 },
      },
    });
    (await grid('Own keywords that miss', /top bar hive/)).focus();
    await user.keyboard('l');
    await waitFor(() =>
      expect(asked('POST untangle/left')[0]!.body).toMatchObject({
        kind: 'keyword',
        key: '1',
        moreClicks: 20,
      }),
    );
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('DELETE untangle/left')).toHaveLength(1));
  });

  test('how sure is asked for', async () => {
    const { user, asked } = showPromote('?shown=keywords');
    await grid('Own keywords that miss', /top bar hive/);
    await user.click(screen.getByRole('combobox', { name: 'How sure' }));
    await user.click(await screen.findByRole('option', { name: '95 % sure or more' }));
    await waitFor(() => expect(asked('GET promotion/keywords').at(-1)!.query.sure).toBe('95'));
  });
});
