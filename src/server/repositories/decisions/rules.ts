import type { Rule, Sums, Where } from '@/core';
import type { FindingPile } from '@/contracts/findings';
import type { RuleState } from '@/contracts/rules';
import { clockNow, type Db } from '../../db/connection';

/** A version of a rule. */
export type RuleVersion = {
  version: number;
  name: string;
  rule: Rule;
  by: string;
  at: string;
  why: string;
};
/** A rule as it holds. */
export type StoredRule = RuleVersion & {
  id: number;
  state: RuleState;
  /** who switched it on, and when; null where nobody has, or before that was kept */
  on: { by: number; since: string } | null;
  /** why it did nothing when it wanted to act by itself, or stopped itself */
  trouble: string | null;
  /** of the rules of its set that find the same term, the one of the lowest rank wins; null: it is in none */
  set: { name: string; where: Where | null; rank: number } | null;
  /** the evening of its last look, and the version of the facts that it saw */
  looked: { evening: string; factsVersion: number; version: number } | null;
};

/** Rules that are not removed, oldest first. */
export async function listRules(db: Db, accountId: number): Promise<StoredRule[]> {
  const { rows } = await db.raw<{ rows: RuleRow[] }>(
    `select rule.rule_id, rule.state, rule.on_by, rule.on_since, rule.trouble, v.version, v.name, v.body, person.name as by, v.at, v.why,
            rule.rank, rule_set.name as set_name, rule_set.place,
            look.evening, look.facts_version, look.version as look_version
       from rule
       join rule_version v using (account_id, rule_id, version)
       join person using (person_id)
       left join rule_set using (account_id, rule_set_id)
       left join lateral (
         select evening, facts_version, version from rule_look l
          where l.account_id = rule.account_id and l.rule_id = rule.rule_id
          order by at desc, facts_version desc limit 1
       ) look on true
      where rule.account_id = :accountId and rule.state <> 'removed'
      order by rule.rule_id`,
    { accountId },
  );
  return rows.map((row) => ({
    ...{ id: row.rule_id, state: row.state, trouble: row.trouble, ...versionOf(row) },
    on: row.on_by === null ? null : { by: row.on_by, since: row.on_since!.toISOString() },
    set: row.set_name === null ? null : { name: row.set_name, where: row.place, rank: row.rank! },
    looked:
      row.evening === null
        ? null
        : {
            ...{ evening: row.evening, factsVersion: Number(row.facts_version), version: row.look_version! },
          },
  }));
}

/** Accounts in which a rule is switched on. */
export function listAccountsWithRules(db: Db): Promise<number[]> {
  return db('rule').where({ state: 'on' }).distinct('account_id').orderBy('account_id').pluck('account_id');
}

type VersionRow = { version: number; name: string; body: Rule; by: string; at: Date; why: string };
type RuleRow = VersionRow & {
  rule_id: number;
  state: RuleState;
  on_by: number | null;
  on_since: Date | null;
  trouble: string | null;
  rank: number | null;
  set_name: string | null;
  place: Where | null;
  evening: string | null;
  facts_version: number | null;
  look_version: number | null;
};
const versionOf = ({ version, name, body, by, at, why }: VersionRow): RuleVersion => ({
  ...{ version, name, rule: body, by, at: at.toISOString(), why },
});

/** All versions of a rule, the newest first; empty where there is no such rule. */
export async function listVersions(db: Db, accountId: number, ruleId: number): Promise<RuleVersion[]> {
  const rows = await db('rule_version')
    .join('person', 'person.person_id', 'rule_version.person_id')
    .where({ account_id: accountId, rule_id: ruleId })
    .orderBy('version', 'desc')
    .select('version', 'rule_version.name', 'body', 'person.name as by', 'at', 'why');
  return (rows as VersionRow[]).map(versionOf);
}

type NewVersion = { name: string; rule: Rule; personId: number; why: string };

