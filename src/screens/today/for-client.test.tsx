import { screen, within } from '@testing-library/react';
import { expect, test } from 'vitest';
import type { ForClient } from '@/contracts/for-client';
import { show } from '@/screens/testing/screen';
import { ForClientScreen } from './for-client-screen';

const aStop = (over: Partial<ForClient['stops'][number]>): ForClient['stops'][number] => ({
  ...{ changeId: 1, said: 'Stop “movie” (broad)', why: 'they watch films', sentDay: '2026-10-19' },
  ...{ until: null, savedMicros: 12_000_000 },
  ...over,
});
const view: ForClient = {
  window: { from: '2026-10-20', to: '2026-11-18' },
  ...{ costMicros: 500_000_000, returnedMicros: 200_000_000, conversions: 20, valueMicros: 0 },
  days: [{ day: '2026-10-20', returnedMicros: 3_000_000, openMicros: 4_000_000, stoppedMicros: 1_000_000 }],
  savedMicros: 42_000_000,
  stops: [
    aStop({}),
    aStop({ changeId: 2, said: 'Stop “jobs” (broad)', why: 'they look for work', savedMicros: 30_000_000 }),
    aStop({ changeId: 3, said: 'Stop “song” (broad)', until: '2026-11-02', savedMicros: null }),
  ],
  kept: [{ text: 'bee hive', note: null, by: 'Maren Oakes', costMicros: 9_000_000, conversions: 3 }],
};

test('the page for the client says what was stopped by its reasons, what it saved, and what stays open', async () => {
  show(<ForClientScreen />, { answers: { 'GET today/for-client': view }, search: '?days=30' });
  const stopped = within(await screen.findByRole('region', { name: 'What was stopped, and why' }));
  const reasons = stopped.getAllByRole('caption').map((one) => one.textContent);
  expect(reasons).toEqual(['They look for work30.00', 'They watch films12.00']);
  expect(stopped.getByText(/taken back 2 Nov/)).toBeDefined();
  const kept = within(screen.getByRole('region', { name: 'What stays open' }));
  expect(kept.getByText('kept by Maren Oakes')).toBeDefined();
  expect(screen.getByText('42.00')).toBeDefined();
  expect(screen.getByText('25.00')).toBeDefined(); // the cost of a conversion
  expect(screen.getByRole('link', { name: 'XLSX' }).getAttribute('href')).toBe(
    '/api/web/today/for-client/sheet?days=30',
  );
});

test('without a stop the page says so', async () => {
  show(<ForClientScreen />, {
    answers: { 'GET today/for-client': { ...view, stops: [], kept: [], savedMicros: null } },
  });
  expect(await screen.findByText('Nothing was stopped in these days.')).toBeDefined();
  expect(screen.getByText('not told yet')).toBeDefined();
  expect(screen.queryByText(/What stays open/)).toBeNull();
});
