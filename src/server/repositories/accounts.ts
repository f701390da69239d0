import type { MatchType } from '@/core';
import type { Db } from '../db/connection';

export type Account = {
  id: number;
  slug: string;
  name: string;
  platformAccountId: string;
  currency: string;
  steersBy: 'CPA' | 'ACoS';
  targetMicros: number | null;
  targetAcos: number | null;
  defaultMatch: MatchType;
  keeperConversions: number;
  productCodePattern: string | null;
  windowDays: number;
  lagDays: number;
  dataVersion: number;
  /** rises with each decision; what is laid over a snapshot is of one version */
  decisionVersion: number;
  structureRevision: number;
  platformDay: string | null;
  /** whether the newest report is fetched each day */
  fetchesDaily: boolean;
};

type Row = {
  account_id: number;
  slug: string;
  name: string;
  platform_account_id: string;
  currency: string;
  steers_by: Account['steersBy'];
  target_micros: number | null;
  target_acos: number | null;
  default_match: MatchType;
  keeper_conversions: number;
  product_code_pattern: string | null;
  window_days: number;
  lag_days: number;
  data_version: number;
  decision_version: number;
  structure_revision: number;
  platform_day: string | null;
  fetches_daily: boolean;
};

const toAccount = (row: Row): Account => ({
  id: row.account_id,
  slug: row.slug,
  name: row.name,
  platformAccountId: row.platform_account_id,
  currency: row.currency,
  steersBy: row.steers_by,
  targetMicros: row.target_micros,
  targetAcos: row.target_acos,
  defaultMatch: row.default_match,
  keeperConversions: row.keeper_conversions,
  productCodePattern: row.product_code_pattern,
  windowDays: row.window_days,
  lagDays: row.lag_days,
  dataVersion: row.data_version,
  decisionVersion: row.decision_version,
  structureRevision: row.structure_revision,
  platformDay: row.platform_day,
  fetchesDaily: row.fetches_daily,
});

export async function listAccounts(db: Db): Promise<Account[]> {
  return (await db<Row>('account').orderBy('account_id')).map(toAccount);
}

export async function findAccount(db: Db, slug: string): Promise<Account | undefined> {
  const row = await db<Row>('account').where({ slug }).first();
  return row && toAccount(row);
}

/** @throws RangeError when there is none */
export async function requireAccountById(db: Db, accountId: number): Promise<Account> {
  const row = await db<Row>('account').where({ account_id: accountId }).first();
  if (!row) throw new RangeError(`an account must exist; got ${accountId}`);
  return toAccount(row);
}

/** The account, locked until the transaction ends: whoever writes its facts, mirror or tray waits for the other. */
export async function lockAccount(db: Db, accountId: number): Promise<Account> {
  const row = await db<Row>('account').where({ account_id: accountId }).forUpdate().first();
  if (!row) throw new RangeError(`an account must exist to be locked; got ${accountId}`);
  return toAccount(row);
}

export type NewAccount = Pick<
  Account,
  | 'slug'
  | 'name'
  | 'platformAccountId'
  | 'currency'
  | 'steersBy'
  | 'targetMicros'
  | 'targetAcos'
  | 'productCodePattern'
>;

export async function insertAccount(db: Db, account: NewAccount): Promise<number> {
  const [row] = await db('account')
    .insert({
      slug: account.slug,
      name: account.name,
      platform_account_id: account.platformAccountId,
      currency: account.currency,
      steers_by: account.steersBy,
      target_micros: account.targetMicros,
      target_acos: account.targetAcos,
      product_code_pattern: account.productCodePattern,
    })
    .returning<{ account_id: number }[]>('account_id');
  return row!.account_id;
}

/** Facts or the mirror changed: snapshots made before are of an older version. */
export async function raiseDataVersion(db: Db, accountId: number): Promise<void> {
  await db('account').where({ account_id: accountId }).increment('data_version', 1);
}

/** The tray or a verdict changed: what was laid over a snapshot before is of an older version. */
export async function raiseDecisionVersion(db: Db, accountId: number): Promise<void> {
  await db('account').where({ account_id: accountId }).increment('decision_version', 1);
}

export async function setPlatformState(
  db: Db,
  accountId: number,
  { revision, today }: { revision?: number; today: string },
): Promise<void> {
  await db('account')
    .where({ account_id: accountId })
    .update({ platform_day: today, ...(revision === undefined ? {} : { structure_revision: revision }) });
}

export type Person = { id: number; name: string };

export async function listPeople(db: Db): Promise<Person[]> {
  return db('person').orderBy('person_id').select<Person[]>('person_id as id', 'name');
}

export async function insertPeople(db: Db, names: readonly string[]): Promise<void> {
  await db('person')
    .insert(names.map((name) => ({ name })))
    .onConflict('name')
    .ignore();
}

export async function setFetchesDaily(db: Db, accountId: number, daily: boolean): Promise<void> {
  await db('account').where({ account_id: accountId }).update({ fetches_daily: daily });
}
