import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { drafted, inHand, showSift, table } from './testing';

describe('where a stopped query goes', () => {
  const outlook = {
    ...{ days: 30, stoppedMicros: 7_000_000, netMicros: 1_000_000, seen: 0.9 },
    likely: [200_000, 1_800_000] as [number, number],
    back: [
      {
        ...{ place: { kind: 'campaign', id: '2' } as const, name: 'Courses', costMicros: 6_000_000 },
        negatives: [{ text: 'movie', match: 'phrase' } as const],
      },
    ],
  };

  test('is said with the net, and b stops it here and there', async () => {
    const { user, asked } = showSift({
      'GET sift/outlook': outlook,
      'POST tray': { outcomes: [drafted, drafted] },
    });
    await table(user);
    await user.keyboard('3');
    const said = await within(inHand()).findByTestId('outlook');
    expect(said.textContent).toContain('Of about 7.00 in 30 days, 6.00 likely comes back; net about 1.00.');
    expect(said.textContent).toContain('Courses');
    await waitFor(() =>
      expect(asked('GET sift/outlook').at(-1)!.query).toMatchObject({
        ...{ text: 'movie', match: 'phrase', kind: 'campaign', id: '1' },
      }),
    );
    await user.keyboard('b');
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    const { changes } = asked('POST tray')[0]!.body as {
      changes: { change: { text: string; place: unknown } }[];
    };
    expect(changes.map(({ change }) => [change.text, change.place])).toEqual([
      ['movie', { kind: 'campaign', id: '1' }],
      ['movie', { kind: 'campaign', id: '2' }],
    ]);
  });

  test('what is held back of it is told', async () => {
    const said = 'Held back: it would stop a protected term, “bee hive kit”.';
    const { user, asked } = showSift({
      'GET sift/outlook': outlook,
      'POST tray': {
        outcomes: [drafted, { outcome: 'held back', said, terms: { count: 1, first: ['bee hive kit'] } }],
      },
    });
    await table(user);
    await user.keyboard('3');
    await within(inHand()).findByTestId('outlook');
    await waitFor(() => expect(asked('GET sift/outlook').at(-1)!.query).toMatchObject({ text: 'movie' }));
    await user.keyboard('b');
    expect(await screen.findByText(`1 change not put in the tray. ${said}`)).toBeDefined();
  });

  test('where no place takes over enough of it to be named, b says so and stops nothing', async () => {
    const { user, asked } = showSift({ 'GET sift/outlook': { ...outlook, back: [] } });
    await table(user);
    await user.keyboard('3');
    await within(inHand()).findByTestId('outlook');
    await waitFor(() => expect(asked('GET sift/outlook').at(-1)!.query).toMatchObject({ text: 'movie' }));
    await user.keyboard('b');
    expect(await screen.findByText(/^Nowhere else to stop it/)).toBeDefined();
    expect(asked('POST tray')).toHaveLength(0);
  });

  test('where as much or more comes back, nothing is said to be saved', async () => {
    const { user } = showSift({ 'GET sift/outlook': { ...outlook, netMicros: -200_000 } });
    await table(user);
    await user.keyboard('3');
    const said = await within(inHand()).findByTestId('outlook');
    expect(said.textContent).toContain(
      'All of about 7.00 in 30 days likely comes back: alone it saves nothing.',
    );
  });

  test('little that comes back is told as the net, and nothing is offered', async () => {
    const { user } = showSift({ 'GET sift/outlook': { ...outlook, netMicros: 6_950_000, back: [] } });
    await table(user);
    await user.keyboard('3');
    const said = await within(inHand()).findByTestId('outlook');
    expect(said.textContent).toContain('Saves about 6.95 in 30 days: little of it would come back.');
    expect(within(inHand()).queryByRole('button', { name: /here and there/ })).toBeNull();
  });
});
