import { loadDemo } from './demo';
import { dropDatabase, startDatabase } from './postgres';
import { requireChromium } from './programs';
import { startAll, stopProcesses } from './services';
import type { Settings } from './settings';

/**
 * Runs work against a demo of its own, made anew, on the ports of the tests: what a person has running is not touched.
 * @param scale of the demo, see GATEPOST_DEMO_SCALE; null: nothing is loaded, as on the first day
 * @param work is given the address
 */
export async function withFreshDemo<T>(
  settings: Settings,
  scale: number | null,
  work: (address: string) => T | Promise<T>,
): Promise<T> {
  requireChromium();
  await stopProcesses(settings);
  await startDatabase(settings);
  await dropDatabase(settings, settings.databaseName);
  if (scale !== null) process.env.GATEPOST_DEMO_SCALE = String(scale);
  try {
    await startAll(settings, scale === null ? undefined : () => loadDemo(settings));
    return await work(`http://127.0.0.1:${settings.webPort}`);
  } finally {
    await stopProcesses(settings);
  }
}
