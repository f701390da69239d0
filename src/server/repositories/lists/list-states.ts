import { group } from 'd3';
import type { ListContent, ListState, NegativeText } from '@/core';
import type { Db } from '../../db/connection';

/** A shared list as the mirror has it. */
export type StoredList = ListState & { id: string; platformId: string | null; holds: ListContent };

/** Lists of the mirror as they stand, by our id; all of them, or those whose platform ids are given. */
export async function loadListStates(
  db: Db,
  accountId: number,
  platformIds?: readonly string[],
): Promise<Map<string, StoredList>> {
  const where = { account_id: accountId };
  const query = db('shared_list').where(where).select('list_id', 'platform_id', 'name', 'holds');
  if (platformIds) void query.whereIn('platform_id', platformIds);
  const lists: { list_id: number; platform_id: string | null; name: string; holds: ListContent }[] =
    await query;
  const ids = lists.map((list) => list.list_id);
  type Of<T> = T & { list_id: number };
  const negatives: Of<NegativeText>[] = await db('negative')
    .where(where)
    .whereIn('list_id', ids)
    .orderBy('negative_id')
    .select('list_id', 'text', 'match');
  const placements: Of<{ address: string }>[] = await db('placement')
    .where(where)
    .whereIn('list_id', ids)
    .orderBy('placement_id')
    .select('list_id', 'address');
  const hangings: Of<{ campaign_id: number | null }>[] = await db('list_hanging')
    .where(where)
    .whereIn('list_id', ids)
    .select('list_id', 'campaign_id');
  const [entriesOf, placementsOf, hungOn] = [
    group(negatives, ofList),
    group(placements, ofList),
    group(hangings, ofList),
  ];
  return new Map(
    lists.map(({ list_id, platform_id: platformId, name, holds }) => [
      String(list_id),
      {
        id: String(list_id),
        ...{ platformId, name, holds },
        entries: (entriesOf.get(list_id) ?? []).map(({ text, match }) => ({ text, match })),
        placements: (placementsOf.get(list_id) ?? []).map(({ address }) => address),
        hungOn: (hungOn.get(list_id) ?? []).map((h) =>
          h.campaign_id === null ? null : String(h.campaign_id),
        ),
      },
    ]),
  );
}

const ofList = (row: { list_id: number }) => row.list_id;
