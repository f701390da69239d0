import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, watchErrors } from '../support/page';

/** Lanes, by keyboard alone: leaks with their cause, what mends them, entry terms that move, and plans that are made and undone. */
const LANES = '/larkfell-web/lanes';
const grid = (page: Page, name: string) => page.getByRole('grid', { name });
const inHand = (page: Page) => page.getByRole('region', { name: 'In hand' });
const tray = (page: Page) => page.getByTestId('tray-count');
/** What the tray says that it holds: other journeys may have left something in it. */
async function inTray(page: Page): Promise<string | RegExp> {
  const answer = await page.request.get('/api/larkfell-web/tray');
  const { changes } = (await answer.json()) as { changes: unknown[] };
  const says = changes.length === 0 ? 'empty' : new RegExp(`^${changes.length} changes?,`);
  await expect(tray(page)).toHaveText(says);
  return says;
}
const leaking = async (page: Page) =>
  Number((await page.getByRole('tab', { name: /^Leaks/ }).textContent())!.replace(/\D/g, ''));

test('a leak says why; its mend goes into the tray, counts as mended there, and is taken back', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await page.goto(LANES);
  const row = grid(page, 'Leaks')
    .getByRole('row', { name: /tarnbrook/ })
    .first();
  await expect(row).toContainText('“tarnbrook” is no negative in All queries');
  await grid(page, 'Leaks').focus();
  await expect(inHand(page)).toContainText('All queries served it; by the plan it is for Maker names');
  await expectAccessible(page);
  const before = await inTray(page);
  await page.keyboard.press('Enter');
  await expect(tray(page)).not.toHaveText(before);
  await expect(row).toContainText('mended, there or in the tray');
  await expect(page.getByText(/negatives? (is|are) missing/)).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(tray(page)).toHaveText(before);
  await expect(row).toContainText('is no negative in All queries');
  expect(errors).toEqual([]);
});

test('each kind of leak is there, and says what it comes from where it is in hand', async ({ page }) => {
  await page.goto(LANES);
  const leaks = grid(page, 'Leaks');
  await expect(leaks.getByRole('row').nth(1)).toBeVisible();
  const left = new Set([
    'is no negative in',
    'stops it in All queries',
    'Maker names spent its budget on',
    'stops it in every tier before Series',
  ]);
  // The table holds only the rows that are in sight: the keys go through all of them.
  const count = await leaking(page);
  await leaks.focus();
  for (let row = 0; row < count && left.size > 0; row++) {
    const line = leaks.locator('[aria-selected=true]');
    const at = (await line.getAttribute('aria-rowindex'))!;
    const query = (await line.getByRole('gridcell').nth(1).textContent())!;
    await expect(inHand(page)).toContainText(query);
    const said = (await inHand(page).textContent())!;
    for (const because of left) if (said.includes(because)) left.delete(because);
    await page.keyboard.press('ArrowDown');
    if (row < count - 1) await expect(line).not.toHaveAttribute('aria-rowindex', at);
  }
  expect([...left]).toEqual([]);
});

test('an entry term that was missing joins the plan: its leaks are gone, and undone they are back', async ({
  page,
}) => {
  await page.goto(LANES);
  const leaks = grid(page, 'Leaks');
  const missing = leaks.getByRole('row').filter({ hasText: 'and is no entry term there' });
  await expect(missing.first()).toBeVisible();
  const before = await leaking(page);
  await missing.first().getByRole('gridcell').nth(1).click();
  await expect(inHand(page).getByRole('button', { name: /Let it into Series/ })).toBeEnabled();
  await leaks.focus();
  await page.keyboard.press('Enter');
  await expect(missing).toHaveCount(0);
  await expect.poll(() => leaking(page)).toBeLessThan(before);
  await page.keyboard.press('Control+z');
  await expect.poll(() => leaking(page)).toBe(before);
});

test('an entry term moves to another tier and back, with the negatives that follow', async ({ page }) => {
  await page.goto(`${LANES}?shown=terms`);
  const terms = grid(page, 'Entry terms');
  const row = terms.getByRole('row', { name: /elmcote/ });
  await expect(row).toContainText('Maker names');
  await row.getByRole('gridcell').first().click();
  await expect(inHand(page)).toContainText('Each earlier tier stops it');
  await terms.focus();
  await page.keyboard.press('3');
  await expect(row).toContainText('Series');
  // Maker names has no negative of it yet.
  await expect(row).toContainText('Maker names');
  await page.keyboard.press('Control+z');
  await expect(row).not.toContainText('Series');
});

test('any query is told where it would go', async ({ page }) => {
  await page.goto(LANES);
  await page.getByRole('textbox', { name: 'Where would it go?' }).fill('tarnbrook swarm catcher');
  await expect(page.getByText('By the plan to Maker names, as it holds “tarnbrook”')).toBeVisible();
  await expect(page.getByText('as things are to All queries')).toBeVisible();
});

test('a plan is made, changed and removed; one budget for all tiers is one press', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto(LANES);
  const before = await inTray(page);
  await page.getByRole('button', { name: 'Let all tiers pay out of one budget' }).press('Enter');
  await expect(page.getByText('do not pay out of one budget')).toHaveCount(0);
  await expect(tray(page)).not.toHaveText(before);
  await page.keyboard.press('Control+z');
  await expect(tray(page)).toHaveText(before);

  await page.getByRole('button', { name: 'New plan' }).press('Enter');
  const dialog = page.getByRole('dialog', { name: 'New lane plan' });
  await expect(dialog.getByRole('textbox', { name: 'Tier 1' })).toHaveValue('Shopping · All queries');
  await expectAccessible(page);
  await dialog.getByRole('textbox', { name: 'Name of the plan' }).fill('Second');
  await dialog.getByRole('textbox', { name: 'Entry terms of tier 2' }).fill('bottling tap');
  await dialog.getByRole('button', { name: 'Keep the plan' }).press('Enter');
  await expect(page.getByRole('button', { name: 'The lane plan that is shown' })).toHaveText('Second');
  await expect(page.getByText('No query can land in Shopping · Series')).toBeVisible();
  await page.getByRole('button', { name: 'Remove' }).press('Enter');
  await expect(page.getByRole('button', { name: 'The lane plan that is shown' })).toHaveText('Shopping');
  expect(errors).toEqual([]);
});

test('at 1024 px nothing is cut off', async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  await page.goto(LANES);
  await expect(grid(page, 'Leaks').getByRole('row').nth(1)).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1024);
  await expectAccessible(page);
});
