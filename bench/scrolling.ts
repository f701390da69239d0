import { chromium, type Page } from '@playwright/test';
import { build } from 'esbuild';
import path from 'node:path';
import type { Line } from './measure';

const CHROMIUM = {
  executablePath: '/usr/bin/chromium',
  args: [
    ...['--headless', '--no-sandbox', '--disable-gpu', '--disable-background-networking'],
    '--enable-precise-memory-info',
  ],
};

/** A page of a browser of its own. */
export async function withPage<T>(work: (page: Page) => Promise<T>): Promise<T> {
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    // The compiler marks functions with a helper of its own, which a page does not have.
    await page.addInitScript('globalThis.__name = (f) => f');
    return await work(page);
  } finally {
    await browser.close();
  }
}

type Peer = { columns: number; columnPx?: number };
type Frames = { ours: number; bare: number; steps: number };

/**
 * Scrolls through a table and counts frames that came late; then the same in a bare virtual list of as many rows and
 * columns, made with the same packages. A table whose columns scroll too is scrolled both ways at once.
 */
export async function timeScrolling(page: Page, table: string, peer: Peer): Promise<Frames> {
  const { outputFiles } = await build({
    entryPoints: [path.resolve('bench/bare-list.tsx')],
    ...{ bundle: true, write: false, format: 'iife', jsx: 'automatic', minify: true },
    define: { 'process.env.NODE_ENV': '"production"' },
  });
  await page.evaluate(outputFiles[0]!.text);
  return page.evaluate(
    async ({ selector, columns, columnPx }) => {
      const [STEPS, DOWN_PX, LATE_MS] = [120, 47, 1.5 * (1000 / 60)];
      const frame = () => new Promise<number>((resolve) => requestAnimationFrame(resolve));
      const scroll = async (box: Element) => {
        box.scrollTo(0, 0);
        await frame();
        let dropped = 0;
        let last = await frame();
        for (let i = 0; i < STEPS; i++) {
          box.scrollBy(columnPx ? columnPx * 1.5 : 0, columnPx ? DOWN_PX / 3 : DOWN_PX);
          const now = await frame();
          if (now - last > LATE_MS) dropped += Math.round((now - last) / (1000 / 60)) - 1;
          last = now;
        }
        return dropped;
      };
      const grid = document.querySelector(selector)!;
      const rows = Math.round(grid.scrollHeight / 30);
      type Show = (size: { rows: number; columns: number; columnPx?: number }) => () => void;
      const { showBareList } = globalThis as unknown as { showBareList: Show };
      const [ours, bare]: [number[], number[]] = [[], []];
      for (let round = 0; round < 3; round++) {
        ours.push(await scroll(grid));
        const takeAway = showBareList({ rows, columns, columnPx });
        await frame();
        bare.push(await scroll(document.getElementById('bare-list')!));
        takeAway();
      }
      const middle = (of: number[]) => of.sort((a, b) => a - b)[1]!;
      return { ours: middle(ours), bare: middle(bare), steps: STEPS };
    },
    { selector: table, ...peer },
  );
}

export function toLine(task: string, size: string, { ours, bare, steps }: Frames): Line {
  return {
    ...{ task, size: `${steps} frames, ${size}`, ours: `${ours} dropped` },
    against: `a bare virtual list of as many rows: ${bare} dropped`,
    ratio: bare > 0 ? (ours / bare).toFixed(2) : `${ours} : ${bare}`,
    // Two in a hundred more or less, or a tenth where many are dropped, are the machine's.
    verdict: ours <= bare + Math.max(0.02 * steps, 0.1 * bare) ? 'within' : 'OVER',
  };
}
