import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { Role } from '@/contracts/roles';
import { anAccountView } from '../testing/builders';
import { choose, Decline, show, type Answers } from '../testing/screen';
import { AccountScreen } from './account-screen';

const showAccount = (more: Answers = {}, role: Role = 'own') =>
  show(<AccountScreen />, {
    role,
    answers: {
      'GET account': anAccountView(),
      'GET account/codes': { caught: 12, of: 300, first: ['LK-2041-S'] },
      'GET account/platform': { accounts: [] },
      'GET exports': { lines: [] },
      'GET alerts': { alerts: [], targets: [], deliveries: [], mail: null },
      'PATCH account': { said: ['The window is 60 days'] },
      ...more,
    },
  });

describe('settings', () => {
  test('are set one by one, with an undo that gives back what was', async () => {
    const { user, asked } = showAccount();
    const days = await screen.findByLabelText('Days of the window');
    await user.clear(days);
    await user.type(days, '60');
    await user.click(screen.getByRole('button', { name: 'Set: Days' }));
    expect(await screen.findByText('The window is 60 days')).toBeDefined();
    await user.click(screen.getByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('PATCH account')).toHaveLength(2));
    expect(asked('PATCH account').map(({ body }) => body)).toEqual([
      { windowDays: 60, lagDays: 3 },
      { windowDays: 30, lagDays: 3 },
    ]);
    expect(asked('GET account').length).toBeGreaterThan(1);
  });

  test('kinds of conversion are there to count once a keyword report told of some', async () => {
    const { user, asked } = showAccount({ 'GET account': anAccountView({ kindsThere: ['Calls', 'Leads'] }) });
    await user.click(await screen.findByRole('checkbox', { name: 'Leads' }));
    await user.click(screen.getByRole('button', { name: 'Set: Conversions of keywords' }));
    await waitFor(() => expect(asked('PATCH account')).toHaveLength(1));
    expect(asked('PATCH account')[0]!.body).toEqual({ conversionKinds: ['Leads'] });
  });

  test('no kind of conversion is offered before that', async () => {
    showAccount();
    await screen.findByLabelText('Days of the window');
    expect(screen.queryByText('Conversions of keywords')).toBeNull();
  });

  test('files are kept for as long as is set', async () => {
    const { user, asked } = showAccount();
    const days = await screen.findByLabelText('Days that files are kept');
    await user.clear(days);
    await user.type(days, '0');
    await user.click(screen.getByRole('button', { name: 'Set: Files' }));
    expect((await screen.findByRole('alert')).textContent).toContain('The time that files are kept');
    await user.clear(days);
    await user.type(days, '30');
    await user.click(screen.getByRole('button', { name: 'Set: Files' }));
    await waitFor(() => expect(asked('PATCH account').at(-1)?.body).toEqual({ fileDays: 30 }));
  });

  test('what is wrong stands beside its field, and what was typed stays', async () => {
    const { user } = showAccount({
      'PATCH account': () => {
        throw new Decline('Give the target CPA as an amount such as 18.00 EUR.');
      },
    });
    const target = await screen.findByLabelText('Target');
    await user.clear(target);
    await user.type(target, 'cheap');
    await user.click(screen.getByRole('button', { name: 'Set: Steering' }));
    expect((await screen.findByRole('alert')).textContent).toContain('as an amount such as 18.00');
    expect(target).toHaveProperty('value', 'cheap');
  });

  test('can be left as they were', async () => {
    const { user } = showAccount();
    const name = await screen.findByLabelText('Name of the account');
    await user.type(name, ' and shops');
    await user.click(screen.getByRole('button', { name: 'Leave as it was: Name' }));
    expect(name).toHaveProperty('value', 'Larkfell web');
    expect(screen.queryByRole('button', { name: 'Set: Name' })).toBeNull();
  });

  test('the currency is fixed once figures are loaded', async () => {
    showAccount();
    expect(await screen.findByLabelText('Currency')).toHaveProperty('readOnly', true);
  });

  test('what a pattern of product codes catches is shown as one types', async () => {
    const { user, asked } = showAccount();
    await user.type(await screen.findByLabelText(/A term is a product code when it matches/), 'LK-.*');
    await waitFor(() => expect(screen.getByTestId('codes').textContent).toContain('12'));
    expect(asked('GET account/codes').at(-1)!.query).toEqual({ pattern: 'LK-.*' });
  });
});

