import type { Knex } from 'knex';
import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import { from as copyFrom } from 'pg-copy-streams';
import type { PoolClient } from 'pg';
import { codeKey, compileAccountGate, PRIORITIES, type AccountGate } from '@/core';
import type { PlatformQuery, Structure } from '@/contracts/platform';
import type { ElementTable } from './database';
import type { Asked, NumberedQuery, Service } from './auction';
import type { ServedDay } from './traffic';

export type AccountRow = {
  id: string;
  name: string;
  currency: string;
  seed: number;
  today: string;
  /** the first day whose traffic is not made yet; the day in progress ends early for it once something changes */
  traffic_from: string;
  revision: number;
  next_id: number;
};

/** Element kinds of a structure and the tables that hold them. */
const TABLE_OF: { [K in keyof Structure]: ElementTable } = {
  campaigns: 'campaign',
  adGroups: 'ad_group',
  keywords: 'keyword',
  lists: 'list',
  hangings: 'hanging',
  negatives: 'negative',
  exclusions: 'exclusion',
  placements: 'placement',
};
const KINDS = Object.keys(TABLE_OF) as (keyof Structure)[];

export function hangingId(listId: string, campaignId: string | null): string {
  return `${listId}@${campaignId ?? 'account'}`;
}

function idOf(element: Structure[keyof Structure][number]): string {
  return 'id' in element ? element.id : hangingId(element.listId, element.campaignId);
}

export async function requireAccount(db: Knex, id: string, lock = false): Promise<AccountRow | undefined> {
  const query = db<AccountRow>('account').where({ id }).first();
  return lock ? query.forUpdate() : query;
}

/**
 * Everything of the account that changed after a revision; 0 gives all that is not removed.
 * @param upTo leaves out what changed after this revision
 */
export async function loadStructure(
  db: Knex,
  accountId: string,
  since: number,
  upTo = Number.MAX_SAFE_INTEGER,
): Promise<Structure> {
  const structure = {} as Record<keyof Structure, unknown[]>;
  for (const kind of KINDS) {
    const query = db(TABLE_OF[kind])
      .where({ account_id: accountId })
      .where('revision', '>', since)
      .where('revision', '<=', upTo)
      .orderBy('id');
    if (since === 0) void query.whereNot('status', 'removed');
    const rows: { body: object; status: string }[] = await query.select('body', 'status');
    structure[kind] = rows.map((row) => ({ ...row.body, status: row.status }));
  }
  return structure as Structure;
}

/** Writes an element as it stands from a revision on. */
export async function putElement(
  db: Knex,
  at: { accountId: string; revision: number },
  kind: keyof Structure,
  element: Structure[keyof Structure][number],
): Promise<void> {
  const row = {
    account_id: at.accountId,
    id: idOf(element),
    status: element.status,
    revision: at.revision,
    body: JSON.stringify(element),
  };
  await db(TABLE_OF[kind]).insert(row).onConflict(['account_id', 'id']).merge();
}

export async function insertStructure(db: Knex, accountId: string, structure: Structure): Promise<void> {
  for (const kind of KINDS) {
    const rows = structure[kind].map((element) => ({
      account_id: accountId,
      id: idOf(element),
      status: element.status,
      revision: 1,
      body: JSON.stringify(element),
    }));
    await db.batchInsert(TABLE_OF[kind], rows, 1_000);
  }
}

/** The account's gate on a day: only negatives that were there by then. */
export function gateOn(structure: Structure, day: string): AccountGate {
  const live = <T extends { status: string }>(all: T[]) =>
    all.filter((element) => element.status !== 'removed');
  return compileAccountGate({
    campaigns: structure.campaigns.map(({ id }) => ({
      id,
      adGroups: structure.adGroups.filter((g) => g.campaignId === id),
    })),
    lists: live(structure.lists).map(({ id }) => {
      const hangings = live(structure.hangings).filter((h) => h.listId === id && (h.since ?? '') <= day);
      const onAccount = hangings.some((h) => h.campaignId === null);
      return { id, hungOn: onAccount ? 'account' : hangings.map((h) => h.campaignId!) };
    }),
    negatives: live(structure.negatives).filter((n) => n.createdAt.slice(0, 10) <= day),
  });
}

/**
 * What else decides whether an ad group may serve a query: what is paused or ended, excluded products, bids, and when its campaign is
 * asked. A campaign serves to its end date. A budget binds campaigns with a priority, all that share it together.
 */
