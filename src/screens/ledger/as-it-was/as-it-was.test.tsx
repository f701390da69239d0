import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { StandingLine, StandingView } from '@/contracts/standing';
import { show } from '@/screens/testing/screen';
import { AsItWasScreen } from './as-it-was-screen';

const aLine = (over: Partial<StandingLine>): StandingLine => ({
  ...{ id: 1, kind: 'negative', is: 'gone', what: '“movie” (broad)', where: 'list Songs' },
  ...{ from: null, until: '2026-11-20' },
  ...over,
});
const view: StandingView = {
  ...{ day: '2026-11-15', today: '2026-11-22', knownFrom: '2026-11-18' },
  lines: [
    aLine({ id: 1 }),
    aLine({ id: 2, is: 'new', what: '“pallet” (phrase)', from: '2026-11-19', until: null }),
    aLine({ id: 3, is: 'same', what: 'the list Songs', where: '', kind: 'list', until: null }),
  ],
  ...{ gone: 1, isNew: 1, renamed: 0, same: 1 },
};
const open = (search = '?day=2026-11-15&show=all', outcome = {}) =>
  show(<AsItWasScreen />, {
    answers: {
      'GET standing': view,
      'POST standing/back': {
        said: 'In the tray: what puts 1 part back',
        changeIds: [31],
        heldBack: 0,
        ...outcome,
      },
      'DELETE tray': { removed: [] },
    },
    search,
  });

describe('the account as it was', () => {
  test('says what went and came since, and what is not known', async () => {
    const { asked } = open();
    expect(await screen.findByText(/1 element/)).toBeDefined();
    expect(screen.getByRole('status').textContent).toContain('what was taken away before is not known');
    expect(asked('GET standing')[0]!.query).toEqual({ day: '2026-11-15', show: 'all', find: '' });
  });

  test('puts one part back by a key, all by a press, each with an undo', async () => {
    const { user, asked } = open('?day=2026-11-15&show=all&row=2');
    const grid = await screen.findByRole('grid', { name: 'What stood then' });
    await within(grid).findByText('“pallet” (phrase)');
    grid.focus();
    await user.keyboard('{Enter}');
    await waitFor(() =>
      expect(asked('POST standing/back')[0]!.body).toEqual({ day: '2026-11-15', ids: [2] }),
    );
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('DELETE tray')[0]!.body).toEqual({ changeIds: [31] }));
    await user.click(screen.getByRole('button', { name: 'All 2 that differ here' }));
    await waitFor(() => expect(asked('POST standing/back')).toHaveLength(2));
    expect((asked('POST standing/back')[1]!.body as { ids: number[] }).ids.sort()).toEqual([1, 2]);
  });

  test('what stands as it did can not be put back', async () => {
    const { user, asked } = open('?day=2026-11-15&show=all&row=3');
    const grid = await screen.findByRole('grid', { name: 'What stood then' });
    await within(grid).findByText('the list Songs');
    expect(await screen.findByText('It stands as it did.')).toBeDefined();
    grid.focus();
    await user.keyboard('{Enter}');
    expect(asked('POST standing/back')).toHaveLength(0);
  });

  test('what stops protected terms goes in with a reason', async () => {
    const { user, asked } = open('?day=2026-11-15&show=all&row=1', {
      ...{
        said: 'In the tray: nothing. 1 other not: it would stop a protected term',
        changeIds: [],
        heldBack: 1,
      },
    });
    await user.click(await screen.findByRole('button', { name: /^As on 15 Nov/ }));
    expect((await screen.findByRole('alert')).textContent).toContain('protected term');
    await user.keyboard('it was right then{Enter}');
    await waitFor(() => expect(asked('POST standing/back')).toHaveLength(2));
    expect(asked('POST standing/back')[1]!.body).toMatchObject({
      ids: [1],
      forcedBecause: 'it was right then',
    });
    await user.click(screen.getByRole('button', { name: 'Leave it' }));
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
