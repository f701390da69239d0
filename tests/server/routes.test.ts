import fc from 'fast-check';
import type * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import * as platform from '@/contracts/platform';
import { QUESTIONS } from '@/server/threads/questions';
import { anyOf, anyParam } from '../support/any-of-schema';
import { makeWorld, type World } from '../support/world';

/** What is held against these comes from the platform, and not from a browser. */
const ofPlatform = new Set<unknown>(Object.values(platform));

/** The schemas that the request under way was held against. */
const asked = vi.hoisted(() => ({ schemas: [] as unknown[] }));
vi.mock('valibot', async (original) => {
  const valibot = await original<typeof v>();
  const safeParse: typeof v.safeParse = (schema, ...rest) => {
    asked.schemas.push(schema);
    return valibot.safeParse(schema, ...rest);
  };
  return { ...valibot, safeParse };
});
vi.mock('next/headers', () => ({ cookies: () => Promise.resolve(new Map()) }));

type Handler = (request: Request, about: { params: Promise<Record<string, string>> }) => Promise<Response>;
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'] as const;

const files = import.meta.glob<Record<string, Handler>>('/src/app/api/**/route.ts', { eager: true });
const routes = Object.entries(files).flatMap(([file, handlers]) =>
  METHODS.filter((method) => method in handlers).map((method) => {
    const path = file.replace('/src/app', '').replace('/route.ts', '');
    return { name: `${method} ${path}`, method, path, handler: handlers[method]! };
  }),
);
type Route = (typeof routes)[number];

let world: World;
let logged: unknown[] = [];
beforeAll(async () => {
  world = await makeWorld();
  vi.spyOn(console, 'error').mockImplementation((error: unknown) => void logged.push(error));
  const ask = (name: keyof typeof QUESTIONS, args: unknown[]) =>
    (QUESTIONS[name] as (...args: unknown[]) => unknown)(world.deps, ...args);
  const home = Symbol.for('gate-post.web');
  (globalThis as unknown as Record<symbol, unknown>)[home] = { deps: world.deps, threads: { ask } };
  await world.load(
    'Day,Campaign,Ad group,Search term,Clicks,Cost\n2026-11-20,Hives,Starter,bee movie,3,4.10\n',
  );
});
afterAll(() => world.close());

type Sent = { params?: Record<string, string>; query?: Record<string, unknown>; body?: string };

async function call({ method, path, handler }: Route, { params = {}, query = {}, body }: Sent) {
  logged = [];
  const url = new URL('http://127.0.0.1/api');
  for (const [name, value] of Object.entries(query))
    if (value !== undefined && value !== null) url.searchParams.set(name, String(value));
  const names = [...path.matchAll(/\[(\w+)\]/g)].map(([, name]) => name!);
  const known = Object.fromEntries(
    names.map((name) => [name, params[name] ?? (name === 'account' ? 'small' : '1')]),
  );
  // As Next does: a route without a dynamic part is given no params.
  const about = names.length === 0 ? {} : { params: Promise.resolve(known) };
  const response = await handler(new Request(url, { method, body }), about as Parameters<Handler>[1]);
  const text = await response.text();
  return { status: response.status, text, logged };
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

test('there are routes', () => expect(routes.length).toBeGreaterThan(60));

describe.each(routes)('$name', (route) => {
  const isOfAccount = route.path.includes('[account]');

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
    asked.schemas = [];
    await call(route, { body: route.method === 'GET' ? undefined : '{}' });
    const [schema] = (asked.schemas as v.GenericSchema[]).filter((one) => !ofPlatform.has(one));
    const value = schema ? anyOf(schema) : fc.constant({});
    const names = [...route.path.matchAll(/\[(\w+)\]/g)]
      .map(([, name]) => name!)
      .filter((name) => name !== 'account');
    const params = fc.record(Object.fromEntries(names.map((name) => [name, anyParam])));
    await fc.assert(
      fc.asyncProperty(value, params, async (value, params) => {
        const sent: Sent =
          route.method === 'GET'
            ? { params, query: value as Record<string, unknown> }
            : { params, body: JSON.stringify(value) };
        expectAnswered(await call(route, sent));
      }),
      { numRuns: 40 },
    );
  });
});
