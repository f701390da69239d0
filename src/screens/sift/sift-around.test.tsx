import { screen, waitFor, within } from '@testing-library/react';
import type { UserEvent } from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import { aTermDetail, aTermsPage, aWeight } from '../testing/builders';
import { type Answers } from '../testing/screen';
import { code, drafted, inHand, showSift, table } from './testing';

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
    expect(
      await screen.findByText(/leaves 2 other terms unstopped, .*1.00.*: hive movie and 1 more/),
    ).toBeDefined();
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
    await user.click(await screen.findByRole('radio', { name: 'Themes' }));
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
  expect(await screen.findByText(/No answer. Kept here/)).toBeDefined();
  expect(screen.getByLabelText('decided, waits for the connection')).toBeDefined();
  expect(JSON.parse(window.localStorage.getItem('gatepost-waiting')!)).toMatchObject([
    { path: '/api/web/verdict', method: 'POST', about: 1, route: 'web POST verdict' },
  ]);
});
