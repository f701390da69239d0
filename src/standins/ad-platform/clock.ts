import { ascending, bisectRight } from 'd3';
import type { Knex } from 'knex';
import { LRUCache } from 'lru-cache';
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
  versionOfQueries,
  type AccountRow,
} from './store';
import { openAuctions, type Auction, type MatchedQuery, type NumberedQuery } from './auction';
import { matcherOf } from './keyword-matching';
import { makeDay, type ServedDay } from './traffic';

/** Lets days pass: each ends with its traffic, as the account stood when it began. */
export async function moveClock(db: Knex, accountId: string, days: number): Promise<string> {
  return db.transaction(async (trx) => {
    const account = (await requireAccount(trx, accountId, true))!;
    const today = shiftDay(account.today, days);
    await makeTraffic(trx, account, daysFrom(account.traffic_from, today));
    await trx('account').where({ id: accountId }).update({ today });
    return today;
  });
}

/** Ends the day in progress as the account stands, before something about it changes: changes act from the next day on. */
export async function endDay(trx: Knex.Transaction, account: AccountRow): Promise<void> {
  await makeTraffic(trx, account, daysFrom(account.traffic_from, shiftDay(account.today, 1)));
}

/** Days from the first to before the end. */
function daysFrom(first: string, end: string): string[] {
  const days: string[] = [];
  for (let day = first; day < end; day = shiftDay(day, 1)) days.push(day);
  return days;
}

/** Makes an account with its past: structure, queries, and the traffic of that, unless more queries follow. */
export async function seedAccount(
  db: Knex,
  { account, structure, queries, isPart }: SeedRequest,
): Promise<void> {
  const { firstDay, ...row } = account;
  await db.transaction(async (trx) => {
    await trx('account').where({ id: account.id }).delete();
    await trx('account').insert({ ...row, traffic_from: firstDay, revision: 1, next_id: 1 });
    await insertStructure(trx, account.id, structure);
    await insertQueries(trx, account.id, queries);
  });
  if (!isPart) await seedTraffic(db, account.id, firstDay);
}

/** Makes the traffic from a first day up to (not with) today, in place of what there is. May be asked for twice. */
export async function seedTraffic(db: Knex, accountId: string, firstDay: string): Promise<void> {
  await db.transaction(async (trx) => {
    const account = (await requireAccount(trx, accountId, true))!;
    await trx('traffic_day').where({ account_id: accountId }).delete();
    await makeTraffic(trx, account, daysFrom(firstDay, account.today));
  });
  // Without this the planner takes the new tables for empty, and the first report takes minutes.
  for (const table of ['query', 'traffic_day', 'campaign', 'ad_group', 'keyword'])
    await db.raw('analyze standin.??', [table]);
}

/** Makes the traffic of days, the next that have none. */
async function makeTraffic(trx: Knex.Transaction, account: AccountRow, days: readonly string[]) {
  const last = days.at(-1);
  if (last === undefined) return;
  const structure = await loadStructure(trx, account.id, 0);
  const auctionsOn = await loadAuctions(trx, account, structure);
  await copyTraffic(trx, account.id, serveDays(auctionsOn, account.seed, days));
  await trx('account')
    .where({ id: account.id })
    .update({ traffic_from: shiftDay(last, 1) });
}

/** The auctions of the accounts whose clock moved last: a week that passes need not open them anew. */
const auctionsOf = new LRUCache<string, AuctionsOn>({ max: 2 });
/** More queries than this are opened anew each time, for they take much memory. */
const MOST_KEPT = 60_000;

async function loadAuctions(
  trx: Knex.Transaction,
  account: AccountRow,
  structure: Structure,
): Promise<AuctionsOn> {
  const key = `${account.id} ${account.revision} ${await versionOfQueries(trx, account.id)}`;
  const known = auctionsOf.get(key);
  if (known) return known;
  const queries = await loadQueries(trx, account.id);
  const auctionsOn = auctionsIn(matchAll(queries, structure), structure);
  if (queries.length <= MOST_KEPT) auctionsOf.set(key, auctionsOn);
  return auctionsOn;
}

function matchAll(queries: readonly NumberedQuery[], structure: Structure): MatchedQuery[] {
  const matchesOf = matcherOf(structure);
  return queries.map((query) => ({ query, matches: matchesOf(query) }));
}

/** The days of an account, each with what it served. */
export function servedDays(
  queries: readonly NumberedQuery[],
  structure: Structure,
  seed: number,
  days: readonly string[],
): Generator<{ day: string; served: ServedDay[] }> {
  return serveDays(auctionsIn(matchAll(queries, structure), structure), seed, days);
}

function* serveDays(
  auctionsOn: AuctionsOn,
  seed: number,
  days: readonly string[],
): Generator<{ day: string; served: ServedDay[] }> {
  for (const day of days) yield { day, served: makeDay(auctionsOn(day), day, seed) };
}

/** The auctions as they stand on a day. */
type AuctionsOn = (day: string) => Auction[];

/**
 * Auctions of days that are asked for one after another. They open anew only where since the day before that was asked for
 * a negative or an exclusion came into being, a list was hung, or a campaign had ended.
 */
function auctionsIn(matched: readonly MatchedQuery[], structure: Structure): AuctionsOn {
  const turningDays = [
    ...structure.negatives.map((n) => n.createdAt.slice(0, 10)),
    ...structure.exclusions.map((e) => e.createdAt.slice(0, 10)),
    ...structure.hangings.flatMap((h) => h.since ?? []),
    ...structure.campaigns.flatMap((c) => (c.endDate === null ? [] : shiftDay(c.endDate, 1))),
  ].toSorted(ascending);
  let open: { turns: number; auctions: Auction[] } | undefined;
  return (day) => {
    const turns = bisectRight(turningDays, day);
    if (open?.turns !== turns)
      open = {
        turns,
        auctions: openAuctions(matched, gateOn(structure, day), termsOfService(structure, day)),
      };
    return open.auctions;
  };
}
