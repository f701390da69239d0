import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { ALERT_KINDS, type AlertsView } from '@/contracts/alerts';
import { Decline, show, type Answers } from '../../testing/screen';
import { Alerts } from './alerts';

const aTarget = (over: Partial<AlertsView['targets'][number]> = {}): AlertsView['targets'][number] => ({
  ...{ id: 7, by: 'Maren Oakes', way: 'mail', address: 'maren@larkfell.example', kinds: [...ALERT_KINDS] },
  ...{ quiet: { from: 1_200, to: 420 }, digestAt: null, timeZone: 'Europe/Berlin', isOn: true },
  ...over,
});
const aView = (over: Partial<AlertsView> = {}): AlertsView => ({
  ...{ alerts: [], targets: [], deliveries: [], mail: { shownAt: 'http://127.0.0.1:4184' } },
  ...over,
});
const showAlerts = (view: AlertsView, more: Answers = {}) =>
  show(<Alerts />, { role: 'own', answers: { 'GET alerts': view, ...more } });

describe('who is told', () => {
  test('is named with what, and when', async () => {
    showAlerts(
      aView({
        targets: [
          aTarget(),
          aTarget({ id: 8, kinds: ['load', 'tray'], digestAt: 485, quiet: null, isOn: false }),
        ],
      }),
    );
    const [first, second] = within(await screen.findByRole('list', { name: 'Who is told' })).getAllByRole(
      'listitem',
    );
    expect(first!.textContent).toContain(
      'by mail to maren@larkfell.example: everything, at once, not from 20:00 to 07:00',
    );
    expect(second!.textContent).toContain(
      'files that were not loaded and changes not sent or not taken, once a day at 08:05 (off)',
    );
  });

  test('is added, changed and told no more, each with its undo', async () => {
    const { user, asked } = showAlerts(aView({ targets: [aTarget()] }), {
      'POST alerts/targets': { id: 9, said: 'Told of alerts: tobias@larkfell.example', secret: null },
      'PUT alerts/targets/[target]': { said: 'Told otherwise of alerts' },
      'DELETE alerts/targets/[target]': { said: 'Told of alerts no more' },
    });
    const tell = await screen.findByRole('button', { name: 'Tell somebody' });
    await user.click(tell);
    expect(document.activeElement).toBe(screen.getByRole('textbox', { name: 'Address' }));
    await user.keyboard('tobias@larkfell.example');
    await user.click(screen.getByRole('checkbox', { name: 'once a day' }));
    await user.click(screen.getByRole('checkbox', { name: 'weeks that miss the target' }));
    await user.click(screen.getByRole('button', { name: 'Tell' }));
    await waitFor(() => expect(asked('POST alerts/targets')).toHaveLength(1));
    expect(asked('POST alerts/targets')[0]!.body).toMatchObject({
      ...{ way: 'mail', address: 'tobias@larkfell.example', digestAt: 480, quiet: null, isOn: true },
      kinds: ['rule', 'load', 'drift', 'tray'],
    });
    await waitFor(() => expect(document.activeElement).toBe(tell));
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('DELETE alerts/targets/[target]')).toHaveLength(1));
    const change = screen.getByRole('button', { name: 'Change: maren@larkfell.example' });
    await user.click(change);
    await user.click(screen.getByRole('checkbox', { name: 'quiet hours' }));
    await user.click(screen.getByRole('button', { name: 'Set' }));
    await waitFor(() => expect(asked('PUT alerts/targets/[target]')[0]?.body).toMatchObject({ quiet: null }));
    await waitFor(() => expect(document.activeElement).toBe(change));
    await user.click(screen.getByRole('button', { name: 'Tell no more: maren@larkfell.example' }));
    await waitFor(() =>
      expect(asked('DELETE alerts/targets/[target]')[1]?.body).toEqual({ isRemoved: true }),
    );
    expect(document.activeElement).toBe(tell);
  });

  test('is not asked for what makes no sense, and Escape leaves it', async () => {
    const { user, asked } = showAlerts(aView());
    await user.click(await screen.findByRole('button', { name: 'Tell somebody' }));
    await user.keyboard('nobody{Enter}');
    expect((await screen.findByRole('alert')).textContent).toContain('This is no e-mail address.');
    expect(asked('POST alerts/targets')).toHaveLength(0);
    await user.keyboard('{Escape}');
    expect(screen.queryByRole('textbox', { name: 'Address' })).toBeNull();
  });

  test('stays in the form where the server refuses it, which says why', async () => {
    const { user } = showAlerts(aView(), {
      'POST alerts/targets': () =>
        Promise.reject(new Decline('No mail can be sent from here. Nothing was changed.')),
    });
    await user.click(await screen.findByRole('button', { name: 'Tell somebody' }));
    await user.keyboard('maren@larkfell.example{Enter}');
    expect(await screen.findByText('No mail can be sent from here. Nothing was changed.')).toBeDefined();
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Address' }).value).toBe(
      'maren@larkfell.example',
    );
  });

  test('a new hook has a secret, told once', async () => {
    const { user } = showAlerts(
      aView({ targets: [aTarget({ way: 'hook', address: 'https://larkfell.example/in' })] }),
      {
        'POST alerts/targets': { id: 9, said: 'Told of alerts', secret: 'the-secret' },
      },
    );
    await user.click(await screen.findByRole('button', { name: 'Tell somebody' }));
    await user.keyboard('maren@larkfell.example{Enter}');
    expect((await screen.findByText('the-secret')).closest('[role=status]')).not.toBeNull();
  });
});

test('what came up leads to its screen, and what was sent says what became of it', async () => {
  const at = '2026-11-20T08:00:00.000Z';
  showAlerts(
    aView({
      targets: [aTarget()],
      alerts: [{ id: 1, kind: 'load', says: 'The file a.csv was not loaded', at, leadsTo: '/intake' }],
      deliveries: [
        {
          id: 2,
          targetId: 7,
          state: 'waits',
          at,
          tries: 2,
          trouble: 'The mail server: try again',
          alerts: ['x'],
        },
        { id: 1, targetId: 3, state: 'delivered', at, tries: 1, trouble: null, alerts: ['x', 'y'] },
      ],
    }),
  );
  const link = await screen.findByRole('link', { name: 'The file a.csv was not loaded' });
  expect(link.getAttribute('href')).toMatch(/\/intake$/u);
  const [first, second] = within(screen.getByRole('list', { name: 'What was sent' })).getAllByRole(
    'listitem',
  );
  expect(first!.textContent).toContain('The mail server: try again (2 tries)');
  expect(second!.textContent).toContain('told no more');
  expect(second!.textContent).toContain('x and 1 more');
  expect(screen.getByRole('link', { name: 'stand-in inbox' })).toBeDefined();
});

test('only the owners see it', () => {
  const { asked } = show(<Alerts />, { role: 'send', answers: { 'GET alerts': aView() } });
  expect(asked('GET alerts')).toHaveLength(0);
  expect(screen.queryByText('Alerts')).toBeNull();
});
