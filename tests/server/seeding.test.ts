import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, expect, test } from 'vitest';
import { seedPlatform } from '../../scripts/steps/seed-platform';
import { aSeed } from '../support/seed';
import { makeWorld } from '../support/world';

const servers: Server[] = [];
afterEach(() => servers.splice(0).forEach((server) => server.close()));

/** A platform that breaks the connection off, or fails, as often as it is told, before it takes a part. */
async function aPlatform(troubles: ('breaks off' | 'fails' | 'declines')[]) {
  const taken: { path: string; queries: number }[] = [];
  const server = createServer((request, response) => {
    let body = '';
    request.on('data', (part: Buffer) => (body += part.toString()));
    request.on('end', () => {
      const trouble = troubles.shift();
      if (trouble === 'breaks off') return request.socket.destroy();
      if (trouble) {
        response.statusCode = trouble === 'fails' ? 500 : 400;
        return response.end(trouble);
      }
      const { queries = [] } = JSON.parse(body) as { queries?: unknown[] };
      taken.push({ path: request.url!.replace('/accounts/small/seed', ''), queries: queries.length });
      response.end('{}');
    });
  });
  servers.push(server.listen(0, '127.0.0.1'));
  await new Promise((resolve) => server.once('listening', resolve));
  return { address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, taken };
}

test('an account is seeded in parts; what a broken connection or a fault lost is sent again', async () => {
  const { address, taken } = await aPlatform(['breaks off', 'fails']);
  const seed = aSeed();
  await seedPlatform(address, seed, 4);
  expect(taken.map(({ path }) => path)).toEqual([
    '',
    ...Array.from({ length: Math.ceil(seed.queries.length / 4) - 1 }, () => '/queries'),
    '/traffic',
  ]);
  expect(taken.reduce((sum, { queries }) => sum + queries, 0)).toBe(seed.queries.length);
});

test('what it declines is not sent again, and is told', async () => {
  const { address, taken } = await aPlatform(['declines']);
  await expect(seedPlatform(address, aSeed())).rejects.toThrow('did not take the demo: declines');
  expect(taken).toEqual([]);
});

test('in parts, and with a part sent twice, the traffic is the same as at once', async () => {
  const world = await makeWorld();
  try {
    const report = async () => {
      const days = 'kind=search-terms&from=2026-01-01&to=2027-01-01';
      return (await fetch(`${world.platformUrl}/accounts/small/reports?${days}`)).text();
    };
    const seed = aSeed();
    const whole = await report();
    await seedPlatform(world.platformUrl, seed, 3);
    const again = { first: 3, queries: seed.queries.slice(3, 6) };
    const response = await fetch(`${world.platformUrl}/accounts/small/seed/queries`, {
      method: 'POST',
      body: JSON.stringify(again),
    });
    expect(response.ok).toBe(true);
    expect(await report()).toBe(whole);
  } finally {
    await world.close();
  }
});
