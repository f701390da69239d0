import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { aSentState, aTrayView } from '../testing/builders';
import { show } from '../testing/screen';
import { Tray } from './tray';

describe('what waits for its time', () => {
  const waits = aTrayView({
    sent: [aSentState({ state: 'sending', answered: 0, sendAt: '2026-12-01T07:30:00.000Z' })],
  });

  test('says when it is sent, and can be taken back or sent at once', async () => {
    const { user, asked } = show(<Tray />, {
      answers: {
        'GET tray': waits,
        'POST tray/sent/[set]/stop': { said: 'Not sent: 2 changes back in the tray.' },
        'POST tray/sent/[set]/again': {},
      },
    });
    const note = within(await screen.findByTestId('sent-note'));
    expect(note.getByText(/To be sent on 1 Dec/)).toBeDefined();
    await user.click(note.getByRole('button', { name: 'Send it now' }));
    expect(asked('POST tray/sent/[set]/again')).toHaveLength(1);
    await user.click(note.getByRole('button', { name: 'Back to the tray' }));
    expect(asked('POST tray/sent/[set]/stop')).toHaveLength(1);
    expect(asked('GET tray')).toHaveLength(3); // once, and after each: it is not asked again and again while it waits
  });
});

describe('what was sent', () => {
  const withSent = (sent: Parameters<typeof aSentState>[0]) => ({
    'GET tray': aTrayView({ sent: [aSentState(sent)] }),
  });
  const note = () => screen.findByTestId('sent-note');

  test.each([
    [{ state: 'confirmed' }, 'Sent by Ilse Brandow: 2 of 2 changes read back as sent.'],
    [{ state: 'sending', answered: 1, trouble: 'No answer.' }, 'Sending: 1 of 2 changes answered.No answer.'],
    [
      { state: 'handed over', total: 1 },
      'Handed over by Ilse Brandow, 25 Nov: 1 change. Nothing of it counts',
    ],
    [
      { state: 'said to be done', confirmed: 1 },
      'Said to be done, Ilse Brandow, 25 Nov: 1 change, until a structure',
    ],
  ] as const)('%j is said', async (sent, said) => {
    show(<Tray />, { answers: withSent(sent) });
    expect((await note()).textContent).toContain(said);
  });

  test('in trouble it can be tried at once, or taken back', async () => {
    const { user, asked } = show(<Tray />, {
      answers: {
        ...withSent({ state: 'sending', answered: 0, trouble: 'The platform does not answer.' }),
        'POST tray/sent/[set]/again': {},
        'POST tray/sent/[set]/back': { said: '2 changes back in the tray' },
      },
    });
    await user.click(within(await note()).getByRole('button', { name: 'Try now' }));
    await waitFor(() => expect(asked('POST tray/sent/[set]/again')[0]!.params).toEqual({ set: '9' }));
    await user.click(within(await note()).getByRole('button', { name: 'Back to the tray' }));
    expect(await screen.findByText('2 changes back in the tray')).toBeDefined();
  });

  test('handed over, it is said to be done, with an undo, or goes back one by one', async () => {
    const waiting = [
      { id: 21, said: 'Stop “movie”' },
      { id: 22, said: 'Stop “song”' },
    ];
    const { user, asked } = show(<Tray />, {
      answers: {
        ...withSent({ state: 'handed over', waiting }),
        'POST tray/sent/[set]/done': {},
        'DELETE tray/sent/[set]/done': {},
        'POST tray/sent/[set]/back': { said: '1 change back in the tray' },
      },
    });
    await user.click(within(await note()).getByRole('button', { name: 'Back to the tray: Stop “song”' }));
    await waitFor(() => expect(asked('POST tray/sent/[set]/back')[0]!.body).toEqual({ changeIds: [22] }));
    await user.click(within(await note()).getByRole('button', { name: 'It was carried out' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('DELETE tray/sent/[set]/done')).toHaveLength(1));
    expect(
      within(await note())
        .getByText('XLSX')
        .getAttribute('href'),
    ).toBe('/api/web/tray/sent/9/sheet?as=xlsx');
  });

  test('what failed is named with its reason, and what was lost goes back', async () => {
    const failed = Array.from({ length: 7 }, (_, i) => ({
      said: `Stop “w${i}”`,
      reason: 'read back: missing',
    }));
    show(<Tray />, { answers: withSent({ state: 'partly failed', total: 9, failed, lost: 3 }) });
    expect((await note()).textContent).toContain('and 2 more');
    expect(within(await note()).getByRole('button', { name: 'Back to the tray: 3' })).toBeDefined();
  });
});
