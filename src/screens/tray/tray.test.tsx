import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { UserEvent } from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import { aTrayChange, aTrayView, aWeight } from '../testing/builders';
import { Decline, show } from '../testing/screen';
import { Tray } from './tray';

const movie = aTrayChange();
const hang = aTrayChange({
  ...{ id: 2, kind: 'hang list', said: 'Hang Jobs on Hives', by: 'Tobias Finch' },
  change: { kind: 'hang list', listId: '1', campaignId: '1' },
  stops: aWeight(),
});
const full = aTrayView({
  changes: [movie, hang],
  stops: aWeight({ terms: 4, clicks: 12, costMicros: 7_500_000 }),
});

/** Opens the page before sending, once it is known what is in the tray. */
async function openPage(user: UserEvent) {
  await screen.findByText(/not (sent|handed over)/);
  await user.click(screen.getByRole('button', { name: /(Send|Hand) the tray/ }));
}

describe('the tray', () => {
  test('says what it is for while it is empty, and sends nothing', async () => {
    show(<Tray />, { answers: { 'GET tray': aTrayView() } });
    expect(await screen.findByText(/What you decide is gathered here/)).toBeDefined();
    expect(screen.getByTestId('tray-count').textContent).toBe('empty');
    expect(screen.getByRole('button', { name: /Send the tray/ })).toHaveProperty('disabled', true);
  });

  test('sums up its changes, and names what each adds', async () => {
    show(<Tray />, { answers: { 'GET tray': full } });
    expect(await screen.findByText('2 changes, not sent')).toBeDefined();
    expect(screen.getByTestId('tray-cost').textContent).toContain('7.50');
    const [first, second] = screen.getAllByRole('listitem');
    expect(first!.textContent).toContain('4 terms');
    expect(second!.textContent).toContain('nothing more');
  });

  test('says what of it comes back where, and stops it there, too, by one press', async () => {
    const { user, asked } = show(<Tray />, {
      answers: {
        'GET tray': full,
        'GET tray/outlook': {
          ...{ days: 30, stoppedMicros: 7_000_000, netMicros: 1_000_000, seen: 1, changes: [] },
          likely: [200_000, 1_800_000] as [number, number],
          back: [
            {
              ...{ place: { kind: 'campaign', id: '2' }, name: 'Courses', costMicros: 6_000_000 },
              negatives: [{ text: 'movie', match: 'phrase' }],
            },
          ],
        },
        'POST tray': { outcomes: [{ outcome: 'already there', said: 'This is in the tray already.' }] },
      },
    });
    expect((await screen.findByTestId('outlook')).textContent).toContain('net about 1.00');
    await user.click(screen.getByRole('button', { name: 'Stop it there, too' }));
    await waitFor(() =>
      expect(asked('POST tray')[0]!.body).toEqual({
        changes: [
          {
            change: {
              ...{ kind: 'add negative', text: 'movie', match: 'phrase' },
              place: { kind: 'campaign', id: '2' },
            },
            why: 'its queries would come back in Courses',
          },
        ],
      }),
    );
  });

  test('takes a change out, and puts it back on undo; only what it touches is asked for again', async () => {
    const { user, asked, answer } = show(<Tray />, {
      answers: {
        'GET tray': full,
        'DELETE tray': { removed: [movie.change] },
        'POST tray': { outcomes: [{ outcome: 'already there', said: 'This is in the tray already.' }] },
      },
    });
    const out = await screen.findByRole('button', { name: `Take out: ${movie.said}` });
    answer({ 'GET tray': aTrayView({ changes: [hang] }) });
    await user.click(out);
    expect(await screen.findByText('1 change, not sent')).toBeDefined();
    expect(asked('DELETE tray')[0]!.body).toEqual({ changeIds: [1] });
    expect(asked('GET tray')).toHaveLength(2);
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('POST tray')[0]!.body).toEqual({ changes: [{ change: movie.change }] }));
  });

  test('asks for what came since it asked last, and keeps what it knows', async () => {
    const { user, asked, answer } = show(<Tray />, {
      answers: { 'GET tray': { ...full, told: '2 x' }, 'DELETE tray': { removed: [] } },
    });
    await screen.findByText('2 changes, not sent');
    const salary = aTrayChange({ id: 3, said: 'Stop “salary” (phrase) in campaign Hives' });
    answer({ 'GET tray': aTrayView({ changes: [salary], kept: 2, told: '3 y' }) });
    await user.click(screen.getByRole('button', { name: `Take out: ${movie.said}` }));
    expect(await screen.findByText('3 changes, not sent')).toBeDefined();
    const lines = screen.getAllByRole('listitem').slice(0, 3);
    expect(lines.map((line) => line.textContent)).toEqual([
      expect.stringContaining(movie.said),
      expect.stringContaining(hang.said),
      expect.stringContaining(salary.said),
    ]);
    expect(asked('GET tray')[1]!.query).toMatchObject({ known: '2 x' });
  });

  test('what one action put in is one group, which opens, and goes out by one press of Delete', async () => {
    const salary = aTrayChange({ id: 3, said: 'Stop “salary” (phrase) in campaign Hives' });
    const group = [movie, salary].map((change) => ({ ...change, action: 'a paste' }));
    const { user, asked } = show(<Tray />, {
      answers: { 'GET tray': aTrayView({ changes: group }), 'DELETE tray': { removed: [] } },
    });
    const head = await screen.findByRole('button', { name: /^Stop by 2 negatives/ });
    expect(screen.getAllByRole('listitem')).toHaveLength(1);
    head.focus();
    await user.keyboard('{Enter}');
    expect(screen.getAllByRole('listitem')).toHaveLength(3);
    await user.keyboard('{Delete}');
    await waitFor(() => expect(asked('DELETE tray')[0]!.body).toEqual({ changeIds: [1, 3] }));
  });

  test('folded, it says how many changes wait and what they stop', async () => {
    show(<Tray isFolded />, { answers: { 'GET tray': full } });
    expect(
      await screen.findByRole('button', { name: /Open In hand and the Tray: 2 changes, 7.50 stopped/ }),
    ).toBeDefined();
  });

  test('a change that is held back goes in with a reason, beside its warning', async () => {
    const held = aTrayChange({ heldBackBy: { count: 1, first: ['bee hive kit'] } });
    const { user, asked } = show(<Tray />, {
      answers: {
        'GET tray': aTrayView({ changes: [held] }),
        'POST tray': { outcomes: [{ outcome: 'already there', said: 'It is there.' }] },
      },
    });
    await openPage(user);
    await user.click(await screen.findByRole('button', { name: 'Give a reason' }));
    await user.type(screen.getByLabelText('Reason to force it'), 'sold out{Enter}');
    await waitFor(() =>
      expect(asked('POST tray')[0]!.body).toEqual({
        changes: [{ change: held.change, forcedBecause: 'sold out' }],
      }),
    );
  });

  test('what is held back, over a limit, or touches a keyword is said before sending', async () => {
    const held = aTrayChange({
      heldBackBy: { count: 2, first: ['bee hive kit'] },
      touched: [
        {
          ...{ severity: 'narrowed', count: 1 },
          first: [{ text: 'bee hive', match: 'broad', adGroup: 'Starter', campaign: 'Hives' }],
        },
      ],
    });
    const room = [
      {
        ...{ place: 'list Jobs', at: { kind: 'list' as const, id: '1' } },
        what: 'negatives' as const,
        used: 4_002,
        most: 4_000,
        couldDrop: { count: 0, first: [] },
      },
    ];
    const { user } = show(<Tray />, { answers: { 'GET tray': aTrayView({ changes: [held], room }) } });
    expect(await screen.findByText(/would stop the protected term “bee hive kit” and 1 more/)).toBeDefined();
    expect(screen.getByText(/A live keyword is narrowed: “bee hive”/)).toBeDefined();
    expect(screen.getByText(/list Jobs would hold 4002 negatives/)).toBeDefined();
    await openPage(user);
    const dialog = await screen.findByRole('dialog');
    expect(within(dialog).getByRole('button', { name: 'Send 1 change' })).toHaveProperty('disabled', true);
    expect(within(dialog).getByText(/A change is held back/)).toBeDefined();
  });
});

