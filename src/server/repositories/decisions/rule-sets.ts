import type { Where } from '@/core';
import type { Db } from '../../db/connection';

/** Rules in an order: of those that find the same term, the first wins. */
export type RuleSet = {
  name: string;
  /** where its rules look at most; null: wherever each says */
  where: Where | null;
  /** ids, the first first */
  rules: number[];
};

/** Sets of an account by name, with those of their rules that are not removed. */
export async function listRuleSets(db: Db, accountId: number): Promise<RuleSet[]> {
  const { rows } = await db.raw<{ rows: RuleSet[] }>(
    `select s.name, s.place as "where",
            coalesce(array_agg(r.rule_id order by r.rank) filter (where r.state <> 'removed'), '{}') as rules
       from rule_set s
       left join rule r using (account_id, rule_set_id)
      where s.account_id = :accountId
      group by s.rule_set_id, s.name, s.place
      order by s.name`,
    { accountId },
  );
  return rows;
}

/** Puts these sets in the place of all that the account has. Rules that none of them holds are in none. */
export async function replaceRuleSets(db: Db, accountId: number, sets: readonly RuleSet[]): Promise<void> {
  const where = { account_id: accountId };
  await db('rule').where(where).update({ rule_set_id: null, rank: null });
  await db('rule_set').where(where).delete();
  for (const { name, where: place, rules } of sets) {
    const [made] = await db('rule_set')
      .insert({ ...where, name, place: place && JSON.stringify(place) })
      .returning<{ rule_set_id: number }[]>('rule_set_id');
    for (const [rank, ruleId] of rules.entries())
      await db('rule')
        .where({ ...where, rule_id: ruleId })
        .update({ rule_set_id: made!.rule_set_id, rank });
  }
}
