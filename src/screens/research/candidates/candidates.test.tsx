import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { Change } from '@/core';
import { aCandidate, showResearch } from '../testing';

const ACCOUNT = { kind: 'account', id: null } as const;
const drafted = (change: Change) => ({
  outcomes: [{ outcome: 'drafted' as const, changeId: 5, said: 'Stop it', heed: null, change }],
});
const stop = (text: string): Change => ({ kind: 'add negative', text, match: 'phrase', place: ACCOUNT });
const table = (name = 'Remainders') => screen.findByRole('grid', { name });

describe('candidates', () => {
  test('are on unless they hit something, and all that are on go in the tray with their forms', async () => {
    const { user, asked } = showResearch({ 'POST tray': drafted(stop('job')) }, '?shown=candidates');
    const grid = await table('Candidates');
    expect(await within(grid).findByText('1 protected term')).toBeDefined();
    expect(screen.getByText('1 on')).toBeDefined();
    await user.click(screen.getByRole('button', { name: 'Put 1 in the tray' }));
    await waitFor(() => expect(asked('POST tray')).toHaveLength(1));
    expect(asked('POST tray')[0]!.body).toMatchObject({
      changes: ['job', 'jobs'].map((text) => ({ change: { text }, why: 'from starter pack Jobs' })),
    });
    grid.focus();
    await user.keyboard('{ArrowDown} ');
    expect(await screen.findByText('2 on')).toBeDefined();
    await user.keyboard('x');
    await waitFor(() =>
      expect(asked('POST research/[sheet]/decide')[0]!.body).toEqual({ keys: ['hive'], verdict: 'dropped' }),
    );
  });

  test('are checked in the match type in hand', async () => {
    const { user, asked } = showResearch({}, '?shown=candidates');
    const grid = await table('Candidates');
    await within(grid).findByText('1 protected term');
    const first = asked('GET research/[sheet]/candidates')[0]!.query.match;
    grid.focus();
    await user.keyboard('m');
    await waitFor(() => expect(asked('GET research/[sheet]/candidates')).toHaveLength(2));
    expect(asked('GET research/[sheet]/candidates')[1]!.query.match).not.toBe(first);
    await waitFor(() =>
      expect(asked('POST research/[sheet]/weigh').at(-1)!.body).toMatchObject({
        match: asked('GET research/[sheet]/candidates')[1]!.query.match,
      }),
    );
  });

  test('that were turned on and stop protected terms are held back, and that is said', async () => {
    const said = 'Held back: it would stop a protected term, “bee hive kit”.';
    const { user } = showResearch(
      {
        'POST tray': {
          outcomes: [{ outcome: 'held back', said, terms: { count: 1, first: ['bee hive kit'] } }],
        },
      },
      '?shown=candidates',
    );
    await user.click(await screen.findByRole('button', { name: 'Put 1 in the tray' }));
    expect(await screen.findByText(/^1 negative held back: protected terms/)).toBeDefined();
  });

  test('that no platform takes say so', async () => {
    const refusal = 'A negative may hold 12 words; this one holds 13.';
    showResearch(
      {
        'GET research/[sheet]/candidates': {
          ...{ version: 1, total: 1, stopped: 0, candidates: [aCandidate({ refusal })] },
        },
      },
      '?shown=candidates',
    );
    expect(await within(await table('Candidates')).findByText(refusal)).toBeDefined();
  });
});
