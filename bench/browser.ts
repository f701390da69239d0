import { chromium, type Page } from '@playwright/test';
import { median, ms, quantile, type Line } from './measure';

const CHROMIUM = {
  executablePath: '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-background-networking'],
};

/** What a person waits for in the browser, against an empty round trip to the same server in the same run. */
export async function benchBrowser(address: string, quick: boolean): Promise<Line[]> {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    // The compiler marks functions with a helper of its own, which a page does not have.
    await page.addInitScript('globalThis.__name = (f) => f');
    const opened = await timeOpening(page, `${address}/larkfell-web/sift?days=90`);
    const choices = quick ? 40 : 200;
    const { waits, trips } = await timeChoices(page, choices);
    const limit = Math.max(100, 3 * median(trips));
    const worst = quantile(waits, 0.95);
    const terms = await page.getByTestId('count-remaining').textContent();
    return [
      {
        task: 'Sift: first rows after opening',
        size: `${terms} terms`,
        ours: ms(opened),
        against: 'limit: 1000 ms',
        ratio: (opened / 1000).toFixed(2),
        verdict: opened <= 1000 ? 'within' : 'OVER',
      },
      {
        task: 'a word chosen: In hand and list follow, 95 %',
        size: `${choices} choices, ${terms} terms`,
        ours: ms(worst),
        against: `limit: ${ms(limit)} (three empty round trips: ${ms(3 * median(trips))})`,
        ratio: (worst / limit).toFixed(2),
        verdict: worst <= limit ? 'within' : 'OVER',
      },
    ];
  } finally {
    await browser.close();
  }
}

async function timeOpening(page: Page, url: string): Promise<number> {
  await page.goto(url); // the first visit fetches the program; the second is what is timed
  await page.locator('#term-0').waitFor();
  const times: number[] = [];
  for (let i = 0; i < 5; i++) {
    const start = performance.now();
    await page.goto(url);
    await page.locator('#term-0 button').first().waitFor();
    times.push(performance.now() - start);
  }
  return median(times);
}

/** Each choice is the first word of the next row: never asked before, so never answered from a cache. */
async function timeChoices(page: Page, count: number): Promise<{ waits: number[]; trips: number[] }> {
  return page.evaluate(async (rows) => {
    const grid = document.getElementById('terms')!;
    const weighed = () => document.querySelector('[data-weighed]')?.getAttribute('data-weighed') ?? '';
    const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
    const press = (key: string) =>
      grid.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    const until = async (isSo: () => boolean) => {
      for (const end = performance.now() + 10_000; !isSo();) {
        if (performance.now() > end) throw new Error('In hand never followed');
        await frame();
      }
    };
    const [waits, trips]: [number[], number[]] = [[], []];
    grid.focus();
    for (let i = 0; i < rows; i++) {
      await until(() => weighed().endsWith(' ')); // the row without a chosen word
      const row = weighed();
      const start = performance.now();
      press('1');
      await until(() => weighed() === `${row}0`);
      waits.push(performance.now() - start);
      const trip = performance.now();
      await fetch('/api/health');
      trips.push(performance.now() - trip);
      press('ArrowDown');
      await until(() => weighed() !== `${row}0`);
    }
    return { waits, trips };
  }, count);
}
