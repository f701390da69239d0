import type * as v from 'valibot';
import { accountRoutes } from './account';
import { intakeRoutes } from './intake';
import { laneRoutes } from './lanes';
import { listRoutes } from './lists';
import { promotionRoutes } from './promotion';
import type { Part, Route } from './route';
import { researchRoutes } from './research';
import { alertRoutes } from './alerts';
import { ruleRoutes } from './rules';
import { siftRoutes } from './sift';
import { signInRoutes } from './sign-in';
import { todayRoutes } from './today';
import { trayRoutes } from './tray';
import { untangleRoutes } from './untangle';

export { PARTS, type Part, type Route } from './route';

/** Everything that crosses between browser and server: for each route who may, what is asked, and what is answered. */
export const ROUTES = {
  ...accountRoutes,
  ...intakeRoutes,
  ...siftRoutes,
  ...listRoutes,
  ...trayRoutes,
  ...todayRoutes,
  ...researchRoutes,
  ...untangleRoutes,
  ...promotionRoutes,
  ...laneRoutes,
  ...alertRoutes,
  ...ruleRoutes,
  ...signInRoutes,
};

export type Routes = typeof ROUTES;
export type Name = keyof Routes;

/** The names in brackets of a path. @example ParamsIn<'GET lists/[list]/health'> // 'list' */
type ParamsIn<Path> = Path extends `${string}[${infer Param}]${infer Rest}` ? Param | ParamsIn<Rest> : never;
type Given<Key extends string, Value> = [Value] extends [never]
  ? { [K in Key]?: never }
  : { [K in Key]: Value };
type InputOf<N extends Name, Key extends 'query' | 'body'> = Routes[N] extends { [K in Key]: infer S }
  ? S extends v.GenericSchema
    ? v.InferInput<S>
    : Blob
  : never;

/** What is asked by a route. A query in which nothing must be given may be left out. */
export type AskedOf<N extends Name> = Given<
  'params',
  [ParamsIn<N>] extends [never] ? never : Record<ParamsIn<N>, string | number>
> &
  Given<'body', InputOf<N, 'body'>> &
  ([InputOf<N, 'query'>] extends [never]
    ? { query?: never }
    : Record<never, never> extends InputOf<N, 'query'>
      ? { query?: InputOf<N, 'query'> }
      : { query: InputOf<N, 'query'> });

/** What a route answers, as the browser gets it. */
export type AnswerOf<N extends Name> = Routes[N]['answer'] extends v.GenericSchema
  ? v.InferOutput<Routes[N]['answer']>
  : never;

/** Routes that change something. */
export type WriteName = { [N in Name]: Routes[N] extends { changes: unknown } ? N : never }[Name];

/** The address of a route, with its parameters, below `/api`. @example addressOf('GET lists/[list]', 'web', { list: 7 }) // '/api/web/lists/7' */
export function addressOf(
  name: Name,
  account: string,
  params: Readonly<Record<string, string | number>> = {},
  query: Readonly<Record<string, unknown>> = {},
): string {
  const [, path] = name.split(' ') as [string, string];
  const filled = path.replace(/\[(\w+)\]/g, (_, param: string) => encodeURIComponent(params[param] ?? ''));
  const given = Object.entries(query).flatMap(([key, value]) =>
    value === undefined || value === null ? [] : [[key, String(value)]],
  );
  const search = given.length > 0 ? `?${new URLSearchParams(given)}` : '';
  return `/api${path.startsWith('/') ? '' : `/${encodeURIComponent(account)}/`}${filled}${search}`;
}

/** Whether answers of a route are stale when some parts have changed. */
export function isStale(name: Name, changed: readonly Part[]): boolean {
  const { from }: Route = ROUTES[name];
  return from?.some((part) => changed.includes(part)) ?? false;
}
