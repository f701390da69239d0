import type { Rule } from '@/core';
import type { ChangeState } from '../tray/changes';
import { clockNow, type Db } from '../../db/connection';

/** What a rule did by itself about a term: once, whatever becomes of it. */
export type RuleActed = {
  ruleId: number;
  version: number;
  term: string;
  day: string;
  /** what the term cost in the days that the rule looked at */
  costMicros: number;
  changeIds: number[];
};

export async function insertActs(db: Db, accountId: number, acts: readonly RuleActed[]): Promise<void> {
  await db('rule_act').insert(
    acts.map(({ ruleId, version, term, day, costMicros, changeIds }) => ({
      ...{ account_id: accountId, rule_id: ruleId, version, term, day, at: clockNow(db) },
      ...{ cost_micros: costMicros, change_ids: changeIds },
    })),
  );
}

export type StoredAct = RuleActed & {
  /** the rule's name as it acted */
  rule: string;
  /** what it said as it acted */
  sentence: Rule;
  at: string;
  /** of its changes */
  states: ChangeState[];
  /** whether all that was carried out of it was taken back */
  isUndone: boolean;
  /** the first ledger entry of its changes; null where none is read back yet */
  entry: number | null;
};

/** What rules did by themselves, the newest first. */
export async function listActs(db: Db, accountId: number): Promise<StoredAct[]> {
  const { rows } = await db.raw<{ rows: (Omit<StoredAct, 'at'> & { at: Date })[] }>(
    `select act.rule_id as "ruleId", act.version, v.name as rule, v.body as sentence, act.term, act.day, act.cost_micros as "costMicros",
            act.change_ids as "changeIds", act.at,
            coalesce((select array_agg(c.state) from change c
                       where c.account_id = act.account_id and c.change_id = any(act.change_ids)), '{}') as states,
            coalesce((select bool_and(exists (select from change u
                                               where u.account_id = c.account_id and u.undoes = c.change_id
                                                 and u.state in ('there', 'said')))
                        from change c
                       where c.account_id = act.account_id and c.change_id = any(act.change_ids)
                         and c.state in ('there', 'said')), false) as "isUndone",
            (select min(ledger_entry_id) from ledger_entry e
              where e.account_id = act.account_id and e.change_id = any(act.change_ids)) as entry
       from rule_act act
       join rule_version v using (account_id, rule_id, version)
      where act.account_id = :accountId
      order by act.at desc, act.term`,
    { accountId },
  );
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}
