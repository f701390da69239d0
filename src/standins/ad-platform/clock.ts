import type { Knex } from 'knex';
import { shiftDay } from '@/core';
import type { SeedRequest, Structure } from '@/contracts/platform';
import {
  copyTraffic,
  gateOn,
  termsOfService,
  insertQueries,
  insertStructure,
  loadQueries,
  loadStructure,
  requireAccount,
} from './store';
import { makeDay, routeQueries, type ServedDay } from './traffic';

/** Lets days pass: each ends with its traffic, as the negatives of that day let it through. */
export async function moveClock(db: Knex, accountId: string, days: number): Promise<string> {
  return db.transaction(async (trx) => {
    const account = (await requireAccount(trx, accountId, true))!;
    const today = shiftDay(account.today, days);
    const passing = Array.from({ length: days }, (_, i) => shiftDay(account.today, i));
    await makeTraffic(trx, accountId, account.seed, passing);
    await trx('account').where({ id: accountId }).update({ today });
    return today;
  });
}

/** Makes an account with its past: structure, queries, and the traffic of that, unless more queries follow. */
export async function seedAccount(
  db: Knex,
  { account, structure, queries, isPart }: SeedRequest,
): Promise<void> {
  const { firstDay, ...row } = account;
  await db.transaction(async (trx) => {
    await trx('account').where({ id: account.id }).delete();
    await trx('account').insert({ ...row, revision: 1, next_id: 1 });
    await insertStructure(trx, account.id, structure);
    await insertQueries(trx, account.id, queries);
  });
  if (!isPart) await seedTraffic(db, account.id, firstDay);
}

/** Makes the traffic from a first day up to (not with) today, in place of what there is. May be asked for twice. */
export async function seedTraffic(db: Knex, accountId: string, firstDay: string): Promise<void> {
  await db.transaction(async (trx) => {
    const { seed, today } = (await requireAccount(trx, accountId, true))!;
    await trx('traffic_day').where({ account_id: accountId }).delete();
    const passed: string[] = [];
    for (let day = firstDay; day < today; day = shiftDay(day, 1)) passed.push(day);
    await makeTraffic(trx, accountId, seed, passed);
  });
  // Without this the planner takes the new tables for empty, and the first report takes minutes.
  for (const table of ['query', 'traffic_day', 'campaign', 'ad_group', 'keyword'])
    await db.raw('analyze standin.??', [table]);
}

async function makeTraffic(trx: Knex.Transaction, accountId: string, seed: number, days: readonly string[]) {
  const structure = await loadStructure(trx, accountId, 0);
  const queries = await loadQueries(trx, accountId);
  await copyTraffic(trx, accountId, servedDays(queries, structure, seed, days));
}

/** Queries are routed anew only on days on which a negative came into being, a list was hung, or a campaign had ended. */
export function* servedDays(
  queries: Awaited<ReturnType<typeof loadQueries>>,
  structure: Structure,
  seed: number,
  days: readonly string[],
): Generator<{ day: string; served: ServedDay[] }> {
  const turningDays = new Set([
    ...structure.negatives.map((n) => n.createdAt.slice(0, 10)),
    ...structure.hangings.map((h) => h.since),
    ...structure.campaigns.map((c) => c.endDate && shiftDay(c.endDate, 1)),
  ]);
  let routes: ReturnType<typeof routeQueries> | undefined;
  for (const day of days) {
    if (!routes || turningDays.has(day))
      routes = routeQueries(queries, gateOn(structure, day), termsOfService(structure, day));
    yield { day, served: makeDay(routes, day, seed) };
  }
}