describe('people and accounts', () => {
  test('a person is added with a role, and the undo takes it away', async () => {
    const { user, asked } = showAccount({ 'POST people': { id: 7 }, 'PUT people/[person]': {} });
    await user.click(await screen.findByRole('combobox', { name: 'What who is added may do' }));
    await user.click(await screen.findByRole('option', { name: 'may look' }));
    await user.type(screen.getByLabelText('Add'), 'Petra Holm{Enter}');
    await waitFor(() => expect(asked('POST people')[0]!.body).toEqual({ name: 'Petra Holm', role: 'look' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(asked('PUT people/[person]')[0]).toMatchObject({
        params: { person: '7' },
        body: { role: 'none' },
      }),
    );
  });

  test('a person is removed for good once the name was typed again', async () => {
    const { user, asked } = showAccount({ 'POST people/[person]/forget': {} });
    await user.click(await screen.findByRole('button', { name: 'Remove Tobias Finch' }));
    const dialog = within(await screen.findByRole('dialog'));
    expect(dialog.getByText(/“Person 2” stands in the place of the name/)).toBeDefined();
    await user.type(dialog.getByLabelText('The name, to be sure'), 'Tobias Finch{Enter}');
    await waitFor(() =>
      expect(asked('POST people/[person]/forget')[0]).toMatchObject({
        params: { person: '2' },
        body: { name: 'Tobias Finch' },
      }),
    );
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  test('a second look is asked for by the account, and above bounds of a person', async () => {
    const was = anAccountView().secondLook;
    const { user, asked } = showAccount({ 'PUT account/second-look': { said: 'A second look: as set' } });
    const bound = await screen.findByLabelText('Changes at once without a second look: Ilse Brandow');
    await user.type(bound, 'many');
    await user.click(screen.getByRole('button', { name: 'Set: Second look' }));
    expect((await screen.findByRole('alert')).textContent).toContain('The number of changes at once');
    await user.clear(bound);
    await user.type(bound, '50');
    await user.type(screen.getByLabelText('Second look above so much stopped, EUR'), '120,50');
    await user.click(screen.getByRole('button', { name: 'Set: Second look' }));
    await waitFor(() =>
      expect(asked('PUT account/second-look')[0]?.body).toEqual({
        ...{ always: false, changes: null, costMicros: 120_500_000 },
        people: [{ person: 1, atOnce: 50, in30Days: null }],
      }),
    );
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('PUT account/second-look')[1]?.body).toEqual(was));
  });

  test('who is here no longer gets a role again, and the undo takes it away', async () => {
    const { user, asked } = showAccount({ 'PUT people/[person]': {} });
    const people = await screen.findByRole('list', { name: 'People' });
    await user.click(within(people).getByRole('combobox', { name: 'What Tobias Finch may do' }));
    await user.click(await screen.findByRole('option', { name: 'may send' }));
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() =>
      expect(asked('PUT people/[person]').map(({ body }) => body)).toEqual([
        { role: 'send' },
        { role: 'none' },
      ]),
    );
  });

  test('an owner sees who saved which file', async () => {
    const line = { id: '1', name: 'tray.csv', by: 'Tobias Finch', at: '2026-11-20T09:05:00Z' };
    showAccount({ 'GET exports': { lines: [line] } });
    const files = await screen.findByRole('list', { name: 'Saved files' });
    expect(within(files).getByRole('listitem').textContent).toMatch(/20 Nov.*Tobias Finchtray\.csv/);
  });

  test('who owns nothing reads what is set, and whom to ask', async () => {
    const { asked } = showAccount({}, 'send');
    expect(await screen.findByText(/To have it changed, ask Maren Oakes\./)).toBeDefined();
    for (const field of [...screen.getAllByRole('textbox'), ...screen.getAllByRole('combobox')])
      expect(field.closest('fieldset'), field.outerHTML).toHaveProperty('disabled', true);
    expect(asked('GET exports')).toEqual([]);
  });

  test('an account is retired', async () => {
    const { user, asked } = showAccount({ 'PUT account/retired': {} });
    await user.click(await screen.findByRole('button', { name: 'Retire Larkfell web' }));
    await waitFor(() => expect(asked('PUT account/retired')[0]!.body).toEqual({ isRetired: true }));
  });
});

describe('targets of their own', () => {
  test('are all set at once, and the undo gives them back', async () => {
    const { user, asked } = showAccount({
      'PUT account/targets': { said: '1 campaign has a target of its own' },
    });
    await user.click(await screen.findByText(/No campaign has a/));
    const field = await screen.findByLabelText(/Hives/);
    await user.type(field, '12.50');
    await user.click(screen.getByRole('button', { name: 'Set: Own targets' }));
    await waitFor(() =>
      expect(asked('PUT account/targets')[0]!.body).toEqual({
        campaigns: [{ campaignId: '1', target: '12.50' }],
        productGroups: [],
      }),
    );
  });
});

describe('the platform', () => {
  test('is connected to one of the accounts that it has, when nobody else took it', async () => {
    const { user, asked } = showAccount({
      'GET account/platform': {
        accounts: [
          { id: 'p1', name: 'Larkfell', currency: 'EUR', takenBy: null },
          { id: 'p2', name: 'Other', currency: 'EUR', takenBy: 'Larkfell market' },
        ],
      },
    });
    await user.click(await screen.findByRole('button', { name: 'Connect…' }));
    const pick = await screen.findByLabelText('Account on the platform');
    await choose(user, pick, /^Larkfell, EUR/);
    await user.click(screen.getByRole('button', { name: 'Set: Platform' }));
    await waitFor(() => expect(asked('PATCH account')[0]!.body).toEqual({ platformAccountId: 'p1' }));
  });
});
