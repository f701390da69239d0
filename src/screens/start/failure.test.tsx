import { act, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { Failure } from './failure';

const AWAY = 'The database does not answer. Gate Post tries again by itself.';
const health = (status: number) =>
  vi.stubGlobal('fetch', () =>
    Promise.resolve(Response.json(status === 200 ? {} : { error: AWAY }, { status })),
  );
const wait = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
beforeEach(() => void vi.useFakeTimers());
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

test('a page that fails while something is down says what, and comes back when that is', async () => {
  health(503);
  const onBack = vi.fn();
  render(<Failure error={new Error('4711')} onRetry={vi.fn()} onBack={onBack} />);
  await wait(10);
  expect(screen.getByText(/The database does not answer/)).toBeDefined();
  await wait(4_000);
  expect(onBack).not.toHaveBeenCalled();
  health(200);
  await wait(4_000);
  expect(onBack).toHaveBeenCalled();
});

test('a page that fails by itself says where the reason stands', async () => {
  health(200);
  render(<Failure error={Object.assign(new Error(), { digest: '4711' })} onRetry={vi.fn()} />);
  await wait(10);
  expect(screen.getByText(/under 4711/)).toBeDefined();
  expect(screen.getByRole('heading').textContent).toBe('This page could not be shown');
});
