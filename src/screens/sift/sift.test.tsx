import { screen, waitFor, within } from '@testing-library/react';
import type { BatchWay } from '@/contracts/decisions';
import { describe, expect, test } from 'vitest';
import type { DraftOutcome } from '@/contracts/tray';
import { aChoiceAnswer, aTermDetail, aTermsPage, aWeight } from '../testing/builders';
import { Decline } from '../testing/screen';
import { drafted, inHand, movie, showSift, table } from './testing';

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

describe('many at once', () => {
  test('marked rows are weighed as one, and put in the tray', async () => {
    const { user, asked } = showSift({
      'POST sift/batch': {
        ...{ marked: aWeight({ terms: 2 }), leftOut: [], changes: 1, stops: aWeight({ terms: 2 }) },
        negatives: { count: 1, first: [{ text: 'movie', match: 'phrase', places: 1 }] },
        others: { ...aWeight(), first: [] },
        ...{ touched: [], bound: null, heldBack: null, refusal: null },
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

  test('these and their like: how a set does on what was held back is said', async () => {
    const { user, asked } = showSift({
      'POST sift/batch': ({ body }) => ({
        ...{ marked: aWeight({ terms: 376, costMicros: 500_000_000 }), leftOut: [], changes: 14 },
        stops: aWeight({ terms: 340, costMicros: 460_000_000, conversions: 0 }),
        negatives: { count: 14, first: [] },
        others: { ...aWeight(), first: [] },
        ...{ touched: [], bound: null, refusal: null },
        heldBack: (body as { way: BatchWay }).way.by === 'like' ? HELD_BACK : null,
      }),
    });
    await table(user);
    await user.keyboard(' ');
    const weighed = await within(inHand()).findByTestId('batch');
    expect(weighed.textContent).toContain('14 negatives stop 340 of 376 marked terms');
    expect(weighed.textContent).toContain('(92 %)');
    expect(within(weighed).queryByTestId('held-back')).toBeNull();
    await user.click(within(inHand()).getByRole('radio', { name: 'these and their like' }));
    const tried = await within(inHand()).findByTestId('held-back');
    expect(tried.textContent).toMatch(/^Of those held back 81 %, no good term\./);
    expect(asked('POST sift/batch').at(-1)!.body).toMatchObject({ way: { by: 'like', limit: 25 } });
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

describe('what is said at once', () => {
  test('a key that does nothing says why, in the row, until the next choice', async () => {
    const { user } = showSift({
      'GET sift/term': aTermDetail({
        ...{ id: movie.id, raw: movie.raw, words: movie.words },
        ownKeyword: {
          ...{ id: '9', adGroup: 'Starter', campaign: 'Hives', bidMicros: 900_000, paysMicros: 400_000 },
          ...{ expectedCvr: 0.02, drafted: null },
        },
      }),
    });
    const grid = await table(user);
    await user.keyboard('w');
    const row = within(grid).getByRole('row', { selected: true });
    expect(await within(row).findByText(/a live exact keyword: see its bid/)).toBeDefined();
    await user.keyboard('1');
    await waitFor(() => expect(within(row).queryByText(/a live exact keyword/)).toBeNull());
  });

  test('a place is proposed for the words in hand, said to be so, and never carried to another term', async () => {
    const { user } = showSift({
      'GET sift/choice': ({ query }) =>
        aChoiceAnswer({
          id: Number(query.term),
          proposed:
            query.term === '1' && query.words !== ''
              ? { place: { kind: 'list', id: '7' }, because: '“film” stands there' }
              : null,
        }),
    });
    await table(user);
    await user.keyboard('3');
    expect(await within(inHand()).findByText('proposed: “film” stands there')).toBeDefined();
    expect(within(inHand()).getByRole('button', { name: 'Place: list Films' })).toBeDefined();
    await user.keyboard('{ArrowDown}1');
    expect(await within(inHand()).findByRole('button', { name: /^Place: campaign/ })).toBeDefined();
    expect(within(inHand()).queryByText(/^proposed/)).toBeNull();
  });

  test('other days stand beside, with the difference of each term and of all', async () => {
    const now = { clicks: 30, costMicros: 12_000_000, conversions: 0 };
    const then = { clicks: 34, costMicros: 9_500_000, conversions: 1 };
    const { asked } = showSift(
      { 'GET sift/terms': aTermsPage([{ ...movie, beside: { now, then } }], { beside: { now, then } }) },
      'beside=before',
    );
    expect((await screen.findByTestId('beside')).textContent).toContain('+2.50, −4 clicks, −1 conversions');
    const grid = screen.getByRole('grid', { name: 'Search terms' });
    expect(within(grid).getByRole('row', { selected: true }).textContent).toContain('9.50+2.50');
    expect(asked('GET sift/terms').at(-1)!.query).toMatchObject({ beside: '2026-09-22~2026-10-21' });
  });
});

const HELD_BACK = {
  unwanted: { texts: 75, costMicros: 100_000_000, stopped: 58, stoppedMicros: 81_000_000 },
  good: { texts: 40, stopped: 0 },
};
