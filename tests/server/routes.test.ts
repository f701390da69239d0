import fc from 'fast-check';
import * as v from 'valibot';
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { ROUTES, type Route as Contract } from '@/contracts/routes';
import { readVersions, VERSIONS_HEADER } from '@/contracts/versions';
import { webLog } from '@/server/log';
import { anyOf, anyParam } from '../support/any-of-schema';
import {
  callRoute,
  OWN,
  servedRoutes as routes,
  serveWorld,
  type Sent,
  type ServedRoute,
} from '../support/routes';
import { makeWorld, type World } from '../support/world';

vi.mock('next/headers', () => ({ cookies: () => Promise.resolve(new Map()) }));

/** It tells whether the application runs, and is no one's. */
const BESIDES = ['GET /health', 'GET /auth/callback/company'];

let world: World;
let logged: unknown[] = [];
beforeAll(async () => {
  world = await makeWorld();
  vi.spyOn(webLog, 'error').mockImplementation((told: unknown) => void logged.push(told));
  serveWorld(world);
  await world.load(
    'Day,Campaign,Ad group,Search term,Clicks,Cost\n2026-11-20,Hives,Starter,bee movie,3,4.10\n',
  );
});
afterAll(() => world.close());

async function call(route: ServedRoute, sent: Sent) {
  logged = [];
  const response = await callRoute(route, sent);
  const text = await response.text();
  const versions = readVersions(response.headers.get(VERSIONS_HEADER)) ?? null;
  return { status: response.status, text, logged, versions };
}

/** Nothing fails without a reason that is told in words. */
function expectAnswered({ status, text, logged }: Awaited<ReturnType<typeof call>>) {
  expect(logged).toEqual([]);
  expect(status).not.toBe(500);
  if (status < 400) return;
  const { error } = JSON.parse(text) as { error: string };
  expect(error).toMatch(/\w.*[.!?]$/s);
  expect(error).not.toMatch(/\[object|select |insert /);
}

test('every route stands in the table, and every route of the table is served', () => {
  const served = routes.map(({ name }) => name as string).filter((name) => !BESIDES.includes(name));
  expect(served.sort()).toEqual(Object.keys(ROUTES).sort());
});

test('a route that changes something needs more than to look, and its answer brings the new versions', async () => {
  for (const [name, { role, changes }] of Object.entries(ROUTES) as [string, Contract][])
    if (changes?.length) expect([name, role]).not.toContain('look');
  const note = routes.find(({ name }) => name === 'POST notes')!;
  const body = JSON.stringify({ kind: 'term', about: 'bee movie', body: 'a film' });
  const [before, is] = [await call(note, { body: '{}' }), await call(note, { body })];
  expect(before.versions).toBeNull();
  const { data, decisions } = v.parse(
    v.object({ data: v.number(), decisions: v.number() }),
    is.versions?.before,
  );
  expect(is.versions!.after).toEqual({ data, decisions: decisions + 1 });
});

test('the log tells who did what in which account, and names the request that failed', async () => {
  const note = routes.find(({ name }) => name === 'POST notes')!;
  const told = vi.spyOn(webLog, 'info').mockClear();
  const body = JSON.stringify({ kind: 'term', about: 'bee movie', body: 'a film' });
  await call(note, { body });
  const about = { request: expect.stringMatching(/^[0-9a-f]{8}$/), route: 'POST notes', account: 'small' };
  expect(told).toHaveBeenLastCalledWith({ ...about, person: 1, ms: expect.any(Number) }, 'done');
  await call(note, { body: '{}' });
  expect(told).toHaveBeenLastCalledWith(
    { ...about, person: 1, status: 400, why: expect.stringContaining('Nothing was changed') },
    'refused',
  );
  const fault = vi.spyOn(world.deps, 'enqueue').mockRejectedValueOnce(new Error('the queue is gone'));
  const [file] = await world.bring(
    'Day,Campaign,Ad group,Search term,Clicks\n2026-11-21,Hives,Starter,bee,1\n',
  );
  const load = routes.find(({ name }) => name === 'POST intake/[file]/load')!;
  const failed = await call(load, { params: { file: String(file) }, body: '{}' });
  fault.mockRestore();
  expect(failed.status).toBe(500);
  const [{ request, error }] = failed.logged as [{ request: string; error: Error }];
  expect(failed.text).toContain(`request ${request}`);
  expect(error.message).toBe('the queue is gone');
});

describe.each(routes)('$name', (route) => {
  // What was asked before may have taken roles away.
  beforeEach(() => world.db('member').update({ role: 'own' }));
  const isOfAccount = route.path.includes('[account]');

  test('lets in none who comes by a foreign name, and no write from a foreign page', async () => {
    expect((await call(route, { headers: { ...OWN, host: 'elsewhere.example' } })).status).toBe(403);
    if (route.method === 'GET') return;
    for (const headers of [{ host: OWN.host }, { ...OWN, origin: 'http://elsewhere.example' }])
      expect((await call(route, { headers, body: '{}' })).status).toBe(403);
  });

  test.runIf(isOfAccount)('knows no other account', async () => {
    for (const account of ['nowhere', 'a\0b', '1', '']) {
      const answer = await call(route, {
        params: { account },
        body: route.method === 'GET' ? undefined : '{}',
      });
      expectAnswered(answer);
      expect(answer.status).toBeGreaterThanOrEqual(400);
    }
  });

  test.runIf(route.method !== 'GET')('refuses what is no request of its own', async () => {
    for (const body of ['', '[]', 'null', '{"a":', '"x"', '{"__proto__":{"x":1}}', '['.repeat(5_000)])
      expectAnswered(await call(route, { body }));
  });

  test('answers whatever has the shape of its request', async () => {
    const { query, body } = route.contract ?? {};
    const isOf = (schema: typeof body) =>
      schema === undefined || schema === 'file' ? fc.constant({}) : anyOf(schema);
    const values = fc.record({ query: isOf(query), body: isOf(body) });
    const names = [...route.path.matchAll(/\[(\w+)\]/g)]
      .map(([, name]) => name!)
      .filter((name) => name !== 'account');
    const params = fc.record(Object.fromEntries(names.map((name) => [name, anyParam])));
    await fc.assert(
      fc.asyncProperty(values, params, async ({ query, body }, params) => {
        const sent: Sent = { params, query: query as Record<string, unknown> };
        if (route.method !== 'GET') sent.body = JSON.stringify(body);
        expectAnswered(await call(route, sent));
      }),
      { numRuns: 40 },
    );
  });
});
