import { screen, waitFor } from '@testing-library/react';
import { expect, test } from 'vitest';
import type { Mention } from '@/contracts/mentions';
import { show } from '@/screens/testing/screen';
import { ForYou } from './for-you';

const aMention = (over: Partial<Mention> = {}): Mention => ({
  ...{ id: 4, by: 'Maren Oakes', at: '2026-11-20T09:00:00Z', isSeen: false },
  ...{ kind: 'term', about: 'bee movie', label: '“bee movie”', body: '@Ilse a film?' },
  ...over,
});
const shown = (...lines: Mention[]) =>
  show(<ForYou />, {
    answers: { 'GET mentions': { lines, pass: null }, 'POST mentions/[mention]/seen': {} },
  });

test.each([
  [aMention(), '/web/sift?view=all&text=bee%20movie'],
  [aMention({ kind: 'list', about: '7', label: 'the list Jobs' }), '/web/lists?list=7'],
  [aMention({ kind: 'pass', about: '2', label: 'the pass' }), '/web/sift?show=pass'],
])('leads to what %o is about', async (mention, href) => {
  shown(mention);
  const link = await screen.findByRole('link', { name: mention.label });
  expect(link.getAttribute('href')).toBe(href);
});

test('a change stands on the page before sending', async () => {
  shown(aMention({ kind: 'change', about: '9', label: 'a change in the tray' }));
  const asked = new Promise((done) => window.addEventListener('gatepost:send', done, { once: true }));
  (await screen.findByRole('button', { name: 'a change in the tray' })).click();
  await asked;
});

test('what was seen goes, and comes back by the undo', async () => {
  const { user, asked, answer } = shown(aMention());
  const seen = await screen.findByRole('button', { name: 'Seen: @Ilse a film?' });
  answer({ 'GET mentions': { lines: [aMention({ isSeen: true })], pass: null } });
  await user.click(seen);
  await waitFor(() => expect(screen.queryByRole('region', { name: 'For you' })).toBeNull());
  await user.click(await screen.findByRole('button', { name: 'Undo' }));
  await waitFor(() =>
    expect(asked('POST mentions/[mention]/seen').map(({ body }) => body)).toEqual([
      { isSeen: true },
      { isSeen: false },
    ]),
  );
});

test('where nobody told anything, nothing stands', async () => {
  const { asked } = shown();
  await waitFor(() => expect(asked('GET mentions')).toHaveLength(1));
  expect(screen.queryByText('For you')).toBeNull();
});
