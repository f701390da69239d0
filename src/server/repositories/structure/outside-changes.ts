import type { Change, MatchType, Place, Priority } from '@/core';
import type { StructureAnswer } from '@/contracts/platform';
import type { Db } from '../../db/connection';

/** What others changed waits until a person takes it over or undoes it. */
export type OutsideState = 'waits' | 'taken over' | 'undone';

/** Something that others changed on the platform outside lists, as the change that we would have made. */
export type OutsideChange = {
  id: number;
  /** when it was found here */
  at: string;
  change: Change;
  said: string;
  state: OutsideState;
  /** who changed it and on what day, where the platform says so */
  by: string | null;
  on: string | null;
};

/** Elements as the mirror has them, by the platform's ids: those that an answer says something about. */
export type ElementStates = {
  negatives: Map<string, { text: string; match: MatchType; place: Place }>;
  exclusions: Map<string, { code: string; place: Place }>;
  keywords: Map<string, { id: string; status: string; bidMicros: number | null }>;
  campaigns: Map<
    string,
    { id: string; budgetMicros: number | null; sharedBudget: string | null; priority: Priority | null }
  >;
};

export async function loadElementStates(
  db: Db,
  accountId: number,
  { negatives, exclusions, keywords, campaigns }: StructureAnswer,
): Promise<ElementStates> {
  const of = async (table: string, elements: readonly { id: string }[]) => {
    const ids = elements.map(({ id }) => id);
    const rows: Record<string, unknown>[] =
      ids.length === 0 ? [] : await db(table).where({ account_id: accountId }).whereIn('platform_id', ids);
    return rows;
  };
  const place = (row: Record<string, unknown>): Place => {
    const kind = row.place_kind as Place['kind'];
    const id = (row.campaign_id ?? row.ad_group_id ?? null) as number | null;
    return { kind, id: id === null ? null : String(id) };
  };
  const outside = negatives.filter((n) => n.place.kind !== 'list');
  return {
    negatives: new Map(
      (await of('negative', outside))
        .filter((row) => row.place_kind !== 'list')
        .map((row) => [
          row.platform_id as string,
          { text: row.text as string, match: row.match as MatchType, place: place(row) },
        ]),
    ),
    exclusions: new Map(
      (await of('product_exclusion', exclusions)).map((row) => [
        row.platform_id as string,
        { code: row.code as string, place: place(row) },
      ]),
    ),
    keywords: new Map(
      (await of('keyword', keywords)).map((row) => [
        row.platform_id as string,
        {
          id: String(row.keyword_id as number),
          status: row.status as string,
          bidMicros: row.bid_micros as number | null,
        },
      ]),
    ),
    campaigns: new Map(
      (await of('campaign', campaigns)).map((row) => [
        row.platform_id as string,
        {
          id: String(row.campaign_id as number),
          budgetMicros: row.budget_micros as number | null,
          sharedBudget: row.shared_budget as string | null,
          priority: row.priority as Priority | null,
        },
      ]),
    ),
  };
}

const toOutsideChange = (row: Record<string, unknown>): OutsideChange => ({
  id: row.outside_change_id as number,
  at: (row.at as Date).toISOString(),
  change: row.body as Change,
  said: row.said as string,
  state: row.state as OutsideState,
  by: row.changed_by as string | null,
  on: row.changed_on as string | null,
});

export async function insertOutsideChanges(
  db: Db,
  accountId: number,
  found: readonly Pick<OutsideChange, 'change' | 'said' | 'by' | 'on'>[],
): Promise<void> {
  const rows = found.map(({ change, said, by, on }) => ({
    ...{ account_id: accountId, body: JSON.stringify(change), said, changed_by: by, changed_on: on },
  }));
  for (let at = 0; at < rows.length; at += 5_000)
    await db('outside_change').insert(rows.slice(at, at + 5_000));
}

/** What nobody has looked at, the newest first. */
export async function listOutsideChanges(db: Db, accountId: number): Promise<OutsideChange[]> {
  const rows = await db('outside_change')
    .where({ account_id: accountId, state: 'waits' })
    .orderBy('outside_change_id', 'desc');
  return rows.map(toOutsideChange);
}

/** Those of the changes that are there, in the order in which they were found. */
export async function findOutsideChanges(
  db: Db,
  accountId: number,
  ids: readonly number[],
): Promise<OutsideChange[]> {
  const rows = await db('outside_change')
    .where({ account_id: accountId })
    .whereIn('outside_change_id', ids)
    .orderBy('outside_change_id');
  return rows.map(toOutsideChange);
}

/** @returns how many were in the state before */
export async function setOutsideChangeStates(
  db: Db,
  accountId: number,
  ids: readonly number[],
  was: OutsideState,
  is: OutsideState,
): Promise<number> {
  return db('outside_change')
    .where({ account_id: accountId, state: was })
    .whereIn('outside_change_id', ids)
    .update({ state: is });
}
