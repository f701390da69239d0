import AxeBuilder from '@axe-core/playwright';
import { expect, type Locator, type Page } from '@playwright/test';

/** Every screen is checked, once it is at rest, for what assistive technology needs: WCAG 2.2 A and AA, and good practice. */
export async function expectAccessible(page: Page): Promise<void> {
  await expect.poll(() => findViolations(page)).toEqual([]);
}

async function findViolations(page: Page): Promise<string[]> {
  // No page has a frame, and only what violates a rule is wanted: so a check takes a sixth of the time.
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode()
    .options({ resultTypes: ['violations'] })
    .analyze();
  return violations.map(({ id, nodes }) => {
    const where = nodes.slice(0, 3).map((node) => node.target.join(' '));
    return `${id}: ${where.join(' | ')}`;
  });
}

/** Chooses one of some: opens the choice, and presses the option. */
export async function choose(choice: Locator, option: string | RegExp): Promise<void> {
  await choice.click();
  const name = typeof option === 'string' ? { name: option, exact: true } : { name: option };
  await choice.page().getByRole('option', name).click();
}

/** Fails the test on anything that the page throws. */
export function watchErrors(page: Page): string[] {
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  page.on('console', (message) => {
    if (message.type() === 'error' && !message.text().includes('status of 4')) errors.push(message.text());
  });
  return errors;
}

/** A number as the screens write it. */
export function toNumber(text: string | null): number {
  return Number((text ?? '').replace(/[^\d.]/g, ''));
}
