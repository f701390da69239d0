import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { aReading, aReadingAnswer, anIntakeView, aReportFile } from '../testing/builders';
import { choose, Decline, show, type Answers } from '../testing/screen';
import { IntakeScreen } from './intake-screen';

const showIntake = (answers: Answers, search = '') =>
  show(<IntakeScreen />, { answers: { 'GET intake': anIntakeView(), ...answers }, search });
const uploaded = { 'GET intake': anIntakeView({ files: [aReportFile()] }) };

describe('bringing reports', () => {
  test('at first says how', async () => {
    showIntake({});
    expect(await screen.findByText(/Nothing was brought yet/)).toBeDefined();
  });

  test('a file goes up as it is, with its name and its size, and is shown as it was read', async () => {
    const { user, asked, search } = showIntake({
      ...uploaded,
      'PUT intake': { files: [aReportFile()] },
      'POST intake/[file]/reading': aReadingAnswer(),
    });
    await user.upload(
      await screen.findByLabelText('Report files'),
      new File(['Search term\nx\n'], 'november.csv'),
    );
    expect(await screen.findByRole('group', { name: 'How the file was read' })).toBeDefined();
    expect(asked('PUT intake')[0]!.query).toEqual({ name: 'november.csv', size: '14' });
    expect(search().get('file')).toBe('4');
  });

  test('one that is declined says why, and the next is taken', async () => {
    let times = 0;
    const { user, asked } = showIntake({
      ...uploaded,
      'PUT intake': () => {
        times += 1;
        if (times === 1) throw new Decline('The file is empty. Nothing was stored.');
        return { files: [aReportFile()] };
      },
      'POST intake/[file]/reading': aReadingAnswer(),
    });
    await user.upload(await screen.findByLabelText('Report files'), [
      new File([], 'a.csv'),
      new File(['x'], 'b.csv'),
    ]);
    expect(await screen.findByText('The file is empty. Nothing was stored.')).toBeDefined();
    expect(asked('PUT intake')).toHaveLength(2);
  });

  test('pasted cells are brought as a file', async () => {
    const { user, asked } = showIntake({
      ...uploaded,
      'PUT intake': { files: [aReportFile()] },
      'POST intake/[file]/reading': aReadingAnswer(),
    });
    await user.click(await screen.findByRole('button', { name: 'Paste' }));
    const dialog = await screen.findByRole('dialog');
    await user.type(within(dialog).getByRole('textbox'), 'Search term');
    await user.click(within(dialog).getAllByRole('button')[0]!);
    await waitFor(() => expect(asked('PUT intake')[0]!.query.name).toMatch(/^pasted at \d\d:\d\d$/));
  });
});

describe('a reading', () => {
  const read = (over: Parameters<typeof aReadingAnswer>[0]): Answers => ({
    ...uploaded,
    'POST intake/[file]/reading': aReadingAnswer(over),
  });

  test('is loaded as it is shown', async () => {
    const { user, asked } = showIntake({ ...read({}), 'POST intake/[file]/load': {} }, 'file=4');
    await user.click(await screen.findByRole('button', { name: 'Load 2 rows' }));
    await waitFor(() =>
      expect(asked('POST intake/[file]/load')[0]).toMatchObject({ params: { file: '4' }, body: {} }),
    );
    await waitFor(() => expect(asked('GET intake').length).toBeGreaterThan(1));
  });

  test('what the file alone can not decide is asked, and read anew by the answer', async () => {
    const questions = [
      {
        code: 'day order' as const,
        column: 'Day',
        text: '03.04. is the 3rd of April, or the 4th of March?',
        options: ['day first' as const, 'month first' as const],
      },
    ];
    const { user, asked } = showIntake(
      read({ reading: aReading({ questions }), obstacle: 'A question is open.' }),
      'file=4',
    );
    expect(await screen.findByText(/the 3rd of April/)).toBeDefined();
    expect(screen.getByRole('button', { name: /^Load/ })).toHaveProperty('disabled', true);
    await user.click(screen.getAllByRole('radio')[0]!);
    await waitFor(() =>
      expect(asked('POST intake/[file]/reading').at(-1)!.body).toMatchObject({ dayOrder: 'day first' }),
    );
  });

  test('a file without days asks for its period, and takes none that ends before it begins', async () => {
    const questions = [
      {
        code: 'period' as const,
        column: null,
        text: 'Which days are these?',
        options: [] as [],
        suggested: { from: '2026-11-01', to: '2026-11-20' },
      },
    ];
    const { user, asked } = showIntake(read({ reading: aReading({ questions }) }), 'file=4');
    const first = await screen.findByLabelText('First day');
    await user.clear(first);
    await user.type(first, '2026-11-10');
    const last = screen.getByLabelText('Last day');
    await user.clear(last);
    await user.type(last, '2026-11-01');
    await user.click(screen.getByRole('button', { name: 'These days' }));
    expect(await screen.findByText('The last day comes before the first.')).toBeDefined();
    const bodies = () => asked('POST intake/[file]/reading').map(({ body }) => JSON.stringify(body));
    expect(bodies().join()).not.toContain('period');
    await user.clear(last);
    await user.type(last, '2026-11-15{Enter}');
    await waitFor(() =>
      expect(asked('POST intake/[file]/reading').at(-1)!.body).toMatchObject({
        period: { from: '2026-11-10', to: '2026-11-15' },
      }),
    );
  });

  test.each([
    [
      {
        reading: aReading({
          error: { category: 'no header' as const, message: 'No line names the columns.' },
        }),
      },
      /No line names the columns/,
    ],
    [{ loadedBefore: { name: 'old.csv', at: '2026-11-01T00:00:00Z' } }, /This file was loaded before, as/],
    [{ recipe: { id: 1, name: 'Weekly' } }, /Weekly/],
    [{ whole: { rowsRead: 40_000 } }, /40,000/],
    [{ obstacle: 'The file is in USD, and the account in EUR.' }, /in USD, and the account in EUR/],
  ])('%# is said', async (over, said) => {
    showIntake(read(over), 'file=4');
    expect((await screen.findAllByText(said)).length).toBeGreaterThan(0);
  });

  test('a column is taken for something else', async () => {
    const { user, asked } = showIntake(read({}), 'file=4');
    await screen.findByRole('group', { name: 'How the file was read' });
    await choose(user, screen.getByLabelText('Note is taken for'), 'campaign');
    await waitFor(() =>
      expect(asked('POST intake/[file]/reading').at(-1)!.body).toMatchObject({ roles: { 2: 'campaign' } }),
    );
  });
});

