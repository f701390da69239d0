import { USUAL_LIMITS, type Limits, type MatchType } from '@/core';
import { clockNow, type Db } from '../../db/connection';

export type Account = {
  id: number;
  slug: string;
  name: string;
  /** null: no platform is connected */
  platformAccountId: string | null;
  currency: string;
  steersBy: 'CPA' | 'ACoS';
  targetMicros: number | null;
  targetAcos: number | null;
  defaultMatch: MatchType;
  /** null: no term is protected for what it brought */
  keeperConversions: number | null;
  productCodePattern: string | null;
  /** names of the advertiser, of which no negative is offered; normalised (rules 1.1) */
  brandWords: string[];
  /** kinds of conversion of keyword reports that count, summed; empty: what the report itself calls conversions */
  conversionKinds: string[];
  windowDays: number;
  lagDays: number;
  /** by so much a source may miss the target before a promoted term is stopped there (rules 11.2) */
  promotionTolerance: number;
  /** for so long the bytes of files that were brought are kept */
  fileDays: number;
  /** for so long the logs of sign-ins and of saved files are kept */
  logDays: number;
  limits: Limits;
  dataVersion: number;
  /** rises with each decision; a workbench belongs to one version */
  decisionVersion: number;
  /** rises with each decision but those that only put changes in the draft or take them out */
  standingVersion: number;
  /** rises with each change of the facts or the terms */
  factsVersion: number;
  structureRevision: number;
  platformDay: string | null;
  /** whether the newest report is fetched each day */
  fetchesDaily: boolean;
  isRetired: boolean;
};

type Row = {
  account_id: number;
  slug: string;
  name: string;
  platform_account_id: string | null;
  currency: string;
  steers_by: Account['steersBy'];
  target_micros: number | null;
  target_acos: number | null;
  default_match: MatchType;
  keeper_conversions: number | null;
  product_code_pattern: string | null;
  brand_words: string[];
  conversion_kinds: string[];
  window_days: number;
  lag_days: number;
  promotion_tolerance: number;
  file_days: number;
  log_days: number;
  limits: Limits;
  data_version: number;
  decision_version: number;
  standing_version: number;
  facts_version: number;
  structure_revision: number;
  platform_day: string | null;
  fetches_daily: boolean;
  retired_at: Date | null;
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
  brandWords: row.brand_words,
  conversionKinds: row.conversion_kinds,
  windowDays: row.window_days,
  lagDays: row.lag_days,
  promotionTolerance: row.promotion_tolerance,
  fileDays: row.file_days,
  logDays: row.log_days,
  limits: row.limits,
  dataVersion: row.data_version,
  decisionVersion: row.decision_version,
  standingVersion: row.standing_version,
  factsVersion: row.facts_version,
  structureRevision: row.structure_revision,
  platformDay: row.platform_day,
  fetchesDaily: row.fetches_daily,
  isRetired: row.retired_at !== null,
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

/** The account's id on the platform. @throws RangeError when no platform is connected */
export function requirePlatform({ slug, platformAccountId }: Account): string {
  if (platformAccountId === null) throw new RangeError(`a platform must be connected; ${slug} has none`);
  return platformAccountId;
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
> &
  Partial<Pick<Account, 'brandWords'>>;

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
      ...(account.brandWords && { brand_words: account.brandWords }),
      limits: JSON.stringify(USUAL_LIMITS),
    })
    .returning<{ account_id: number }[]>('account_id');
  return row!.account_id;
}

/** To be called when the mirror or a setting changed. Snapshots made before then belong to an older version. */
export async function raiseDataVersion(db: Db, accountId: number): Promise<void> {
  await db('account').where({ account_id: accountId }).increment('data_version', 1);
}

/** To be called when facts or terms changed: windows and histories that were summed before then belong to an older version. */
export async function raiseFactsVersion(db: Db, accountId: number): Promise<void> {
  await db('account').where({ account_id: accountId }).increment({ data_version: 1, facts_version: 1 });
}

/** To be called when the tray or a verdict changed. Workbenches made before then belong to an older version. */
export async function raiseDecisionVersion(db: Db, accountId: number): Promise<void> {
  await db('account')
    .where({ account_id: accountId })
    .increment({ decision_version: 1, standing_version: 1 });
}

/** To be called when changes were put in the draft, or taken out, and nothing else was decided. */
export async function raiseDraftVersion(db: Db, accountId: number): Promise<void> {
  await db('account').where({ account_id: accountId }).increment('decision_version', 1);
}

export async function setPlatformState(
  db: Db,
  accountId: number,
  { revision, today }: { revision?: number; today: string | null },
): Promise<void> {
  await db('account')
    .where({ account_id: accountId })
    .update({ platform_day: today, ...(revision === undefined ? {} : { structure_revision: revision }) });
}

const SETTABLE = {
  name: 'name',
  currency: 'currency',
  steersBy: 'steers_by',
  targetMicros: 'target_micros',
  targetAcos: 'target_acos',
  defaultMatch: 'default_match',
  keeperConversions: 'keeper_conversions',
  productCodePattern: 'product_code_pattern',
  brandWords: 'brand_words',
  conversionKinds: 'conversion_kinds',
  windowDays: 'window_days',
  lagDays: 'lag_days',
  promotionTolerance: 'promotion_tolerance',
  fileDays: 'file_days',
  logDays: 'log_days',
  limits: 'limits',
  platformAccountId: 'platform_account_id',
} as const satisfies Partial<Record<keyof Account, keyof Row>>;

/** What a person may set of an account. */
export type AccountFields = Pick<Account, keyof typeof SETTABLE>;

/** Sets some of an account's fields; the others stay. */
export async function updateAccount(
  db: Db,
  accountId: number,
  fields: Partial<AccountFields>,
): Promise<void> {
  const row: Record<string, unknown> = {};
  for (const [field, column] of Object.entries(SETTABLE)) {
    const value = fields[field as keyof AccountFields];
    if (value !== undefined) row[column] = field === 'limits' ? JSON.stringify(value) : value;
  }
  if (Object.keys(row).length > 0) await db('account').where({ account_id: accountId }).update(row);
}

/** Sets an account aside, or takes it back. Nothing of it is removed. */
export async function setAccountRetired(db: Db, accountId: number, isRetired: boolean): Promise<void> {
  await db('account')
    .where({ account_id: accountId })
    .update({ retired_at: isRetired ? clockNow(db) : null });
}

/** The account that a platform's account is brought into, if any. */
export async function findAccountOfPlatform(db: Db, platformAccountId: string): Promise<Account | undefined> {
  const row = await db<Row>('account').where({ platform_account_id: platformAccountId }).first();
  return row && toAccount(row);
}

/** Everybody who is known and was not removed, whatever he or she may do. */
export async function listPeople(db: Db): Promise<{ id: number; name: string }[]> {
  const rows: { person_id: number; name: string }[] = await db('person')
    .where({ removed_at: null })
    .orderBy('person_id');
  return rows.map((row) => ({ id: row.person_id, name: row.name }));
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