export async function insertRule(
  db: Db,
  accountId: number,
  state: RuleState,
  first: NewVersion,
): Promise<number> {
  const [row] = await db('rule')
    .insert({ account_id: accountId, version: 1, ...stateColumns(db, state, first.personId) })
    .returning<{ rule_id: number }[]>('rule_id');
  await insertVersion(db, accountId, { ...first, ruleId: row!.rule_id, version: 1 });
  return row!.rule_id;
}

/** Another version of a rule holds from now on. */
export async function insertNextVersion(
  db: Db,
  accountId: number,
  next: NewVersion & { ruleId: number; version: number },
): Promise<void> {
  await insertVersion(db, accountId, next);
  const { ruleId, version } = next;
  await db('rule')
    .where({ account_id: accountId, rule_id: ruleId })
    .update({ version, trouble: null, on_by: next.personId, on_since: clockNow(db) });
  // What the version before found and nobody decided is found anew, or not.
  await db('finding').where({ account_id: accountId, rule_id: ruleId, state: 'open' }).delete();
}

async function insertVersion(
  db: Db,
  accountId: number,
  { ruleId, version, name, rule, personId, why }: NewVersion & { ruleId: number; version: number },
): Promise<void> {
  await db('rule_version').insert({
    ...{ account_id: accountId, rule_id: ruleId, version, name, body: JSON.stringify(rule) },
    ...{ person_id: personId, why, at: clockNow(db) },
  });
}

/** @param personId who does it: in the name of whoever switches it on, a rule acts by itself */
export async function setRuleState(
  db: Db,
  accountId: number,
  ruleId: number,
  { state, personId }: { state: RuleState; personId: number },
): Promise<void> {
  await db('rule')
    .where({ account_id: accountId, rule_id: ruleId })
    .update(stateColumns(db, state, personId));
}

const stateColumns = (db: Db, state: RuleState, personId: number) => ({
  ...{ state, trouble: null },
  ...(state === 'on' && { on_by: personId, on_since: clockNow(db) }),
});

/** Notes why a rule did not act, or that nothing stands in its way (null). @returns whether that is new */
export async function setRuleTrouble(
  db: Db,
  accountId: number,
  ruleId: number,
  trouble: string | null,
): Promise<boolean> {
  const noted = await db('rule')
    .where({ account_id: accountId, rule_id: ruleId })
    .whereRaw('trouble is distinct from cast(? as text)', [trouble])
    .update({ trouble });
  return noted > 0;
}

/** A rule that broke its promise is off, and says why. */
export async function stopRule(db: Db, accountId: number, ruleId: number, why: string): Promise<void> {
  await db('rule').where({ account_id: accountId, rule_id: ruleId }).update({ state: 'off', trouble: why });
}

/** @returns the state of each of some rules, also of those that were removed */
export async function findRuleStates(
  db: Db,
  accountId: number,
  ruleIds: readonly number[],
): Promise<ReadonlyMap<number, { state: RuleState; name: string; version: number; rule: Rule }>> {
  const rows = await db('rule')
    .join('rule_version as v', function () {
      this.on('v.account_id', 'rule.account_id')
        .andOn('v.rule_id', 'rule.rule_id')
        .andOn('v.version', 'rule.version');
    })
    .where({ 'rule.account_id': accountId })
    .whereIn('rule.rule_id', ruleIds)
    .select('rule.rule_id', 'state', 'v.name', 'rule.version', 'v.body as rule');
  return new Map(
    (rows as { rule_id: number; state: RuleState; name: string; version: number; rule: Rule }[]).map(
      ({ rule_id, ...rest }) => [rule_id, rest],
    ),
  );
}

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
    `select f.finding_id as id, coalesce(k.text, f.term) as term, f.state as was, f.why
       from finding f
       join rule_version v using (account_id, rule_id, version)
       left join keyword k on v.body ->> 'about' = 'keywords' and k.account_id = f.account_id and cast(k.keyword_id as text) = f.term
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
