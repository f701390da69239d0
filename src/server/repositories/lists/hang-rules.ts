import type { HangRule } from '@/core';
import type { Db } from '../../db/connection';

/** A standing wish that a list hang on all campaigns of a kind. */
export type StoredHangRule = {
  id: number;
  listId: string;
  rule: HangRule;
  by: string;
  /** ids of campaigns that a person left out */
  except: string[];
};

export async function listHangRules(db: Db, accountId: number): Promise<StoredHangRule[]> {
  const rows = await db('hang_rule as r')
    .join('person as p', 'p.person_id', 'r.made_by')
    .leftJoin('hang_rule_exception as e', function () {
      this.on('e.account_id', 'r.account_id').andOn('e.hang_rule_id', 'r.hang_rule_id');
    })
    .where({ 'r.account_id': accountId })
    .groupBy('r.hang_rule_id', 'r.list_id', 'r.rule', 'p.name')
    .orderBy('r.hang_rule_id')
    .select('r.hang_rule_id', 'r.list_id', 'r.rule', 'p.name as by')
    .select(db.raw('array_remove(array_agg(e.campaign_id), null) as except'));
  return rows.map((row) => ({
    id: row.hang_rule_id,
    listId: row.list_id,
    rule: row.rule,
    by: row.by,
    except: (row.except as number[]).map(String),
  }));
}

export async function insertHangRule(
  db: Db,
  accountId: number,
  made: { listId: string; rule: HangRule; personId: number },
): Promise<number> {
  const [row] = await db('hang_rule')
    .insert({
      ...{ account_id: accountId, list_id: made.listId, rule: JSON.stringify(made.rule) },
      made_by: made.personId,
    })
    .returning('hang_rule_id');
  return row.hang_rule_id;
}

export async function deleteHangRule(db: Db, accountId: number, ruleId: number): Promise<boolean> {
  return (await db('hang_rule').where({ account_id: accountId, hang_rule_id: ruleId }).delete()) > 0;
}

/** Rules of lists that are not made after all, or were removed. */
export async function deleteHangRulesOf(
  db: Db,
  accountId: number,
  listIds: readonly string[],
): Promise<void> {
  await db('hang_rule').where({ account_id: accountId }).whereIn('list_id', listIds).delete();
}

/** Leaves a campaign out of a rule, or lets the rule be about it again. */
export async function setHangRuleException(
  db: Db,
  accountId: number,
  { ruleId, campaignId, isOut }: { ruleId: number; campaignId: string; isOut: boolean },
): Promise<void> {
  const row = { account_id: accountId, hang_rule_id: ruleId, campaign_id: Number(campaignId) };
  const table = db('hang_rule_exception');
  if (isOut) await table.insert(row).onConflict(Object.keys(row)).ignore();
  else await table.where(row).delete();
}

/** A list that bore an id of the tray has its own now. */
export async function renameListsInRules(
  db: Db,
  accountId: number,
  adopted: ReadonlyMap<string, string>,
): Promise<void> {
  if (adopted.size === 0) return;
  await db.raw(
    `update hang_rule r set list_id = a.list_id
       from unnest(cast(:newIds as text[]), cast(:listIds as text[])) as a (new_id, list_id)
      where r.account_id = :account and r.list_id = a.new_id`,
    { account: accountId, newIds: [...adopted.keys()], listIds: [...adopted.values()] },
  );
}
