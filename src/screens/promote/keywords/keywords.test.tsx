import { screen, waitFor, within } from '@testing-library/react';
import { expect, test } from 'vitest';
import { grid, inHand, showPromote } from '../testing';

type Put = { changes: { change: object }[] };

test('Enter lowers the bid to what pays, p pauses; of all that are marked', async () => {
  const { user, asked } = showPromote('?shown=keywords');
  (await grid('Own keywords that miss', /top bar hive/)).focus();
  expect(inHand().textContent).toContain('Since it was changed on 10 Oct: 9 clicks, 8.00, no conversion.');
  await user.keyboard('{Enter}');
  await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
  expect((asked('POST tray')[0]!.body as Put).changes[0]!.change).toEqual({
    ...{ kind: 'set bid', keywordId: '1', bidMicros: 280_000, wasMicros: 1_410_000 },
  });
  await user.keyboard(' {ArrowDown} p');
  await waitFor(() => expect(asked('POST tray')).toHaveLength(2));
  expect((asked('POST tray')[1]!.body as Put).changes.map(({ change }) => change)).toEqual([
    { kind: 'pause keyword', keywordId: '1' },
    { kind: 'pause keyword', keywordId: '2' },
  ]);
});

test('another bid is set from its field', async () => {
  const { user, asked } = showPromote('?shown=keywords');
  await grid('Own keywords that miss', /top bar hive/);
  const field = within(inHand()).getByRole('textbox', { name: 'Bid' });
  await user.clear(field);
  await user.type(field, '1.41{Enter}');
  expect(await screen.findByText('That is the bid already.')).toBeDefined();
  await user.clear(field);
  await user.type(field, '0.50{Enter}');
  await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
});

test('l leaves it for more clicks, and takes it up again', async () => {
  const { user, asked } = showPromote('?shown=keywords', {
    ...{
      'POST untangle/left': {},
      'DELETE untangle/left': { why: 'more clicks will tell', until: null, moreClicks: 20 },
    },
  });
  (await grid('Own keywords that miss', /top bar hive/)).focus();
  await user.keyboard('l');
  await waitFor(() =>
    expect(asked('POST untangle/left')[0]!.body).toMatchObject({
      kind: 'keyword',
      key: '1',
      moreClicks: 20,
    }),
  );
  await user.click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(asked('DELETE untangle/left')).toHaveLength(1));
});

test('how sure is asked for', async () => {
  const { user, asked } = showPromote('?shown=keywords');
  await grid('Own keywords that miss', /top bar hive/);
  await user.click(screen.getByRole('combobox', { name: 'How sure' }));
  await user.click(await screen.findByRole('option', { name: '95 % sure or more' }));
  await waitFor(() => expect(asked('GET promotion/keywords').at(-1)!.query.sure).toBe('95'));
});
