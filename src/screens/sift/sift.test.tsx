import { screen, waitFor, within } from '@testing-library/react';
import type { UserEvent } from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import type { DraftOutcome } from '@/contracts/tray';
import { aChoiceAnswer, aListsView, aTermDetail, aTermLine, aTermsPage, aWeight } from '../testing/builders';
import { Decline, show, type Answers } from '../testing/screen';
import { SiftScreen } from './sift-screen';

const movie = aTermLine();
const kit = aTermLine({
  id: 2,
  raw: 'bee hive kit',
  words: ['bee', 'hive', 'kit'],
  conversions: 2,
  isProtected: true,
});
const code = aTermLine({ id: 3, raw: 'LK-2041-S', words: [], kind: 'code' });

const drafted: DraftOutcome = {
  ...{ outcome: 'drafted', changeId: 5, said: 'Stop “movie” (phrase) in campaign Hives', heed: null },
  change: { kind: 'add negative', text: 'movie', match: 'phrase', place: { kind: 'campaign', id: '1' } },
};

const ANSWERS: Answers = {
  'GET sift/terms': aTermsPage([movie, kit, code]),
  'GET sift/words': {
    lines: [
      {
        ...{ ngram: 'movie', forms: ['movies'], isKept: false, terms: 4 },
        ...{ costMicros: 7_500_000, withoutReturnMicros: 7_500_000, conversions: 0 },
        fault: { probability: 0.93, expected: 4.2, conversions: 0, terms: 9, clicks: 120 },
      },
    ],
    ...{ neutral: 0, since: '2026-08-24' },
  },
  'GET sift/themes': {
    lines: [{ words: ['movie', 'cast'], terms: 3, clicks: 9, costMicros: 5_000_000, notes: 0, fault: null }],
  },
  'GET sift/choice': ({ query }) => aChoiceAnswer({ id: Number(query.term) }),
  'GET sift/term': ({ query }) => {
    const line = [movie, kit, code].find(({ id }) => id === Number(query.term))!;
    return aTermDetail({ id: line.id, raw: line.raw, words: line.words, kind: line.kind });
  },
  'GET views': { views: [] },
  'GET lists': aListsView(),
  'POST sift/looked': { added: 1 },
  'GET sift/variants': {
    ...{ negative: { text: 'movie', match: 'phrase' }, place: { kind: 'campaign', id: '1' }, offers: [] },
  },
};

const showSift = (more: Answers = {}, search = '') =>
  show(<SiftScreen />, { answers: { ...ANSWERS, ...more }, search });

/** The table with the focus, once its rows are there. */
async function table(user: UserEvent): Promise<HTMLElement> {
  const grid = await screen.findByRole('grid', { name: 'Search terms' });
  await within(grid).findByText('kit');
  await user.click(grid);
  grid.focus();
  return grid;
}
const inHand = () => screen.getByRole('region', { name: 'In hand' });

