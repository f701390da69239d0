import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { News, NextAnswer, Regret, SavedOfToday, Today } from '@/contracts/today';
import { aLedgerLine } from '../testing/builders';
import { focusWork } from '@/ui/focus-work';
import { show } from '../testing/screen';
import { sayRegret } from './regret-watch';
import { TodayScreen } from './today-screen';

const WINDOW = { from: '2026-11-01', to: '2026-11-02' };
const aToday = (over: Partial<Today> = {}): Today => ({
  ...{ window: WINDOW, today: '2026-11-25' },
  days: [
    { day: '2026-11-01', returnedMicros: 10_000_000, openMicros: 20_000_000 },
    { day: '2026-11-02', returnedMicros: 5_000_000, openMicros: 15_000_000 },
  ],
  ...over,
});
const SAVED: SavedOfToday = {
  soFar: {
    ...{ predictedMicros: 5_000_000, realMicros: 4_000_000, days: 12, since: '2026-11-02', changes: 3 },
  },
  trays: [
    {
      ...{ letter: 'A', setId: 4, sentDay: '2026-11-01', changes: 3, entry: 17, days: 12 },
      ...{ predictedMicros: 5_000_000, realMicros: 4_000_000, difference: 'more came back elsewhere' },
    },
  ],
  days: [{ day: '2026-11-02', stoppedMicros: 4_000_000 }],
};
const NOTHING_SAVED: SavedOfToday = { soFar: null, trays: [], days: [] };
const NEWS: News = {
  ...{ since: '2026-11-18', days: 2, terms: 31, costMicros: 9_500_000 },
  words: [{ text: 'zeppelin', terms: 2, clicks: 4, costMicros: 4_500_000, conversions: 0 }],
  first: [{ text: 'zeppelin hive', terms: 1, clicks: 2, costMicros: 3_000_000, conversions: 1 }],
  turnedBad: [{ text: 'poster', terms: 3, clicks: 9, costMicros: 6_000_000, conversions: 0 }],
};
const NEXT: NextAnswer = {
  window: WINDOW,
  next: [
    {
      ...{ kind: 'words at fault', count: 12, worthMicros: 340_100_000, risks: 1.25 },
      first: [{ text: 'jobs', costMicros: 61_200_000 }],
    },
    {
      kind: 'load files',
      count: 1,
      worthMicros: null,
      risks: null,
      first: [{ text: 'week 47.csv', costMicros: null }],
    },
  ],
};
const REGRET: Regret = {
  ...{ kind: 'neighbours convert', changeId: 8, said: 'Stop “wax” (phrase)', sentDay: '2026-10-17' },
  ...{ conversions: 3, terms: ['wax sheets', 'wax melter'] },
};
const answers = {
  'GET today': aToday(),
  'GET today/saved': SAVED,
  'GET today/next': NEXT,
  'GET today/regrets': { regrets: [] as Regret[] },
  'POST today/look': NEWS,
  'GET ledger': { lines: [aLedgerLine({ id: 5, what: 'Keep “wax” open' })], next: null },
};
const region = (name: string) => screen.findByRole('region', { name });

