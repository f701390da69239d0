import { ROUTES, type Name, type Route as Contract } from '@/contracts/routes';
import type { SignIns } from '@/server/sign-in/sign-ins';
import { REQUESTS } from '@/server/threads/requests';
import { signInsOf } from './sign-ins';
import type { World } from './world';

type Handler = (request: Request, about: { params?: Promise<Record<string, string>> }) => Promise<Response>;
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'] as const;

const files = import.meta.glob<Record<string, Handler>>('/src/app/api/**/route.ts', { eager: true });

/** Every route that is served, with its contract where it stands in the table. */
export const servedRoutes = Object.entries(files).flatMap(([file, handlers]) =>
  METHODS.filter((method) => method in handlers).map((method) => {
    const path = file.replace('/src/app', '').replace('/route.ts', '');
    const name = `${method} ${nameOf(path)}` as Name;
    return { name, method, path, handler: handlers[method]!, contract: ROUTES[name] as Contract | undefined };
  }),
);
export type ServedRoute = (typeof servedRoutes)[number];

/** A path as the table of routes names it: within an account, or with a slash. */
function nameOf(path: string): string {
  return path.startsWith('/api/[account]/')
    ? path.slice('/api/[account]/'.length)
    : path.slice('/api'.length);
}

/** Lets the routes work on a world of the tests, and in this process. */
export function serveWorld(world: World, signIns: SignIns = signInsOf(world)): void {
  const { deps } = world;
  const ask = (name: keyof typeof REQUESTS, args: unknown[]) =>
    (REQUESTS[name] as (...args: unknown[]) => unknown)(deps, ...args);
  const home = Symbol.for('gate-post.web');
  (globalThis as unknown as Record<symbol, unknown>)[home] = {
    ...{ deps, signIns },
    threads: { ask, working: () => [] },
  };
}

export type Sent = {
  /** the account is the small one, and everything else the first, where nothing else is said */
  params?: Record<string, string>;
  query?: Record<string, unknown>;
  body?: string;
  headers?: Record<string, string>;
};

/** As one of our own pages asks. */
export const OWN = { host: '127.0.0.1', origin: 'http://127.0.0.1' };

export async function callRoute(
  { method, path, handler }: ServedRoute,
  { params = {}, query = {}, body, headers = OWN }: Sent,
): Promise<Response> {
  const url = new URL('http://127.0.0.1/api');
  for (const [name, value] of Object.entries(query))
    if (value !== undefined && value !== null) url.searchParams.set(name, String(value));
  const names = [...path.matchAll(/\[(\w+)\]/g)].map(([, name]) => name!);
  const known = Object.fromEntries(
    names.map((name) => [name, params[name] ?? (name === 'account' ? 'small' : '1')]),
  );
  // As Next does: a route without a dynamic part is given no params.
  const about = names.length === 0 ? {} : { params: Promise.resolve(known) };
  return handler(new Request(url, { method, body, headers }), about);
}
