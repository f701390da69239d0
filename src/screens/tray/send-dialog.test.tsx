import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { aTrayChange, aTrayView } from '../testing/builders';
import { Decline, show } from '../testing/screen';
import { aFullTray, openPage } from './testing';
import { Tray } from './tray';

const full = aFullTray();

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
