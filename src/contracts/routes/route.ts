import type * as v from 'valibot';
import type { Role } from '../roles';

/**
 * The parts of an account that answers are made of. A route that changes a part makes every answer stale that was
 * made of this part.
 */
export const PARTS = [
  'facts', // the days of reports
  'structure', // the mirror of the platform
  'draft', // the tray, and what was sent or handed over
  'verdicts', // terms kept or set aside
  'tags', // of words
  'notes',
  'views',
  'pass', // terms looked at
  'rules', // by which lists hang
  'findings', // and the rules on search terms that make them
  'lanes', // plans of campaigns that are asked one after another
  'research', // sheets of ideas
  'knots', // that were left
  'elsewhere', // what others changed on the platform
  'ledger',
  'settings', // of the account
  'people', // and accounts
  'files', // that were brought, and recipes
  'faults', // of the stand-in platform
] as const;
export type Part = (typeof PARTS)[number];

type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
/** Method and path: within an account, or (with a slash) of the whole of Gate Post. Parts in brackets are parameters. */
export type RouteName = `${Method} ${string}`;

/** What crosses between browser and server by one route. */
export type Route = {
  /**
   * What a person must be allowed to do in the account at least. Of routes of the whole of Gate Post: `own` for one who
   * owns some account, `oneself` for whoever has signed in, `anybody` for those who have not yet.
   */
  role: Role | 'oneself' | 'anybody';
  /** the parameters of the address, as texts */
  query?: v.GenericSchema;
  /** JSON, or the bytes of a file */
  body?: v.GenericSchema | 'file';
  /** JSON, or a file to be saved */
  answer: v.GenericSchema | 'file';
  /** what the answer is made of */
  from?: readonly Part[];
  /** what is another afterwards; empty where it is only noted what the person has seen */
  changes?: readonly Part[];
};

/** Whatever shows what is stopped is made of these. */
export const STOPPING = ['facts', 'structure', 'draft', 'settings'] as const satisfies Part[];
/** Whatever shows search terms by view is made of these. */
export const SIFTING = [...STOPPING, 'verdicts', 'tags'] as const satisfies Part[];

/** Routes of one feature, under their names. */
export function routesOf<const R extends Record<RouteName, Route>>(routes: R): R {
  return routes;
}