describe('deciding about a term', () => {
  test('by keys: a word is chosen, and its negative goes in the tray with where it was seen', async () => {
    const { user, asked } = showSift({ 'POST tray': { outcomes: [drafted] } });
    await table(user);
    await user.keyboard('3');
    await waitFor(() =>
      expect(asked('GET sift/choice').at(-1)!.query).toMatchObject({ term: '1', words: '2' }),
    );
    await within(inHand()).findByText(/Stops 4 terms of these days/);
    const before = asked('GET sift/terms').length;
    await user.keyboard('{Enter}');
    expect(await screen.findByText(drafted.said)).toBeDefined();
    expect(asked('POST tray')[0]!.body).toEqual({
      changes: [
        {
          change: { ...drafted.change, place: { kind: 'campaign', id: '1' } },
          ...{ why: 'seen in “bee hive movie”', from: 'bee hive movie' },
        },
      ],
    });
    await waitFor(() => expect(asked('GET sift/terms').length).toBeGreaterThan(before));
    expect(asked('GET views')).toHaveLength(1); // a change in the tray alters no saved view
  });

  test('turns the match type by m and the place by p', async () => {
    const { user } = showSift();
    await table(user);
    await user.keyboard('3');
    await within(inHand()).findByText(/Stops 4 terms/);
    await user.keyboard('mp');
    expect(within(inHand()).getByRole('radio', { name: 'broad' })).toHaveProperty('checked', true);
    expect(within(inHand()).getByTestId('consequence').textContent).toMatch(/^Films/);
  });

  test('what is held back asks for a reason, which goes with the change', async () => {
    const held: DraftOutcome = {
      ...{ outcome: 'held back', said: 'Held back: it would stop a protected term, “bee hive kit”.' },
      terms: { count: 1, first: ['bee hive kit'] },
    };
    const { user, asked, answer } = showSift({ 'POST tray': { outcomes: [held] } });
    await table(user);
    await user.keyboard('3');
    await within(inHand()).findByText(/Stops 4 terms/);
    await user.keyboard('{Enter}');
    await user.type(await screen.findByLabelText('Reason to force it'), 'sold out');
    answer({ 'POST tray': { outcomes: [drafted] } });
    await user.click(screen.getByRole('button', { name: 'Force it, with this reason' }));
    await waitFor(() => expect(asked('POST tray')).toHaveLength(2));
    expect(asked('POST tray')[1]!.body).toMatchObject({ changes: [{ forcedBecause: 'sold out' }] });
  });

  test('keeping is told with its undo, which gives back what was', async () => {
    const { user, asked } = showSift({
      'POST verdict': { was: { is: 'open' }, said: 'Keep “bee hive movie” open' },
    });
    await table(user);
    await within(inHand()).findByRole('button', { name: /^Keep/ });
    await user.keyboard('o');
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('POST verdict')).toHaveLength(2));
    expect(asked('POST verdict').map(({ body }) => body)).toEqual([
      { raw: 'bee hive movie', verdict: { is: 'kept' }, seen: 'open' },
      { raw: 'bee hive movie', verdict: { is: 'open' }, seen: 'kept' },
    ]);
  });

  test('a verdict that somebody else has given meanwhile is told, and everything is shown anew', async () => {
    const { user, asked } = showSift({
      'POST verdict': () => {
        throw new Decline('“bee hive movie” was kept by Tobias Finch, so nothing was changed.');
      },
    });
    await table(user);
    await within(inHand()).findByRole('button', { name: /^Keep/ });
    // Which terms were looked at is told in the background, and must not narrow what is asked for again.
    await waitFor(() => expect(asked('POST sift/looked')).toHaveLength(1), { timeout: 9_000 });
    await user.keyboard('l');
    expect(await screen.findByText(/was kept by Tobias Finch/)).toBeDefined();
    await waitFor(() => expect(asked('GET sift/words')).toHaveLength(2));
  });
});

describe('other things in hand', () => {
  const term = (over: Parameters<typeof aTermDetail>[0]): Answers => ({ 'GET sift/term': aTermDetail(over) });

  test('a product code is excluded as a product', async () => {
    const place = { kind: 'campaign', id: '1' } as const;
    const { user, asked } = showSift({
      'GET sift/terms': aTermsPage([code]),
      'POST tray': { outcomes: [{ outcome: 'already there', said: 'LK-2041-S is excluded there already.' }] },
      ...term({
        ...{ id: 3, raw: 'LK-2041-S', words: [], kind: 'code' },
        exclusions: [{ place, name: 'Hives', note: null, weight: aWeight({ clicks: 3 }), isThere: false }],
      }),
    });
    await user.click(await screen.findByRole('button', { name: 'Exclude in the campaign' }));
    expect(await screen.findByText('LK-2041-S is excluded there already.')).toBeDefined();
    expect(asked('POST tray')[0]!.body).toEqual({
      changes: [
        { change: { kind: 'exclude product', code: 'LK-2041-S', place }, why: 'seen as “LK-2041-S”' },
      ],
    });
  });

  test('a live exact keyword is a case for its bid, in the currency of the account', async () => {
    const { user, asked } = showSift({
      'POST tray': { outcomes: [drafted] },
      ...term({
        ownKeyword: {
          ...{ id: '4', adGroup: 'Starter', campaign: 'Hives', bidMicros: 700_000 },
          ...{ paysMicros: 400_000, expectedCvr: 0.02, drafted: null },
        },
      }),
    });
    const own = await screen.findByRole('region', { name: 'Its own keyword' });
    expect(own.textContent).toContain('Expected 2.0 % conversions');
    const bid = within(own).getByLabelText('Bid');
    await user.clear(bid);
    await user.type(bid, '0,35');
    await user.click(within(own).getByRole('button', { name: 'Set it' }));
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect(asked('POST tray')[0]!.body).toMatchObject({
      changes: [{ change: { kind: 'set bid', keywordId: '4', bidMicros: 350_000, wasMicros: 700_000 } }],
    });
  });

  test('a term that the tray stops is pulled out in a way that one chooses', async () => {
    const { user, asked } = showSift({
      'POST tray': { outcomes: [drafted] },
      'GET sift/pull': {
        ...{ changeId: 5, said: 'Stop “movie”' },
        ways: [
          {
            ...{ how: 'narrower', said: 'As exact “bee movie”', changes: [drafted.change] },
            left: { ...aWeight({ terms: 2, costMicros: 1_000_000 }), first: ['hive movie'] },
          },
        ],
      },
      ...term({ draftedStops: [{ changeId: 5, said: 'Stop “movie”' }] }),
    });
    expect(await screen.findByText(/leaves 2 other terms unstopped, .*1.00.*: hive movie …/)).toBeDefined();
    await user.click(screen.getByRole('button', { name: 'As exact “bee movie”' }));
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect(asked('GET sift/pull')[0]!.query).toEqual({ term: '1', change: '5' });
  });

  test('a note is written and removed, each with its undo', async () => {
    const { user, asked } = showSift({
      'POST notes': { noteId: 8 },
      'DELETE notes/[note]': { kind: 'term', about: 'bee hive movie', body: 'a film' },
      ...term({ notes: [{ id: 7, body: 'seen in May', by: 'Tobias Finch', at: '2026-05-01T00:00:00Z' }] }),
    });
    await user.type(await screen.findByLabelText('Note'), 'a film');
    await user.click(screen.getByRole('button', { name: 'Write' }));
    await waitFor(() =>
      expect(asked('POST notes')[0]!.body).toEqual({ kind: 'term', about: 'bee hive movie', body: 'a film' }),
    );
    await user.click(screen.getByRole('button', { name: 'Remove the note: seen in May' }));
    await waitFor(() => expect(asked('DELETE notes/[note]')[0]!.params).toEqual({ note: '7' }));
    expect(await screen.findByText('Note removed')).toBeDefined();
  });
});