describe('sending', () => {
  test('lists every change first, then sends once, and closes', async () => {
    const { user, asked } = show(<Tray />, { answers: { 'GET tray': full, 'POST tray/send': { setId: 9 } } });
    await openPage(user);
    const dialog = await screen.findByRole('dialog');
    expect(within(dialog).getAllByRole('row')).toHaveLength(3);
    expect(within(dialog).getByText('Tobias Finch')).toBeDefined();
    await user.click(within(dialog).getByRole('button', { name: 'Send 2 changes' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(asked('POST tray/send')).toHaveLength(1);
  });

  test('that is declined says why, and the page stays open', async () => {
    const { user } = show(<Tray />, {
      answers: {
        'GET tray': full,
        'POST tray/send': () => {
          throw new Decline('Nothing was sent. Somebody else changed the list Jobs on the platform.');
        },
      },
    });
    await openPage(user);
    await user.click(await screen.findByRole('button', { name: 'Send 2 changes' }));
    expect(await screen.findByText(/Somebody else changed the list Jobs/)).toBeDefined();
    expect(screen.getByRole('dialog')).toBeDefined();
  });

  test('is looked through by who may not send it, with who may', async () => {
    const { user } = show(<Tray />, {
      ...{ answers: { 'GET tray': full }, role: 'prepare' as const },
    });
    await screen.findByText('2 changes, not sent');
    await user.click(screen.getByRole('button', { name: 'Look the tray through…' }));
    const page = within(await screen.findByRole('dialog'));
    expect(page.getByText('You may not send it: Maren Oakes and Tobias Finch may.')).toBeDefined();
    expect(page.queryByRole('button', { name: /Send/ })).toBeNull();
  });

  test('can be set for a time', async () => {
    const { user, asked } = show(<Tray />, { answers: { 'GET tray': full, 'POST tray/send': { setId: 9 } } });
    await openPage(user);
    expect(await screen.findByRole('button', { name: 'Send then' })).toHaveProperty('disabled', true);
    fireEvent.change(screen.getByLabelText('or on'), { target: { value: '2026-12-01T07:30' } });
    await user.click(screen.getByRole('button', { name: 'Send then' }));
    await waitFor(() => expect(asked('POST tray/send')).toHaveLength(1));
    expect(asked('POST tray/send')[0]!.body).toEqual({ at: new Date('2026-12-01T07:30').toISOString() });
  });

  test('what failed before can be sent without the rest', async () => {
    const view = aTrayView({
      changes: [
        aTrayChange(),
        aTrayChange({ id: 7, said: 'Stop “plans”', failedBefore: 'The platform was busy.' }),
      ],
    });
    const { user, asked } = show(<Tray />, { answers: { 'GET tray': view, 'POST tray/send': { setId: 9 } } });
    await openPage(user);
    await user.click(await screen.findByRole('button', { name: 'Only 1 change that failed before' }));
    await waitFor(() => expect(asked('POST tray/send')[0]?.body).toEqual({ only: [7] }));
  });

  test('what is found of the whole tray is said, with its mend; what is gone keeps it back', async () => {
    const { user, asked } = show(<Tray />, {
      answers: {
        'GET tray': aTrayView({
          changes: [aTrayChange(), aTrayChange({ id: 2, said: 'Stop “free plans”' })],
        }),
        'GET tray/check': {
          needless: [{ changeId: 2, coveredBy: '“plans” (phrase) in the whole account' }],
          gone: [{ changeId: 1, said: 'Stop “movie”', reason: 'the campaign is not there any more.' }],
        },
        'DELETE tray': { removed: [] },
      },
    });
    await openPage(user);
    const warnings = within(await screen.findByRole('group', { name: 'Warnings' }));
    const [gone, needless] = warnings.getAllByText(/can not be sent any more|is needless/);
    expect(gone!.textContent).toMatch(/“Stop “movie”” can not be sent any more: the campaign is not there/);
    expect(needless!.textContent).toMatch(/“plans” \(phrase\) in the whole account stops all of it/);
    expect(screen.getByRole('button', { name: 'Send 2 changes' })).toHaveProperty('disabled', true);
    await user.click(within(needless!).getByRole('button', { name: 'Take it out' }));
    expect(asked('DELETE tray')[0]!.body).toEqual({ changeIds: [2] });
  });

  test('a stop is given an end, which is stored when the field is left', async () => {
    const { user, asked } = show(<Tray />, {
      answers: { 'GET tray': full, 'PUT tray/ends': { was: [{ changeId: 1, endsOn: null }] } },
    });
    await openPage(user);
    const [field] = await screen.findAllByLabelText(/^Ends on: Stop/);
    fireEvent.change(field!, { target: { value: '2027-01-06' } });
    expect(asked('PUT tray/ends')).toHaveLength(0);
    fireEvent.blur(field!);
    await waitFor(() => expect(asked('PUT tray/ends')).toHaveLength(1));
    expect(asked('PUT tray/ends')[0]!.body).toEqual({ changeIds: [1], endsOn: '2027-01-06' });
    expect(await screen.findByText('Taken back by itself on 6 Jan 2027')).toBeDefined();
  });

  test('something is said of a change, by Enter', async () => {
    const said = { id: 3, by: 'Tobias Finch', text: 'A course of ours?' };
    const view = aTrayView({ changes: [aTrayChange({ comments: [said] })] });
    const { user, asked } = show(<Tray />, {
      answers: { 'GET tray': view, 'POST tray/comments': { id: 4 } },
    });
    await openPage(user);
    expect(await screen.findByText('A course of ours?')).toBeDefined();
    await user.click(screen.getByRole('button', { name: /^Comment on: Stop “movie”/ }));
    await user.keyboard('No, a film.{Enter}');
    await waitFor(() => expect(asked('POST tray/comments')).toHaveLength(1));
    expect(asked('POST tray/comments')[0]!.body).toEqual({ changeId: 1, text: 'No, a film.' });
    expect(await screen.findByText('Said of the change')).toBeDefined();
  });

  test('without a platform it is handed over', async () => {
    const { user } = show(<Tray />, { answers: { 'GET tray': full }, summary: { isConnected: false } });
    await openPage(user);
    expect(await screen.findByText(/No platform is connected/)).toBeDefined();
    expect(screen.getByRole('button', { name: 'Hand 2 changes over' })).toBeDefined();
  });
});
