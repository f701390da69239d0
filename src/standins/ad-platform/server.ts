import type { IncomingMessage, Server } from 'node:http';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Knex } from 'knex';
import * as v from 'valibot';
import {
  ChangesRequestSchema,
  ClockRequestSchema,
  FaultsSchema,
  SeedQueriesSchema,
  SeedRequestSchema,
  SeedTrafficSchema,
} from '@/contracts/platform';
import { HungUp, readBody, Refused, serveStandin } from '../http';
import { letAnotherChange } from './another-user';
import { applyChanges, type KeyedChange } from './changes';
import { moveClock, seedAccount, seedTraffic } from './clock';
import { createFaults } from './faults';
import { searchTermReport } from './report';
import { insertQueries, loadStructure, requireAccount, type AccountRow } from './store';

const LARGEST_BODY = 512 * 1024 * 1024; // a seed of a large demo

/** What the stand-in holds besides its database. */
type Standin = { db: Knex; faults: ReturnType<typeof createFaults>; slowMs: number };

/**
 * The stand-in as an HTTP server; the caller makes it listen.
 * @param slowMs how long it takes to answer while it is slow
 */
export function createPlatformServer(db: Knex, slowMs = 3_000): Server {
  const standin: Standin = { db, faults: createFaults(), slowMs };
  return serveStandin((request) => answer(standin, request));
}

async function answer(standin: Standin, request: IncomingMessage): Promise<unknown> {
  const { db, faults } = standin;
  const url = new URL(request.url ?? '/', 'http://stand-in');
  const route = `${request.method} ${url.pathname.replace(/^\/accounts\/[^/]+/, '/accounts/:id')}`;
  if (route === 'GET /health') return { name: 'stand-in ad platform' };
  if (route === 'GET /accounts')
    return { accounts: await db('account').select('id', 'name', 'currency', 'today').orderBy('id') };
  if (route === 'POST /accounts/:id/seed') {
    const seed = await readBody(request, SeedRequestSchema, LARGEST_BODY);
    await seedAccount(db, seed);
    return { today: seed.account.today };
  }
  const account = await requireAccount(db, decodeURIComponent(url.pathname.split('/')[2] ?? ''));
  if (!account) throw new Refused(404, 'There is no such account here.');
  switch (route) {
    case 'GET /accounts/:id/structure': {
      const since = Number(url.searchParams.get('since') ?? 0);
      const old = since > 0 ? faults.take(account.id, 'shows old data') : undefined;
      const revision = Math.min(account.revision, old?.revision ?? Infinity);
      return { revision, today: account.today, ...(await loadStructure(db, account.id, since, revision)) };
    }
    case 'GET /accounts/:id/reports':
      return searchTermReport(db, account, readWindow(url, account));
    case 'POST /accounts/:id/changes': {
      const { changes } = await readBody(request, ChangesRequestSchema, LARGEST_BODY);
      return changeWithFaults(standin, account.id, changes);
    }
    case 'GET /accounts/:id/faults':
      return faults.left(account.id);
    case 'PUT /accounts/:id/faults': {
      faults.set(account.id, await readBody(request, FaultsSchema, LARGEST_BODY), account.revision);
      return faults.left(account.id);
    }
    case 'POST /accounts/:id/seed/queries': {
      const { first, queries } = await readBody(request, SeedQueriesSchema, LARGEST_BODY);
      await db.transaction((trx) => insertQueries(trx, account.id, queries, first));
      return {};
    }
    case 'POST /accounts/:id/seed/traffic': {
      const { firstDay } = await readBody(request, SeedTrafficSchema, LARGEST_BODY);
      await seedTraffic(db, account.id, firstDay);
      return {};
    }
    case 'POST /accounts/:id/clock': {
      const { days } = await readBody(request, ClockRequestSchema, LARGEST_BODY);
      return { today: await moveClock(db, account.id, days) };
    }
    default:
      throw new Refused(404, `There is nothing at ${route}.`);
  }
}

/** Seconds after which a caller may come again who is told to slow down. */
const SLOW_DOWN = 2;

/** Makes changes, and whatever is to go wrong with that. */
async function changeWithFaults({ db, faults, slowMs }: Standin, id: string, changes: KeyedChange[]) {
  if (faults.take(id, 'asks to slow down'))
    throw new Refused(429, 'Too many requests in a short time.', SLOW_DOWN);
  if (faults.take(id, 'fails')) throw new Refused(500, 'Something broke here.');
  if (faults.take(id, 'hangs up before')) throw new HungUp();
  if (faults.take(id, 'has another user')) await letAnotherChange(db, id);
  const putsOff = faults.take(id, 'puts some off') && ('put off' as const);
  const refuses = faults.take(id, 'refuses some') && ('refused' as const);
  const answer = await applyChanges(db, id, changes, { third: putsOff ?? refuses });
  if (faults.take(id, 'is slow')) await sleep(slowMs);
  if (faults.take(id, 'hangs up after')) throw new HungUp();
  return answer;
}

function readWindow(url: URL, account: AccountRow): { from: string; to: string } {
  const from = url.searchParams.get('from') ?? '1990-01-01';
  const to = url.searchParams.get('to') ?? account.today;
  const isDay =
    v.safeParse(v.pipe(v.string(), v.isoDate()), from).success &&
    v.safeParse(v.pipe(v.string(), v.isoDate()), to).success;
  if (url.searchParams.get('kind') !== 'search-terms' || !isDay) {
    throw new Refused(400, 'A report needs kind=search-terms and from and to as YYYY-MM-DD.');
  }
  return { from, to };
}