describe('many at once', () => {
  test('marked rows are weighed as one, and put in the tray', async () => {
    const { user, asked } = showSift({
      'POST sift/batch': {
        ...{ marked: aWeight({ terms: 2 }), leftOut: [], changes: 1, stops: aWeight({ terms: 2 }) },
        negatives: { count: 1, first: [{ text: 'movie', match: 'phrase', places: 1 }] },
        others: { ...aWeight(), first: [] },
        ...{ touched: [], bound: null, refusal: null },
      },
      'POST sift/batch/draft': { outcomes: [drafted] },
      'DELETE tray': { removed: [drafted.change] },
    });
    await table(user);
    await user.keyboard(' {ArrowDown} ');
    expect(await within(inHand()).findByText(/2 terms marked/)).toBeDefined();
    await waitFor(() => expect(asked('POST sift/batch').length).toBeGreaterThan(0));
    expect(asked('POST sift/batch').at(-1)!.body).toMatchObject({
      selection: { kind: 'terms', ids: [1, 2] },
      way: { by: 'few', limit: 25 },
    });
    const grid = screen.getByRole('grid', { name: 'Search terms' });
    grid.focus();
    await user.keyboard('{Enter}');
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('DELETE tray')[0]!.body).toEqual({ changeIds: [5] }));
  });

  test('Ctrl A marks all that the filters show, and Escape none', async () => {
    const { user } = showSift({
      'POST sift/batch': () => {
        throw new Decline('These are too many.');
      },
    });
    await table(user);
    await user.keyboard('{Control>}a{/Control}');
    expect(await within(inHand()).findByText(/3 terms marked/)).toBeDefined();
    await user.keyboard('{Escape}');
    expect(await within(inHand()).findByRole('button', { name: /Put in the tray/ })).toBeDefined();
  });
});

/** The menu of views, whatever it is called by what is shown. */
async function openViews(user: UserEvent) {
  await screen.findByTestId('count-kept');
  const trigger = screen.getAllByRole('button').find((b) => b.getAttribute('aria-haspopup') === 'menu')!;
  await user.click(trigger);
}