describe('a load', () => {
  const file = (over: Parameters<typeof aReportFile>[0]): Answers => ({
    'GET intake': anIntakeView({ files: [aReportFile(over)] }),
    'POST intake/[file]/reading': aReadingAnswer({ file: aReportFile(over) }),
  });
  const outcome = { rows: 9, rejected: 2, added: 7, replaced: 2, newTerms: 3, days: null };

  test('shows its progress, and can be cancelled', async () => {
    const { user, asked } = showIntake(
      { ...file({ state: 'loading', rowsRead: 1, rowsPerSecond: 900 }), 'DELETE intake/[file]/load': {} },
      'file=4',
    );
    expect(await screen.findByText(/Loading: 1 of 2 rows, 900 a second/)).toBeDefined();
    await user.click(screen.getByRole('button', { name: 'Cancel' }));
    await waitFor(() => expect(asked('DELETE intake/[file]/load')).toHaveLength(1));
  });

  test('says what came of it, and is taken back as a whole', async () => {
    const { user, asked } = showIntake(
      { ...file({ state: 'loaded', outcome }), 'POST intake/[file]/back': {} },
      'file=4',
    );
    expect(await screen.findByText(/Loaded: 7 new rows, 2 replaced, 2 refused/)).toBeDefined();
    expect(screen.getByRole('link', { name: /Save the refused rows/ }).getAttribute('href')).toBe(
      '/api/web/intake/4/refused',
    );
    await user.click(screen.getByRole('button', { name: 'Take back this load' }));
    await waitFor(() => expect(asked('POST intake/[file]/back')[0]!.params).toEqual({ file: '4' }));
  });

  test('a structure file tells what of a tray it shows', async () => {
    showIntake(
      file({ state: 'loaded', kind: 'structure', outcome: { ...outcome, said: { compared: 3, there: 2 } } }),
      'file=4',
    );
    expect(
      await screen.findByText(
        /Of 3 changes that were said to be done, 2 are there. The Ledger names the others/,
      ),
    ).toBeDefined();
    expect(screen.queryByRole('button', { name: 'Take back this load' })).toBeNull();
  });

  test('stands in the history, from which it is taken back too', async () => {
    const { user, asked } = showIntake({
      ...file({ state: 'loaded', outcome }),
      'POST intake/[file]/back': {},
    });
    await user.click(await screen.findByRole('button', { name: 'Take back november.csv' }));
    expect(await screen.findByText(/november.csv is being taken back/)).toBeDefined();
    expect(asked('POST intake/[file]/back')).toHaveLength(1);
  });
});

describe('what goes on by itself', () => {
  test('the daily report, and recipes', async () => {
    const { user, asked } = showIntake({
      'GET intake': anIntakeView({ recipes: [{ id: 6, name: 'Weekly', columns: 11 }] }),
      'POST platform/daily': {},
      'DELETE intake/recipes/[recipe]': {},
    });
    await user.click(await screen.findByRole('checkbox', { name: 'Fetch the newest report every day' }));
    await waitFor(() => expect(asked('POST platform/daily')[0]!.body).toEqual({ daily: true }));
    await user.click(screen.getByRole('button', { name: 'Forget the recipe Weekly' }));
    await waitFor(() => expect(asked('DELETE intake/recipes/[recipe]')[0]!.params).toEqual({ recipe: '6' }));
  });
});
