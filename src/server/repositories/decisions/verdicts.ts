import type { Db } from '../../db/connection';

/** Verdicts of some terms as they are stored, so that they can be put back as they were. */
export type StoredVerdicts = {
  kept: { key: string; raw: string; note: string | null; personId: number }[];
  aside: { key: string; raw: string; moreClicks: number; afterDay: string; personId: number }[];
};

export async function loadVerdictsOf(
  db: Db,
  accountId: number,
  keys: readonly string[],
): Promise<StoredVerdicts> {
  const kept = await db('protected_term')
    .where({ account_id: accountId })
    .whereIn('text', [...keys])
    .select('text', 'raw', 'note', 'person_id');
  const aside = await db('set_aside')
    .where({ account_id: accountId })
    .whereIn('key', [...keys])
    .select('key', 'raw', 'more_clicks', 'after_day', 'person_id');
  return {
    kept: kept.map((row) => ({ key: row.text, raw: row.raw, note: row.note, personId: row.person_id })),
    aside: aside.map((row) => ({
      ...{ key: row.key, raw: row.raw, moreClicks: row.more_clicks, afterDay: row.after_day },
      personId: row.person_id,
    })),
  };
}

/** Rows of one statement; each takes up to seven of the 65,535 values that it may have. */
const ROWS_AT_ONCE = 5_000;

/** Puts verdicts in the place of all that the terms of these keys have. */
export async function replaceVerdicts(
  db: Db,
  accountId: number,
  keys: readonly string[],
  { kept, aside }: StoredVerdicts,
): Promise<void> {
  const where = { account_id: accountId };
  await db('protected_term')
    .where(where)
    .whereIn('text', [...keys])
    .delete();
  await db('set_aside')
    .where(where)
    .whereIn('key', [...keys])
    .delete();
  for (let at = 0; at < kept.length; at += ROWS_AT_ONCE)
    await db('protected_term').insert(
      kept.slice(at, at + ROWS_AT_ONCE).map(({ key, raw, note, personId }) => ({
        ...{ ...where, text: key, raw, note, person_id: personId },
      })),
    );
  for (let at = 0; at < aside.length; at += ROWS_AT_ONCE)
    await db('set_aside').insert(
      aside.slice(at, at + ROWS_AT_ONCE).map(({ key, raw, moreClicks, afterDay, personId }) => ({
        ...{ ...where, key, raw, more_clicks: moreClicks, after_day: afterDay, person_id: personId },
      })),
    );
}
