import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { aTrayChange, aTrayView } from '../testing/builders';
import { show } from '../testing/screen';
import type { TrayChange } from '@/contracts/tray';
import { aFullTray, openPage } from './testing';
import { Tray } from './tray';

const full = aFullTray();
const [movie, hang] = full.changes as [TrayChange, TrayChange];

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
