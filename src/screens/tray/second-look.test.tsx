import { screen, waitFor, within } from '@testing-library/react';
import type { UserEvent } from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import type { SecondLook } from '@/contracts/second-look';
import type { Role } from '@/contracts/roles';
import { aTrayChange, aTrayView } from '@/screens/testing/builders';
import { Decline, show } from '@/screens/testing/screen';
import { Tray } from './tray';

const full = aTrayView({ changes: [aTrayChange(), aTrayChange({ id: 7, said: 'Stop “plans”' })] });
const FREE: SecondLook = { asks: [], up: null, isFree: true, mayYes: false, whoMay: ['Maren Oakes'] };
const ASKED = { ...FREE, asks: ['the account asks for it each time'], isFree: false };
const UP = {
  by: 'Petra Holm',
  isMine: false,
  at: '2026-11-20T09:00:00Z',
  note: 'the films',
  yes: null,
  unseen: [],
};
const YES = { by: 'Maren Oakes', isMine: false, at: '2026-11-20T10:00:00Z' };

const shown = (look: SecondLook, role: Role = 'own') =>
  show(<Tray />, { answers: { 'GET tray': full, 'GET tray/second-look': look }, role });
async function openPage(user: UserEvent) {
  await screen.findByText('2 changes, not sent');
  await user.click(screen.getByRole('button', { name: /Send the tray…|Look the tray through…/ }));
  return within(await screen.findByRole('dialog'));
}

describe('where the tray needs a second look', () => {
  test('it says why, is put up with a few words, and is not sent', async () => {
    const { user, asked, answer } = shown(ASKED);
    expect(await screen.findByText('It needs a second look before it is sent.')).toBeDefined();
    const page = await openPage(user);
    expect(page.getByText('This tray needs a second look: the account asks for it each time.')).toBeDefined();
    expect(page.getByText('Maren Oakes may say yes.')).toBeDefined();
    expect(page.getByRole('button', { name: 'Send 2 changes' })).toHaveProperty('disabled', true);
    answer({ 'PUT tray/second-look': {}, 'GET tray/second-look': { ...ASKED, up: { ...UP, isMine: true } } });
    await user.type(page.getByRole('textbox', { name: 'What to look at' }), 'the films{Enter}');
    expect(await page.findByText(/You put it up on/)).toBeDefined();
    expect(asked('PUT tray/second-look')[0]!.body).toEqual({ note: 'the films' });
  });

  test('whoever may says yes to what the page shows, and it can be sent', async () => {
    const { user, asked, answer } = shown({ ...ASKED, up: UP, mayYes: true });
    expect(
      await screen.findByText(/Petra Holm put it up for a second look. It waits for you./),
    ).toBeDefined();
    const page = await openPage(user);
    expect(page.getByText('the films')).toBeDefined();
    const up = { ...UP, yes: { ...YES, isMine: true } };
    answer({ 'PUT tray/second-look/yes': {}, 'GET tray/second-look': { ...ASKED, isFree: true, up } });
    await user.click(page.getByRole('button', { name: 'Yes to 2 changes' }));
    await waitFor(() =>
      expect(page.getByRole('button', { name: 'Send 2 changes' })).toHaveProperty('disabled', false),
    );
    expect(asked('PUT tray/second-look/yes')[0]!.body).toEqual({ changes: [full.changes[0]!.id, 7] });
    expect(page.getByRole('button', { name: 'Take the yes back' })).toBeDefined();
  });

  test('what came after the yes waits for another one', async () => {
    const { user } = shown({ ...ASKED, up: { ...UP, yes: YES, unseen: [7] }, mayYes: true });
    expect(await screen.findByText(/Changes came since the yes. It waits for you./)).toBeDefined();
    const page = await openPage(user);
    expect(page.getByText(/1 change came or changed since/)).toBeDefined();
    expect(page.getByRole('button', { name: 'Yes to 2 changes' })).toBeDefined();
  });

  test('who may look reads what it waits for, and does nothing', async () => {
    const { user } = shown({ ...ASKED, up: UP }, 'look');
    const page = await openPage(user);
    expect(page.getByText(/Petra Holm put it up on .* Maren Oakes may say yes./)).toBeDefined();
    for (const name of [/^Yes/, 'Take it down', 'Put it up'])
      expect(page.queryByRole('button', { name })).toBeNull();
  });

  test('what is declined says why', async () => {
    const { user, answer } = shown({ ...ASKED, up: UP, mayYes: true });
    const page = await openPage(user);
    answer({
      'PUT tray/second-look/yes': () => {
        throw new Decline('The tray is not up for a second look. Nothing was changed.');
      },
    });
    await user.click(page.getByRole('button', { name: 'Yes to 2 changes' }));
    expect(await screen.findByText(/not up for a second look/)).toBeDefined();
  });
});

describe('where it need not be', () => {
  test('who may send can still ask for one', async () => {
    const { user } = shown(FREE);
    const page = await openPage(user);
    expect(page.queryByRole('button', { name: 'Put it up' })).toBeNull();
    await user.click(page.getByRole('button', { name: 'Ask for a second look…' }));
    expect(page.getByRole('button', { name: 'Put it up' })).toBeDefined();
    expect(page.getByRole('button', { name: 'Send 2 changes' })).toHaveProperty('disabled', false);
  });

  test('who may prepare puts it up for those who send', async () => {
    const page = await openPage(shown(FREE, 'prepare').user);
    expect(page.getByRole('button', { name: 'Put it up' })).toBeDefined();
  });
});
