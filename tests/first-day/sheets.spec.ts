import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, watchErrors } from '../support/page';

/** A tray without a platform: out as a sheet in one's own columns, back with results, mended and handed over again. */
const HEADERS = { 'content-type': 'application/json' };

async function makeAccount(page: Page): Promise<void> {
  await page.goto('/');
  const origin = new URL(page.url()).origin;
  const post = async (path: string, data: object) => {
    const answer = await page.request.post(path, { data, headers: { ...HEADERS, origin } });
    expect(answer.status(), path).toBe(200);
    return (await answer.json()) as Record<string, unknown>;
  };
  await post('/api/accounts', {
    ...{ name: 'Sheets', currency: 'EUR', steersBy: 'CPA', target: '18', person: 'Ines Vale' },
  });
  const texts = ['movie', 'song', 'poem'];
  const changes = texts.map((text) => ({
    change: { kind: 'add negative', text, match: 'phrase', place: { kind: 'account', id: null } },
  }));
  await post('/api/sheets/tray', { changes });
  await post('/api/sheets/tray/send', {});
}

test('a sheet goes out in own columns, its result comes in, and what failed is in the tray with the reason', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await makeAccount(page);
  await page.goto('/sheets/sift');
  const note = page.getByTestId('sent-note');
  await note.getByRole('button', { name: /as I like them/ }).press('Enter');
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Name of the recipe')).toBeFocused();
  await expectAccessible(page);
  for (const column of await dialog.getByRole('checkbox').all())
    if (!/Column (Do|Text)$/.test((await column.getAttribute('aria-label'))!)) await column.click();
  await dialog.getByLabel('Heading of Text').fill('Word');
  await dialog.getByLabel('Name of the recipe').fill('for the agency');
  await dialog.getByRole('button', { name: 'Keep these columns' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(note.getByRole('combobox', { name: 'Columns of the sheet' })).toHaveText('for the agency');

  const download = page.waitForEvent('download');
  await note.getByRole('link', { name: 'CSV' }).click();
  const out = readFileSync(await (await download).path(), 'utf8')
    .replace('\uFEFF', '')
    .trim()
    .split('\r\n');
  expect(out[0]).toBe('Do,Word');
  const results = ['Result', 'ok', 'failed: the list is full', 'ok'];
  const back = out.map((line, i) => `${line},${results[i]}`).join('\r\n');
  await page
    .getByLabel('Result sheet')
    .setInputFiles({ name: 'back.csv', mimeType: 'text/csv', buffer: Buffer.from(back) });
  await expect(dialog).toContainText('2 changes carried out');
  await expect(dialog).toContainText('the list is full');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: '2 carried out, 1 back in the tray' }).click();
  await expect(page.getByTestId('tray-count')).toHaveText('1 change, not handed over');
  await expect(note).toContainText('Said to be done');

  // Taken back with a key, all of it waits again.
  await page.keyboard.press('Control+z');
  await expect(note).toContainText('Handed over by Ines Vale');
  await expect(page.getByTestId('tray-count')).toHaveText('empty');
  expect(errors).toEqual([]);
});