describe('Today', () => {
  test('says what flowed, what was saved by which tray and why that differs, each leading to its rows', async () => {
    show(<TodayScreen />, { answers });
    const spend = await region('Spend by day');
    expect(spend.textContent).toMatch(/50\.00 in 2 days: 15\.00 on terms that returned, 35\.00 on others/);
    await waitFor(() =>
      expect(within(spend).getByRole('row', { name: /2 Nov/, hidden: true }).textContent).toContain('4.00'),
    );
    const saved = within(await region('Saved so far'));
    expect(saved.getByTestId('today-saved').textContent).toBe('4.00');
    expect(saved.getByText(/saved so far, of 5\.00 predicted/)).toBeDefined();
    const row = saved.getByRole('row', { name: /A 1 Nov/ });
    expect(within(row).getByText('more came back elsewhere')).toBeDefined();
    expect(within(row).getByRole('link').getAttribute('href')).toBe('/web/ledger?entry=17');
  });

  test('names what is new, with what it cost, each leading to Sift', async () => {
    show(<TodayScreen />, { answers });
    expect(
      await screen.findByText(/New since 18 Nov: 2 days, 31 new terms, 9\.50 spent on them/),
    ).toBeDefined();
    const news = within(await region('What is new'));
    expect(news.getByRole('link', { name: 'poster' }).getAttribute('href')).toBe('/web/sift?holding=poster');
    expect(news.getByRole('link', { name: 'zeppelin' }).getAttribute('href')).toBe(
      '/web/sift?holding=zeppelin',
    );
    expect(news.getByRole('link', { name: 'zeppelin hive' }).getAttribute('href')).toBe(
      '/web/sift?text=zeppelin%20hive',
    );
    expect(news.getByText('3.00 · 1 conversion')).toBeDefined();
  });

  test('the first thing to do is in hand; arrows choose another, each leads to where it is done', async () => {
    const { user } = show(<TodayScreen />, { answers });
    const next = within(await region('Next, by what it is worth'));
    const [words, files] = await next.findAllByRole('link');
    expect(words!.textContent).toContain('12 words at fault340.10 in these 2 days');
    expect(words!.getAttribute('href')).toBe('/web/sift?show=pass');
    const inHand = screen.getByRole('region', { name: 'In hand' });
    await waitFor(() => expect(inHand.textContent).toContain('risks about 1.3 conversions'));
    expect(inHand.textContent).toContain('jobs61.20and 11 more');
    focusWork(); // where Esc leads
    expect(document.activeElement).toBe(words);
    await user.keyboard('{ArrowDown}');
    expect(document.activeElement).toBe(files);
    expect(inHand.textContent).toContain('1 file brought and not loaded');
    expect(inHand.textContent).toContain('week 47.csv');
  });

  test('a stop that may cost conversions is named with its undo', async () => {
    const { user, asked } = show(<TodayScreen />, {
      answers: {
        ...answers,
        'GET today/regrets': { regrets: [REGRET] },
        'POST ledger/[change]/undo': { outcome: 'already there', said: 'It does not stand there.' },
      },
    });
    const watch = within(await region('Regret watch'));
    expect(
      watch.getByText(/terms like it convert now, 3 × since: “wax sheets” and “wax melter”/),
    ).toBeDefined();
    await user.click(watch.getByRole('button', { name: 'Undo: Stop “wax” (phrase)' }));
    expect(asked('POST ledger/[change]/undo')[0]!.params).toEqual({ change: '8' });
    expect(await screen.findByText('It does not stand there.')).toBeDefined();
  });

  test('what ends soon is said before', async () => {
    const ending = [{ changeId: 3, said: 'Stop “halloween” (phrase)', endsOn: '2026-12-01' }];
    show(<TodayScreen />, { answers: { ...answers, 'GET today/ending': { ending } } });
    expect((await region('Ends soon')).textContent).toContain(
      'Stop “halloween” (phrase) is taken back on 1 Dec 2026',
    );
  });

  test('without data it says where to begin, and asks for nothing to do', async () => {
    show(<TodayScreen />, {
      answers: { ...answers, 'GET today': aToday({ days: [] }), 'GET today/saved': NOTHING_SAVED },
      summary: { dataDays: null, window: null },
    });
    expect(await screen.findByText(/Nothing is known of this account yet/)).toBeDefined();
    expect(screen.getByRole('link', { name: 'To Intake' }).getAttribute('href')).toBe('/web/intake');
  });

  test('before anything was sent and when nothing waits it says so', async () => {
    show(<TodayScreen />, {
      answers: {
        ...answers,
        'GET today/saved': NOTHING_SAVED,
        'GET today/next': { window: WINDOW, next: [] },
        'POST today/look': {
          since: null,
          days: 0,
          terms: 0,
          costMicros: 0,
          words: [],
          first: [],
          turnedBad: [],
        },
      },
    });
    expect(await screen.findByText(/Nothing yet: what a tray saved is told/)).toBeDefined();
    expect(screen.queryByText(/Words that turned bad/)).toBeNull();
    const nothing = await screen.findByText(/Nothing waits/);
    focusWork();
    expect(document.activeElement).toBe(nothing);
    expect(await screen.findByText(/Nothing came since your last look/)).toBeDefined();
  });
});

test.each<[Regret, RegExp]>([
  [
    { ...REGRET, kind: 'stops more', was: 4, is: 6, conversions: 2 },
    /matches 2 terms that began to convert elsewhere/,
  ],
  [
    {
      ...{ kind: 'keyword fell', changeId: 1, said: '', sentDay: '2026-11-01' },
      ...{ keyword: '“bee hive” (broad)', adGroup: 'Hives', before: 1200, since: 300, days: 14 },
    },
    /“bee hive” \(broad\) in Hives was shown 300 × in 14 days, before 1,200 ×/,
  ],
])('a sign in words', (regret, said) => {
  expect(sayRegret(regret)).toMatch(said);
});
