import type { Sums } from '@/core';
import type { FindingPile } from '@/contracts/findings';
import { clockNow, type Db } from '../../db/connection';

/** A term that a rule found, and the ids of the ad groups where it ran. */
export type Found = { term: string; isCode: boolean; sums: Sums; ranIn: readonly number[] };

/** A look of a rule at the facts as they were in one version, and what it found; days as YYYY-MM-DD. */
export type Look = {
  ruleId: number;
  version: number;
  factsVersion: number;
  evening: string;
  from: string;
  to: string;
  found: readonly Found[];
};

/**
 * Notes a look, once for each version of the facts. What was found before and nobody has decided stays where it was found again,
 * and goes where it was not.
 * @returns false where it was noted before: nothing is changed then
 */
export async function noteLook(db: Db, accountId: number, look: Look): Promise<boolean> {
  const { ruleId, version, factsVersion, evening, found } = look;
  const [isNew] = await db('rule_look')
    .insert({
      ...{ account_id: accountId, rule_id: ruleId, version, facts_version: factsVersion, evening },
      at: clockNow(db),
    })
    .onConflict()
    .ignore()
    .returning('rule_id');
  if (!isNew) return false;
  await db.raw(
    `with now as (
       select * from jsonb_to_recordset(cast(:found as jsonb)) as f(term text, "isCode" boolean, sums jsonb, "ranIn" jsonb)
     ), gone as (
       delete from finding
        where account_id = :account and rule_id = :rule and state = 'open'
          and not exists (select from now where now.term = finding.term)
     )
     insert into finding as f (account_id, rule_id, version, term, is_code, evening, from_day, to_day, sums, ran_in)
     select :account, :rule, :version, term, "isCode", cast(:evening as date), cast(:from as date), cast(:to as date), sums,
            "ranIn" from now
     on conflict (account_id, rule_id, term) do update
        set version = excluded.version, sums = excluded.sums, ran_in = excluded.ran_in, from_day = excluded.from_day, to_day = excluded.to_day
      where f.state <> 'refused'`,
    {
      ...{ account: accountId, rule: ruleId, version, evening, from: look.from, to: look.to },
      found: JSON.stringify(found),
    },
  );
  return true;
}

export type StoredFinding = {
  id: number;
  ruleId: number;
  /** of the rule */
  version: number;
  term: string;
  isCode: boolean;
  /** ids of the ad groups where it ran */
  ranIn: number[];
  /** what the rule saw from one day to another; null where nothing is known */
  sums: Record<keyof Sums, number | null>;
  from: string;
  to: string;
  evening: string;
  state: FindingPile;
  decided: { by: string; at: string; why: string; until: string | null } | null;
};

/** What rules that are switched on have found. */
export async function listFindings(db: Db, accountId: number): Promise<StoredFinding[]> {
  const rows = await db('finding')
    .join('rule', function () {
      this.on('rule.account_id', 'finding.account_id').andOn('rule.rule_id', 'finding.rule_id');
    })
    .leftJoin('person', 'person.person_id', 'finding.person_id')
    .where({ 'finding.account_id': accountId, 'rule.state': 'on' })
    .orderBy('finding_id')
    .select('finding.*', 'person.name as by');
  return rows.map((row) => ({
    ...{ id: row.finding_id, ruleId: row.rule_id, version: row.version, term: row.term, isCode: row.is_code },
    ...{ sums: row.sums, ranIn: row.ran_in },
    ...{ from: row.from_day, to: row.to_day, evening: row.evening, state: row.state },
    decided: row.by && {
      ...{ by: row.by, at: row.decided_at.toISOString(), why: row.why, until: row.until },
    },
  }));
}

/** The terms of some findings as they stand in reports, and the rules that found them. */
export async function findFindings(
  db: Db,
  accountId: number,
  ids: readonly number[],
): Promise<{ ruleId: number; key: string; raw: string }[]> {
  const { rows } = await db.raw<{ rows: { ruleId: number; key: string; raw: string }[] }>(
    `select rule_id as "ruleId", finding.term as key, coalesce(t.raw, finding.term) as raw
       from finding
       left join term t on t.account_id = finding.account_id and t.key = finding.term
      where finding.account_id = :accountId and finding_id = any(cast(:ids as integer[]))
      order by finding_id`,
    { accountId, ids: [...ids] },
  );
  return rows;
}

/**
 * Decides findings.
 * @returns those that are there, as they were before
 */
export async function decideFindings(
  db: Db,
  accountId: number,
  ids: readonly number[],
  { is, until, why, personId }: { is: FindingPile; until: string | null; why: string; personId: number },
): Promise<{ id: number; term: string; was: FindingPile; why: string }[]> {
  const { rows: before } = await db.raw<{
    rows: { id: number; term: string; was: FindingPile; why: string }[];
  }>(
    `select f.finding_id as id, coalesce(k.text, l.name || ' on ' || c.name, c.name, f.term) as term, f.state as was, f.why
       from finding f
       join rule_version v using (account_id, rule_id, version)
       left join keyword k on v.body ->> 'about' = 'keywords' and k.account_id = f.account_id and cast(k.keyword_id as text) = f.term
       left join campaign c on v.body ->> 'about' in ('campaigns', 'lists') and c.account_id = f.account_id
                           and cast(c.campaign_id as text) = split_part(f.term, ' ', 1)
       left join shared_list l on v.body ->> 'about' = 'lists' and l.account_id = f.account_id
                              and cast(l.list_id as text) = substring(f.term from position(' ' in f.term) + 1)
      where f.account_id = :accountId and f.finding_id = any(cast(:ids as integer[]))
      order by f.finding_id
        for update of f`,
    { accountId, ids: [...ids] },
  );
  await db('finding')
    .where({ account_id: accountId })
    .whereIn('finding_id', ids)
    .update(
      is === 'open'
        ? { state: is, until: null, why: '', person_id: null, decided_at: null }
        : { state: is, until, why, person_id: personId, decided_at: clockNow(db) },
    );
  return before;
}

/** Rules look anew: what they found, and nobody decided, is found again where it still holds. */
export async function forgetLooks(db: Db, accountId: number, ruleIds: readonly number[]): Promise<void> {
  const where = { account_id: accountId };
  await db('rule_look')
    .where(where)
    .whereIn('rule_id', [...ruleIds])
    .delete();
  await db('finding')
    .where({ ...where, state: 'open' })
    .whereIn('rule_id', [...ruleIds])
    .delete();
}

/** The newest finding of each rule that ever had one, whatever became of it. @returns finding by rule */
export async function newestFindings(db: Db, accountId: number): Promise<Map<number, number>> {
  const rows: { rule_id: number; newest: number }[] = await db('finding')
    .where({ account_id: accountId })
    .groupBy('rule_id')
    .select('rule_id')
    .max('finding_id as newest');
  return new Map(rows.map(({ rule_id, newest }) => [rule_id, newest]));
}
