import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, toNumber, watchErrors } from '../support/page';

const ACCOUNT = '/larkfell-market';

/** The stand-in's day, some days on, as a date field takes it. */
async function dayIn(page: Page, days: number): Promise<string> {
  const said = (await page.getByText(/^Stand-in platform:/).textContent())!.replace(
    /^Stand-in platform:\s*/,
    '',
  );
  return new Date(Date.parse(`${said} UTC`) + days * 86_400_000).toISOString().slice(0, 10);
}

async function chooseFault(page: Page, fault: string) {
  await page.getByRole('combobox', { name: 'What goes wrong on the stand-in platform' }).click();
  await page.getByRole('option', { name: fault }).click();
  await expect(
    page.getByRole('combobox', { name: 'What goes wrong on the stand-in platform' }),
  ).toContainText(fault);
}

/** Puts stops in the tray, for the whole account, in place of what stands there. */
async function draft(page: Page, texts: readonly string[]) {
  const headers = { origin: new URL(page.url()).origin };
  const tray = (await (await page.request.get(`/api${ACCOUNT}/tray`)).json()) as {
    changes: { id: number }[];
  };
  const changeIds = tray.changes.map(({ id }) => id);
  if (changeIds.length > 0)
    await page.request.delete(`/api${ACCOUNT}/tray`, { data: { changeIds }, headers });
  const changes = texts.map((text) => ({
    change: { kind: 'add negative', text, match: 'exact', place: { kind: 'account', id: null } },
  }));
  const answer = await page.request.post(`/api${ACCOUNT}/tray`, {
    ...{ data: { changes }, headers },
  });
  expect(answer.status()).toBe(200);
  await page.reload();
}

test('some of a tray is refused, mended and sent again; a stop comes to its end; Today tells of it', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const tray = page.getByRole('region', { name: 'Tray' });
  const trayCount = async () => toNumber(await page.getByTestId('tray-count').textContent());
  const note = page.getByTestId('sent-note');

  await page.goto(`${ACCOUNT}/sift`);
  await draft(page, ['okapi lamp red', 'okapi lamp blue', 'okapi lamp green']);
  await expect.poll(trayCount).toBe(3);

  // The platform refuses every third change; the first of the tray has an end.
  await chooseFault(page, 'refuses some');
  await tray.getByRole('button', { name: 'Send the tray…' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toBeVisible();
  await dialog.getByText(/^Stop “okapi lamp red”/).click(); // the row in hand has the fields
  const end = dialog.getByLabel(/^Ends on: Stop “okapi lamp red”/);
  await end.fill(await dayIn(page, 3));
  await end.press('Enter');
  await expect(page.getByText(/Taken back by itself on/)).toBeVisible();
  await expectAccessible(page);
  await dialog.getByRole('button', { name: /^Send \d+ change/ }).click();
  await expect(note.first()).toContainText('This account may not change that at the moment.');
  await expect(note.first()).toContainText('read back as sent. The others:');
  await expect(tray.getByText('Failed before:').first()).toBeVisible(); // they are back in the tray
  await expect.poll(trayCount).toBeGreaterThan(0);
  const failed = await trayCount();

  await chooseFault(page, 'works');
  await tray.getByRole('button', { name: 'Send the tray…' }).click();
  await dialog.getByRole('button', { name: /^Send \d+ change/ }).click();
  await expect(note.first()).toContainText(
    `${failed} of ${failed} changes read back as sent`.replace('1 of 1 changes', '1 of 1 change'),
  );
  await expect.poll(trayCount).toBe(0);

  // Its end comes: it is taken back, by the same road.
  await page.getByRole('button', { name: '+ 1 week' }).click();
  await expect(page.getByText(/on the platform now/)).toBeVisible();
  await page.goto(`${ACCOUNT}/ledger`);
  await expect(page.getByRole('row', { name: /1 stop came to the end that was set/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /through again/ }).first()).toBeVisible({ timeout: 20_000 });

  await page.getByRole('button', { name: 'Fetch report' }).click();
  await expect(page.getByText(/Report loaded:/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('link', { name: 'Today' }).click();
  await expect(page.getByRole('heading', { name: 'Today', level: 1 })).toBeVisible();
  await expect(page.getByTestId('today-saved')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Lately' })).toContainText('came to the end');
  await expectAccessible(page);

  // By keyboard: the first thing to do has one stop of Tab, and Enter leads there.
  const first = page.getByRole('region', { name: 'Next, by what it is worth' }).locator('[data-item="0"]');
  await first.focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/larkfell-market\/sift\?show=pass/);
  expect(errors).toEqual([]);
});

test('a tray that is set for a time waits, and one press brings it back', async ({ page }) => {
  const tray = page.getByRole('region', { name: 'Tray' });
  const trayCount = async () => toNumber(await page.getByTestId('tray-count').textContent());
  await page.goto(`${ACCOUNT}/sift`);
  await draft(page, ['okapi lamp white']);
  await expect.poll(trayCount).toBe(1);
  await tray.getByRole('button', { name: 'Send the tray…' }).click();
  const tomorrow = new Date(Date.now() + 86_400_000).toISOString().slice(0, 16);
  await page.getByLabel('or on').fill(tomorrow);
  await page.getByRole('button', { name: 'Send then' }).click();
  await expect(page.getByTestId('sent-note')).toContainText('To be sent on');
  await expectAccessible(page);
  await page.getByTestId('sent-note').getByRole('button', { name: 'Back to the tray' }).click();
  await expect.poll(trayCount).toBe(1);
  await expect(page.getByText('To be sent on')).toHaveCount(0);
  // Nothing is left behind for those who come after.
  await tray
    .getByRole('button', { name: /^Take out/ })
    .first()
    .click();
  await expect.poll(trayCount).toBe(0);
});
