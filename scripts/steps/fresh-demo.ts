import { loadDemo } from './demo';
import { dropDatabase, startDatabase } from './postgres';
import { requireChromium } from './programs';
import { startAll, stopProcesses } from './services';
import type { Settings } from './settings';

/**
 * Runs work against a demo of its own, made anew, on the ports of the tests: what a person has running is not touched.
 * @param demo its scale, see GATEPOST_DEMO_SCALE, and whether it has a past; null: nothing is loaded, as on the first day
 * @param work is given the address
 */
export async function withFreshDemo<T>(
  settings: Settings,
  demo: { scale: number; hasPast: boolean } | null,
  work: (address: string) => T | Promise<T>,
): Promise<T> {
  requireChromium();
  await stopProcesses(settings);
  await startDatabase(settings);
  await dropDatabase(settings, settings.databaseName);
  process.env.GATEPOST_OPEN = demo ? '1' : ''; // the people of a demo are chosen, those of the first day sign in
  if (demo) {
    process.env.GATEPOST_DEMO_SCALE = String(demo.scale);
    process.env.GATEPOST_DEMO_PAST = demo.hasPast ? 'yes' : 'no';
  }
  try {
    await startAll(settings, demo ? () => loadDemo(settings) : undefined);
    return await work(`http://127.0.0.1:${settings.webPort}`);
  } finally {
    await stopProcesses(settings);
  }
}
