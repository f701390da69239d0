import { chromium, type Page } from '@playwright/test';
import { median, ms, quantile, type Line } from './measure';

const CHROMIUM = {
  executablePath: '/usr/bin/chromium',
  args: [
    ...['--headless', '--no-sandbox', '--disable-gpu', '--disable-background-networking'],
    '--enable-precise-memory-info',
  ],
};
const MOST_PAGE_MB = 300;

/**
 * What a person waits for in Sift, in the browser: against an empty round trip to the same server, and against a list
 * of as many rows with nothing in them, in the same run.
 * @param url of Sift over the account
 */
export async function benchBrowser(url: string, size: string, quick: boolean): Promise<Line[]> {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    // The compiler marks functions with a helper of its own, which a page does not have.
    await page.addInitScript('globalThis.__name = (f) => f');
    const { opened, served } = await timeOpening(page, url);
    const choices = quick ? 40 : 200;
    const { waits, trips, served: shares } = await timeChoices(page, choices);
    const limit = Math.max(100, 3 * median(trips));
    const worst = quantile(waits, 0.95);
    const frames = await timeScrolling(page);
    const heapMb = await heapOf(page);
    return [
      {
        ...{ task: 'Sift: first rows after opening', size, ours: ms(opened) },
        against: `limit: 1000 ms and the server’s share (${ms(served)})`,
        ratio: (opened / (1000 + served)).toFixed(2),
        verdict: opened - served <= 1000 ? 'within' : 'OVER',
      },
      {
        task: 'a word chosen: In hand and its counts follow, 95 %',
        size: `${choices} choices, ${size}`,
        ours: ms(worst),
        against: `limit: ${ms(limit)} (three empty round trips: ${ms(3 * median(trips))}; the server’s share: ${ms(quantile(shares, 0.95))})`,
        ratio: (worst / limit).toFixed(2),
        verdict: worst <= limit ? 'within' : 'OVER',
      },
      {
        task: 'scrolling: frames dropped',
        size: `${frames.steps} frames, ${size}`,
        ours: `${frames.ours} dropped`,
        against: `a bare virtual list of as many rows: ${frames.bare} dropped`,
        ratio: frames.bare > 0 ? (frames.ours / frames.bare).toFixed(2) : `${frames.ours} : ${frames.bare}`,
        // A frame more or less is the machine's.
        verdict: frames.ours <= frames.bare + Math.ceil(0.02 * frames.steps) ? 'within' : 'OVER',
      },
      {
        ...{ task: 'memory of the page after all that', size, ours: `${heapMb} MB` },
        ...{ against: `limit: ${MOST_PAGE_MB} MB`, ratio: (heapMb / MOST_PAGE_MB).toFixed(2) },
        verdict: heapMb <= MOST_PAGE_MB ? 'within' : 'OVER',
      },
    ];
  } finally {
    await browser.close();
  }
}

/** The server's share is its time for the first page of terms. */
async function timeOpening(page: Page, url: string): Promise<{ opened: number; served: number }> {
  await page.goto(url); // the first visit fetches the program and builds the snapshot; the others are timed
  await page.locator('#term-0 [data-mark]').first().waitFor({ timeout: 180_000 });
  const [opened, served]: [number[], number[]] = [[], []];
  for (let i = 0; i < 5; i++) {
    const start = performance.now();
    await page.goto(url);
    await page.locator('#term-0 [data-mark]').first().waitFor({ timeout: 60_000 });
    opened.push(performance.now() - start);
    served.push(
      await page.evaluate(() => {
        const [first] = performance
          .getEntriesByType('resource')
          .filter((entry) => entry.name.includes('sift/terms')) as PerformanceResourceTiming[];
        return first ? first.responseStart - first.requestStart : 0;
      }),
    );
  }
  return { opened: median(opened), served: median(served) };
}

