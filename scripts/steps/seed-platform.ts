import pRetry, { AbortError } from 'p-retry';
import type { Vocabulary } from '@/contracts/ideas';
import type { SeedRequest } from '@/contracts/platform';
import { Remedy } from './say';

/** Queries of one request. */
const PART = 10_000;

/**
 * Seeds the stand-in platform with an account, in parts. Each part may be sent twice, so what a broken connection lost
 * is sent again.
 * @param platform its address
 * @param part queries of one request
 * @throws Remedy when it declines, or does not answer after some tries
 */
export async function seedPlatform(platform: string, seed: SeedRequest, part = PART): Promise<void> {
  const { account, structure, queries } = seed;
  const to = (path: string, body: object) => post(`${platform}/accounts/${account.id}/seed${path}`, body);
  await to('', { account, structure, queries: queries.slice(0, part), isPart: true });
  for (let first = part; first < queries.length; first += part)
    await to('/queries', { first, queries: queries.slice(first, first + part) });
  await to('/traffic', { firstDay: account.firstDay });
}

/** Seeds the stand-in idea source with what people search for, in place of what it had. */
export const seedIdeas = (source: string, vocabulary: Vocabulary): Promise<void> =>
  post(`${source}/vocabulary`, vocabulary, 'PUT');

async function post(url: string, body: object, method = 'POST'): Promise<void> {
  const text = JSON.stringify(body);
  try {
    await pRetry(() => postOnce(url, text, method), { retries: 5, minTimeout: 300 });
  } catch (error) {
    if (error instanceof Remedy) throw error;
    const cause = error instanceof Error && error.cause instanceof Error ? error.cause : error;
    throw new Remedy(
      `The stand-in at ${new URL(url).host} does not answer (${String(cause)}). Run “./gatepost demo” again: it begins where nothing is loaded yet. Its log stands in the data folder, under log.`,
    );
  }
}

async function postOnce(url: string, body: string, method: string): Promise<void> {
  const response = await fetch(url, {
    method,
    // While the demo is reckoned nobody listens to a connection that is kept, so that its end would go unseen.
    headers: { 'content-type': 'application/json', connection: 'close' },
    body,
  });
  if (response.ok) return;
  const why = await response.text();
  if (response.status >= 500) throw new Error(why);
  throw new AbortError(new Remedy(`The stand-in did not take the demo: ${why}`));
}
