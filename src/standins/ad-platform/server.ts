import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { Knex } from 'knex';
import * as v from 'valibot';
import {
  ChangesRequestSchema,
  ClockRequestSchema,
  SeedQueriesSchema,
  SeedRequestSchema,
  SeedTrafficSchema,
} from '@/contracts/platform';
import { applyChanges, KeyReused } from './changes';
import { moveClock, seedAccount, seedTraffic } from './clock';
import { searchTermReport } from './report';
import { insertQueries, loadStructure, requireAccount, type AccountRow } from './store';

const LARGEST_BODY = 512 * 1024 * 1024; // a seed of a large demo

/** An answer other than 200, with its reason. */
class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** The stand-in as an HTTP server; the caller makes it listen. */
export function createPlatformServer(db: Knex): Server {
  return createServer((request, response) => {
    answer(db, request).then(
      (body) => send(response, 200, body),
      (error: unknown) => {
        if (error instanceof Refused) send(response, error.status, { error: error.message });
        else if (error instanceof KeyReused) send(response, 409, { error: error.message });
        else {
          console.error(error);
          send(response, 500, { error: 'The stand-in failed; see its log.' });
        }
      },
    );
  });
}

async function answer(db: Knex, request: IncomingMessage): Promise<unknown> {
  const url = new URL(request.url ?? '/', 'http://stand-in');
  const route = `${request.method} ${url.pathname.replace(/^\/accounts\/[^/]+/, '/accounts/:id')}`;
  if (route === 'GET /health') return { name: 'stand-in ad platform' };
  if (route === 'GET /accounts')
    return { accounts: await db('account').select('id', 'name', 'currency', 'today').orderBy('id') };
  if (route === 'POST /accounts/:id/seed') {
    const seed = await readBody(request, SeedRequestSchema);
    await seedAccount(db, seed);
    return { today: seed.account.today };
  }
  const account = await requireAccount(db, decodeURIComponent(url.pathname.split('/')[2] ?? ''));
  if (!account) throw new Refused(404, 'There is no such account here.');
  switch (route) {
    case 'GET /accounts/:id/structure': {
      const since = Number(url.searchParams.get('since') ?? 0);
      return {
        revision: account.revision,
        today: account.today,
        ...(await loadStructure(db, account.id, since)),
      };
    }
    case 'GET /accounts/:id/reports':
      return searchTermReport(db, account, readWindow(url, account));
    case 'POST /accounts/:id/changes': {
      const { changes } = await readBody(request, ChangesRequestSchema);
      return applyChanges(db, account.id, changes);
    }
    case 'POST /accounts/:id/seed/queries': {
      const { first, queries } = await readBody(request, SeedQueriesSchema);
      await db.transaction((trx) => insertQueries(trx, account.id, queries, first));
      return {};
    }
    case 'POST /accounts/:id/seed/traffic': {
      const { firstDay } = await readBody(request, SeedTrafficSchema);
      await seedTraffic(db, account.id, firstDay);
      return {};
    }
    case 'POST /accounts/:id/clock': {
      const { days } = await readBody(request, ClockRequestSchema);
      return { today: await moveClock(db, account.id, days) };
    }
    default:
      throw new Refused(404, `There is nothing at ${route}.`);
  }
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

async function readBody<S extends v.GenericSchema>(
  request: IncomingMessage,
  schema: S,
): Promise<v.InferOutput<S>> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > LARGEST_BODY) throw new Refused(413, 'The body is too large.');
    parts.push(part);
  }
  let body: unknown;
  try {
    body = JSON.parse(Buffer.concat(parts).toString('utf8'));
  } catch {
    throw new Refused(400, 'The body is not JSON.');
  }
  const parsed = v.safeParse(schema, body);
  if (!parsed.success) {
    const [issue] = parsed.issues;
    throw new Refused(400, `${v.getDotPath(issue) ?? 'body'}: ${issue.message}`);
  }
  return parsed.output;
}

function send(response: ServerResponse, status: number, body: unknown) {
  const isText = typeof body === 'string';
  response.writeHead(status, { 'content-type': isText ? 'text/csv; charset=utf-8' : 'application/json' });
  response.end(isText ? body : JSON.stringify(body));
}