/** Each choice is the first word of the next row: never asked before, so never answered from a cache. */
async function timeChoices(
  page: Page,
  count: number,
): Promise<{ waits: number[]; trips: number[]; served: number[] }> {
  await page.waitForTimeout(5_000); // what was opened with it is there
  return page.evaluate(async (rows) => {
    performance.setResourceTimingBufferSize(10_000);
    const grid = document.getElementById('terms')!;
    const weighed = () => document.querySelector('[data-weighed]')?.getAttribute('data-weighed') ?? '';
    const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
    const press = (key: string) =>
      grid.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
    const until = async (isSo: () => boolean) => {
      for (const end = performance.now() + 20_000; !isSo();) {
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
    const served = (performance.getEntriesByType('resource') as PerformanceResourceTiming[])
      .filter(({ name }) => /sift\/choice.*words=0/.test(name))
      .map((entry) => entry.responseStart - entry.requestStart);
    return { waits, trips, served };
  }, count);
}

/**
 * Scrolls through the rows and counts frames that came late; then the same in a bare list: a box as high as all rows, of
 * which only those in sight are there, with as many cells of plain text each as ours have columns.
 */
async function timeScrolling(page: Page): Promise<{ ours: number; bare: number; steps: number }> {
  return page.evaluate(async () => {
    const [STEPS, STEP_PX, LATE_MS, CELLS] = [300, 47, 1.5 * (1000 / 60), 8];
    const frame = () => new Promise<number>((resolve) => requestAnimationFrame(resolve));
    const scroll = async (box: Element) => {
      box.scrollTop = 0;
      await frame();
      let dropped = 0;
      let last = await frame();
      for (let i = 0; i < STEPS; i++) {
        box.scrollTop += STEP_PX;
        const now = await frame();
        if (now - last > LATE_MS) dropped += Math.round((now - last) / (1000 / 60)) - 1;
        last = now;
      }
      return dropped;
    };
    const grid = document.getElementById('terms')!;
    const height = grid.scrollHeight;
    const ours: number[] = [];
    const bare: number[] = [];
    const box = document.createElement('div');
    box.style.cssText = 'position:fixed;inset:0;overflow:auto;background:#fff;z-index:99;font-size:13px';
    const inner = document.createElement('div');
    inner.style.cssText = `position:relative;height:${height}px`;
    box.append(inner);
    const there = new Map<number, HTMLElement>();
    const makeRow = (index: number) => {
      const row = document.createElement('div');
      row.style.cssText = `position:absolute;top:${index * 30}px;height:30px;left:0;right:0;display:grid;grid-template-columns:repeat(${CELLS},1fr)`;
      for (let c = 0; c < CELLS; c++) {
        const cell = document.createElement('span');
        cell.textContent = c === 1 ? `row ${index} of a bare list` : `${index * c}`;
        row.append(cell);
      }
      return row;
    };
    const fill = () => {
      const from = Math.max(0, Math.floor(box.scrollTop / 30) - 12);
      for (const [index, row] of there) {
        if (index >= from && index < from + 50) continue;
        row.remove();
        there.delete(index);
      }
      for (let index = from; index < from + 50; index++) {
        if (there.has(index)) continue;
        const row = makeRow(index);
        there.set(index, row);
        inner.append(row);
      }
    };
    box.addEventListener('scroll', fill);
    for (let round = 0; round < 3; round++) {
      ours.push(await scroll(grid));
      document.body.append(box);
      bare.push(await scroll(box));
      box.remove();
    }
    const middle = (of: number[]) => of.sort((a, b) => a - b)[1]!;
    return { ours: middle(ours), bare: middle(bare), steps: STEPS };
  });
}

async function heapOf(page: Page): Promise<number> {
  const session = await page.context().newCDPSession(page);
  await session.send('HeapProfiler.collectGarbage');
  const { usedSize } = await session.send('Runtime.getHeapUsage');
  return Math.round(usedSize / 1e6);
}