describe('words and views', () => {
  test('a word narrows the terms; it is tagged as neutral or as a location', async () => {
    const { user, asked, search } = showSift({ 'POST words': { was: null } });
    const words = await screen.findByRole('group', { name: 'Runs of words' });
    await user.click(await within(words).findByRole('button', { name: /movie/ }));
    await waitFor(() => expect(search().get('holding')).toBe('movie'));
    await waitFor(() => expect(asked('GET sift/terms').at(-1)!.query.holding).toBe('movie'));
    await user.click(await screen.findByRole('button', { name: 'Location' }));
    await waitFor(() => expect(asked('POST words')[0]!.body).toEqual({ text: 'movie', tag: 'location' }));
    expect(await screen.findByText('“movie” is a location')).toBeDefined();
  });

  test('themes can be looked at instead', async () => {
    const { user, asked } = showSift();
    await user.click(await screen.findByRole('button', { name: 'Themes' }));
    expect(await screen.findByRole('button', { name: 'cast' })).toBeDefined();
    expect(asked('GET sift/themes')[0]!.query).toMatchObject({ view: 'remaining', holding: '' });
  });

  test('a pile is chosen by its tab, and counts stand beside it', async () => {
    const { user, search } = showSift();
    await waitFor(() => expect(screen.getByTestId('count-already').textContent).toBe('7'));
    await user.click(screen.getByRole('tab', { name: /Kept/ }));
    await waitFor(() => expect(search().get('view')).toBe('kept'));
  });

  test('filters are saved under a name, and a ready view is chosen', async () => {
    const { user, asked, search } = showSift(
      { 'POST views': { was: null }, 'DELETE views': () => ({ name: 'x', search: '', by: '', at: '' }) },
      'returns=none',
    );
    await openViews(user);
    await user.click(await screen.findByRole('menuitem', { name: /Save these filters/ }));
    await user.type(await screen.findByLabelText('Name of the view'), 'Waste');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() =>
      expect(asked('POST views')[0]!.body).toEqual({ name: 'Waste', search: 'returns=none', replaces: null }),
    );
    await openViews(user);
    await user.click(await screen.findByRole('menuitem', { name: /Naming a location/ }));
    await waitFor(() => expect(search().get('trait')).toBe('location'));
  });

  test('what must stay open is listed, added to and let go', async () => {
    const { user, asked } = showSift(
      {
        'GET verdict': {
          kept: [
            {
              text: 'bee hive kit',
              raw: 'Bee Hive Kit',
              note: 'bestseller',
              by: 'Ilse Brandow',
              at: '2026-11-01T00:00:00Z',
            },
          ],
          ...{ earned: 12, keeperConversions: 3 },
        },
        'POST verdict': { was: { is: 'open' }, said: 'Keep “starter kit” open' },
      },
      'view=kept',
    );
    await user.click(await screen.findByRole('button', { name: 'the whole list' }));
    const dialog = await screen.findByRole('dialog');
    expect(
      await within(dialog).findByText(/12 terms are protected since they had 3 conversions or more/),
    ).toBeDefined();
    await user.type(within(dialog).getByLabelText('Query to keep open'), 'starter kit');
    await user.click(within(dialog).getByRole('button', { name: 'Keep' }));
    await waitFor(() =>
      expect(asked('POST verdict')[0]!.body).toMatchObject({ raw: 'starter kit', verdict: { is: 'kept' } }),
    );
    await user.click(within(dialog).getByRole('button', { name: 'Let Bee Hive Kit go' }));
    await waitFor(() =>
      expect(asked('POST verdict')[1]!.body).toMatchObject({ raw: 'Bee Hive Kit', seen: 'kept' }),
    );
  });

  test('the next term that nobody looked at comes in hand by n', async () => {
    const { user, asked } = showSift({ 'GET sift/unseen': { index: 1 } });
    await table(user);
    await user.keyboard('n');
    expect(await within(inHand()).findByText('bee hive kit')).toBeDefined();
    expect(asked('GET sift/unseen')[0]!.query).toMatchObject({ offset: '0', sort: 'without' });
  });
});

// The last: what waits in this browser holds back the decisions after it.
test('without a connection it is kept in this browser, and the row says so', async () => {
  const { user } = showSift({
    'POST verdict': () => {
      throw new TypeError('no network');
    },
  });
  await table(user);
  await within(inHand()).findByRole('button', { name: /^Keep/ });
  await user.keyboard('o');
  expect(await screen.findByText(/No connection. Kept here/)).toBeDefined();
  expect(screen.getByLabelText('decided, waits for the connection')).toBeDefined();
  expect(JSON.parse(window.localStorage.getItem('gatepost-waiting')!)).toMatchObject([
    { path: '/api/web/verdict', method: 'POST', about: 1, route: 'web POST verdict' },
  ]);
});
