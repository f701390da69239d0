import type { Rule, Where } from '@/core';
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