export function termsOfService(structure: Structure, day: string): Service {
  const excluded = new Set(
    structure.exclusions
      .filter((e) => e.status !== 'removed' && e.createdAt.slice(0, 10) <= day)
      .map((e) => `${e.place.kind} ${e.place.id} ${codeKey(e.code)}`),
  );
  const campaignOf = new Map(structure.adGroups.map((g) => [g.id, g.campaignId]));
  const runs = new Set(
    structure.campaigns
      .filter((c) => c.status === 'live' && (c.endDate === null || c.endDate >= day))
      .map((c) => c.id),
  );
  const serving = new Set(
    structure.adGroups.filter((g) => g.status === 'live' && runs.has(g.campaignId)).map((g) => g.id),
  );
  const keywords = new Map(structure.keywords.map((k) => [k.id, k]));
  const askedIn = new Map(structure.campaigns.map((c) => [c.id, askedAs(c)]));
  return {
    mayServe({ adGroupId, keywordId }, text) {
      if (!serving.has(adGroupId)) return false;
      if (keywordId !== null && keywords.get(keywordId)?.status !== 'live') return false;
      const code = codeKey(text);
      const campaign = campaignOf.get(adGroupId);
      return !excluded.has(`adGroup ${adGroupId} ${code}`) && !excluded.has(`campaign ${campaign} ${code}`);
    },
    bidOf: (keywordId) => (keywordId === null ? undefined : keywords.get(keywordId)?.bidMicros),
    askedOf: (adGroupId) => askedIn.get(campaignOf.get(adGroupId)!)!,
  };
}

function askedAs({ id, priority, sharedBudget, budgetMicros }: Structure['campaigns'][number]): Asked {
  if (priority === null) return { turn: null, budget: null };
  const budget = { id: sharedBudget === null ? `of ${id}` : `shared ${sharedBudget}`, micros: budgetMicros };
  return { turn: PRIORITIES.indexOf(priority) + 1, budget };
}

export async function loadQueries(db: Knex, accountId: string): Promise<NumberedQuery[]> {
  const rows = await db('query').where({ account_id: accountId }).orderBy('id');
  return rows.map((row) => ({
    id: row.id,
    text: row.text,
    daily: row.daily,
    ctr: row.ctr,
    cvr: row.cvr,
    valueMicros: row.value_micros,
    unreported: row.unreported,
    cpcMicros: row.cpc_micros,
    means: row.means,
    automaticIn: row.automatic_in,
  }));
}

/** A text that is another as soon as queries were inserted or deleted, whichever database they are in. */
export async function versionOfQueries(db: Knex, accountId: string): Promise<string> {
  const { rows } = await db.raw<{ rows: { version: string }[] }>(
    `select count(*) || ' ' || coalesce(max(xmin::text::bigint), 0) as version from query where account_id = ?`,
    [accountId],
  );
  return rows[0]!.version;
}

/**
 * Inserts queries, in place of those that stand there under the same numbers.
 * @param first number of the first of them
 */
export async function insertQueries(
  trx: Knex.Transaction,
  accountId: string,
  queries: readonly PlatformQuery[],
  first = 0,
): Promise<void> {
  const rows = queries.map((query, i) => ({
    account_id: accountId,
    id: first + i,
    text: query.text,
    daily: query.daily,
    ctr: query.ctr,
    cvr: query.cvr,
    value_micros: query.valueMicros,
    unreported: query.unreported,
    cpc_micros: query.cpcMicros,
    means: query.means,
    automatic_in: query.automaticIn,
  }));
  await trx('query')
    .where({ account_id: accountId })
    .whereBetween('id', [first, first + rows.length - 1])
    .delete();
  await trx.batchInsert('query', rows, 1_000);
}

/** Writes days of traffic by COPY, within the transaction. */
export async function copyTraffic(
  trx: Knex.Transaction,
  accountId: string,
  days: Iterable<{ day: string; served: readonly ServedDay[] }>,
): Promise<void> {
  const client = (await trx.client.acquireConnection()) as PoolClient;
  function* lines() {
    for (const { day, served } of days) {
      for (const s of served) {
        const conversions = `{${s.conversions.join(',')}}`;
        const values = `{${s.valueMicros.join(',')}}`;
        yield `${[accountId, day, s.queryId, s.adGroupId, s.keywordId ?? '\\N', s.impressions, s.clicks, s.costMicros, conversions, values].join('\t')}\n`;
      }
    }
  }
  await pipeline(
    Readable.from(lines(), { objectMode: true }),
    client.query(copyFrom('copy standin.traffic_day from stdin')),
  );
}
