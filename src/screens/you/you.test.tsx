import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { You } from '@/contracts/sign-in';
import { Decline, show } from '@/screens/testing/screen';
import { nameBrowser } from './name-browser';
import { YouScreen } from './you-screen';

const YOU: You = {
  name: 'Maren Oakes',
  signsIn: {
    ...{ email: 'maren@larkfell.example', hasFactor: false },
    sessions: [
      {
        id: '1',
        browser: 'Firefox/140.0',
        startedAt: '2026-11-20T09:00:00Z',
        seenAt: '2026-11-20T09:00:00Z',
        isThis: true,
      },
      {
        id: '2',
        browser: 'Windows Chrome/140.0',
        startedAt: '2026-11-19T09:00:00Z',
        seenAt: '2026-11-19T09:00:00Z',
        isThis: false,
      },
    ],
  },
  events: [{ id: '1', what: 'signed in', who: 'Maren Oakes', at: '2026-11-20T09:00:00Z' }],
};
const shown = (you: You = YOU) => show(<YouScreen />, { answers: { 'GET /you': you } });

test('another password is set with the one before', async () => {
  const { user, asked, answer } = shown();
  const form = within(await screen.findByRole('form', { name: 'Password' }));
  await user.type(form.getByLabelText('The password that you have'), 'seven hives');
  await user.type(form.getByLabelText(/^Another one/), 'short{Enter}');
  expect(await form.findByText('A password has at least 10 characters.')).toBeDefined();
  answer({
    'POST /you/password': () => {
      throw new Decline('This is not your password. Nothing was changed.', 403);
    },
  });
  await user.type(form.getByLabelText(/^Another one/), ' but longer{Enter}');
  expect(await form.findByText(/This is not your password/)).toBeDefined();
  answer({ 'POST /you/password': {} });
  await user.click(form.getByRole('button', { name: 'Change it' }));
  expect(await screen.findByText(/Your password is another one/)).toBeDefined();
  expect(asked('POST /you/password').at(-1)!.body).toEqual({
    current: 'seven hives',
    next: 'short but longer',
  });
});

test('a second factor shows its key and spare codes, and counts once a code was given', async () => {
  const { user, asked, answer } = shown();
  const uri = 'otpauth://totp/Gate%20Post:maren?secret=JBSWY3DPEHPK3PXP&issuer=Gate%20Post';
  answer({
    'POST /you/factor': { uri, spareCodes: ['aB3dE-6fGh9', 'xxxxx-yyyyy'] },
    'POST /you/factor/code': {},
  });
  await user.type(await screen.findByLabelText('Your password'), 'seven hives{Enter}');
  expect(await screen.findByText('JBSWY3DPEHPK3PXP')).toBeDefined();
  expect(screen.getByRole('img', { name: /to be read by a camera/ })).toBeDefined();
  expect(within(screen.getByRole('list', { name: 'Spare codes' })).getAllByRole('listitem')).toHaveLength(2);
  await user.type(screen.getByLabelText(/The six digits that it shows/), '12{Enter}');
  expect(await screen.findByText(/A code has six digits/)).toBeDefined();
  answer({ 'GET /you': { ...YOU, signsIn: { ...YOU.signsIn!, hasFactor: true } } });
  await user.type(screen.getByLabelText(/The six digits that it shows/), '3456{Enter}');
  expect(await screen.findByText('Signing in asks for a code of your second factor.')).toBeDefined();
  expect(asked('POST /you/factor/code').at(-1)!.body).toEqual({ code: '123456' });
});

test('a session elsewhere can be ended, this one not here', async () => {
  const { user, asked, answer } = shown();
  answer({ 'POST /you/sessions/[session]/end': {} });
  const list = within(await screen.findByRole('list', { name: 'Sessions' }));
  expect(list.getAllByRole('button', { name: 'End' })).toHaveLength(1);
  await user.click(list.getByRole('button', { name: 'End' }));
  await waitFor(() => expect(asked('POST /you/sessions/[session]/end')[0]!.params).toEqual({ session: '2' }));
});

test('where nobody signs in, it says so, and gives what is stored', async () => {
  shown({ name: 'Maren Oakes', signsIn: null, events: [] });
  expect(await screen.findByText(/Nobody signs in here/)).toBeDefined();
  expect(screen.getByRole('link', { name: 'Save it as a file' }).getAttribute('href')).toBe('/api/you/data');
});

describe('a browser is named', () => {
  test.each([
    ['Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0', 'Firefox on Linux'],
    ['Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) Version/18.0 Safari/605.1.15', 'Safari on macOS'],
    ['Mozilla/5.0 (Linux; Android 15) Chrome/140.0 Mobile Safari/537.36', 'Chrome on Android'],
    ['curl/8.5.0', 'A browser'],
    ['', 'A browser'],
  ])('%s', (agent, name) => expect(nameBrowser(agent)).toBe(name));
});
