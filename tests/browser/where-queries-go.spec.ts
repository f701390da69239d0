import { expect, test } from '@playwright/test';
import { expectAccessible, toNumber, watchErrors } from '../support/page';

/** A stop whose query comes back elsewhere is promised so; weeks pass, and it came so. */
test('what comes back is promised, stopped there too by one press or left, and the Ledger shows that it came', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const terms = page.getByRole('grid', { name: 'Search terms' });
  const inHand = page.getByRole('region', { name: 'In hand' });
  const rowInHand = terms.locator('[role=row][aria-selected=true]');
  const termInHand = () => rowInHand.locator('[data-raw]').getAttribute('data-raw');
  const tray = page.getByRole('region', { name: 'Tray' });
  const thereToo = inHand.getByRole('button', { name: /^Stop it here and there/ });
  const heldBack = inHand.getByText(/Would stop \d+ protected term/);
  const trayCount = async () => toNumber(await page.getByTestId('tray-count').textContent());

  await page.goto('/larkfell-web/sift?returns=none&text=bee+hive');
  await expect(rowInHand).toBeVisible();
  await terms.focus();
  const before = await trayCount();
  // The first term that can be stopped where it is likely to come back, too, and that nothing protects.
  for (let tried = 0; tried < 40; tried++) {
    await expect(page.locator('[data-weighed]')).toBeVisible();
    await page.waitForLoadState('networkidle');
    if ((await thereToo.isVisible()) && (await heldBack.count()) === 0) break;
    await page.keyboard.press('ArrowDown');
  }
  await expect(thereToo).toBeVisible();
  await expect(heldBack).toHaveCount(0);
  const said = inHand.getByTestId('outlook');
  await expect(said).toContainText('likely comes back');
  await expectAccessible(page);
  const term = (await termInHand())!;

  // By b it is stopped in all of them, and by one undo in none.
  await page.keyboard.press('b');
  await expect.poll(trayCount).toBeGreaterThan(before + 1);
  await page.keyboard.press('Control+z');
  await expect.poll(trayCount).toBe(before);

  await page.goto(`/larkfell-web/sift?returns=none&text=${encodeURIComponent(term)}`);
  await expect(rowInHand).toContainText(term.split(' ')[0]!);
  await terms.focus();
  await page.keyboard.press('w');
  await expect.poll(trayCount).toBe(before + 1);
  await expect(tray.getByTestId('outlook')).toContainText('likely comes back');
  await tray.getByRole('button', { name: 'Send the tray…' }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Send \d+ change/ })
    .click();
  await expect(page.getByTestId('sent-note')).toContainText('read back as sent');
  for (let week = 0; week < 2; week++) {
    await page.getByRole('button', { name: '+ 1 week' }).click();
    await page.waitForLoadState('networkidle');
  }
  await page.getByRole('button', { name: 'Fetch report' }).click();
  await expect(page.getByText(/Report loaded:/)).toBeVisible({ timeout: 60_000 });
  await page.goto('/larkfell-web/ledger');
  await page
    .getByText(new RegExp(`^Stop “${term}”`))
    .first()
    .click();
  await expect(inHand).toContainText('days since');
  await expect(inHand).toContainText('elsewhere');
  // What it saved stands beside what was predicted, and so does all of it together.
  const saved = inHand.getByTestId('saved');
  await expect(saved).toContainText(/(Saved|Cost) about [\d.]+ in \d+ days; −?[\d.]+ predicted/);
  await expect(saved).toContainText('lsewhere');
  await saved.getByText('saved by week').click();
  await expect(saved.getByRole('row').nth(2)).toBeVisible(); // a head, and a week at least two times
  await expect(page.getByRole('region', { name: 'Saved so far' })).toContainText('predicted, in');
  await expectAccessible(page);
  expect(errors).toEqual([]);
});
