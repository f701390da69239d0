import { expect, type Page } from '@playwright/test';

/** Chooses a word of a rule's sentence by its letters. */
export async function choose(page: Page, label: string, option: string): Promise<void> {
  await page.getByRole('combobox', { name: label }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option', { name: option, exact: true })).toBeVisible();
  await page.keyboard.type(option.slice(0, 8));
  await page.keyboard.press('Enter');
}

/** Switches the rule on that is in hand, and shows what it found. */
export async function switchOn(page: Page, name: string): Promise<void> {
  await page.getByRole('textbox', { name: 'Name' }).focus();
  await page.keyboard.type(name);
  await page.getByRole('region', { name: 'In hand' }).getByRole('button', { name: 'Switch it on' }).focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/rule=\d/);
  await page.getByRole('tab', { name: /Findings/ }).focus();
  await page.keyboard.press('Enter');
}

/** Says yes to the first finding by keys, and takes it back. @param place what would become of it, in hand */
export async function sayYesAndTakeBack(page: Page, place: RegExp): Promise<void> {
  await page.getByRole('grid', { name: 'Findings' }).focus();
  await expect(page.getByRole('region', { name: 'In hand' })).toContainText(place);
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('tray-count')).toContainText(/change/);
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('tray-count')).toHaveText('empty');
}

/** Removes all rules of an account, as `/larkfell-web`. */
export async function removeRules(page: Page, account: string): Promise<void> {
  const headers = { origin: new URL(page.url()).origin };
  const answer = await page.request.get(`/api${account}/rules`);
  const { rules } = (await answer.json()) as { rules: { id: number }[] };
  const removed = rules.map(({ id }) => ({ id, state: 'removed' }));
  if (removed.length > 0)
    await page.request.put(`/api${account}/rules/states`, { headers, data: { rules: removed } });
}
