import type { Knex } from 'knex';
import { normalise, type ElementRow } from '@/core';
import type { Db } from '../../db/connection';
import { copyRows, dayNumber, type CopyColumn } from '../../db/copy';

/**
 * Brings the mirror of an account without a platform up to a structure file: what it names is added or changed, what
 * it calls removed is; the rest stays. Elements are known by their names.
 * @returns how many elements were added, and how many the file named that were there
 */
export async function writeElements(
  trx: Knex.Transaction,
  accountId: number,
  elements: readonly ElementRow[],
): Promise<{ added: number; replaced: number }> {
  await trx.raw(`
    create temporary table staged_element (
      position integer generated always as identity, element text, campaign text, ad_group text, list text, text text,
      text_key text, match text, status text, bid_micros bigint, end_date date
    ) on commit drop`);
  await copyRows(trx, 'staged_element', columnsOf(elements), elements.length);
  await trx.raw('analyze staged_element');
  await stageKnownTexts(trx, accountId);
  let added = 0;
  for (const statement of STATEMENTS) {
    const { command, rowCount } = await trx.raw<{ command: string; rowCount: number }>(statement, {
      account: accountId,
    });
    if (command === 'INSERT') added += rowCount;
  }
  return { added, replaced: Math.max(0, elements.length - added) };
}

/** The texts of the account's negatives as they are compared (rules 1.1), which SQL can not tell. */
async function stageKnownTexts(trx: Knex.Transaction, accountId: number): Promise<void> {
  const known: { negative_id: number; text: string }[] = await trx('negative')
    .where({ account_id: accountId })
    .select('negative_id', 'text');
  await trx.raw('create temporary table known_text (negative_id bigint, text_key text) on commit drop');
  const columns: CopyColumn[] = [
    { name: 'negative_id', type: 'bigint', valueOf: (row) => known[row]!.negative_id },
    { name: 'text_key', type: 'text', valueOf: (row) => normalise(known[row]!.text) },
  ];
  await copyRows(trx, 'known_text', columns, known.length);
  await trx.raw('analyze known_text');
}

function columnsOf(elements: readonly ElementRow[]): CopyColumn[] {
  const text = (name: string, valueOf: (row: ElementRow) => string | null): CopyColumn => ({
    ...{ name, type: 'text', valueOf: (row) => valueOf(elements[row]!) },
  });
  const number = (
    name: string,
    type: 'bigint' | 'date',
    valueOf: (row: ElementRow) => number | null,
  ): CopyColumn => ({
    ...{ name, type, valueOf: (row) => valueOf(elements[row]!) ?? NaN },
  });
  const textOf = (row: ElementRow) => ('text' in row ? row.text : '');
  return [
    text('element', (row) => row.element),
    text('campaign', (row) => ('campaign' in row ? row.campaign : '')),
    text('ad_group', (row) => ('adGroup' in row ? row.adGroup : '')),
    text('list', (row) => ('list' in row ? row.list : '')),
    text('text', textOf),
    text('text_key', (row) => normalise(textOf(row))),
    text('match', (row) => ('match' in row ? row.match : null)),
    text('status', (row) => row.status),
    number('bid_micros', 'bigint', (row) => ('bidMicros' in row ? row.bidMicros : null)),
    number('end_date', 'date', (row) =>
      'endDate' in row && row.endDate !== null ? dayNumber(row.endDate) : null,
    ),
  ];
}

/** Elements of the mirror that a structure file shows to be gone, by our ids. */
export type GoneElements = {
  negativeIds: string[];
  listIds: string[];
  hangings: { listId: string; campaignId: string | null }[];
};

export async function removeFromMirror(
  db: Db,
  accountId: number,
  { negativeIds, listIds, hangings }: GoneElements,
): Promise<void> {
  const inAccount = (table: string) => db(table).where({ account_id: accountId });
  await inAccount('negative').whereIn('negative_id', negativeIds.map(Number)).delete();
  await inAccount('shared_list').whereIn('list_id', listIds.map(Number)).delete();
  for (const { listId, campaignId } of hangings)
    await inAccount('list_hanging')
      .where({ list_id: Number(listId), campaign_id: campaignId === null ? null : Number(campaignId) })
      .delete();
}

/** Gives a list of the mirror the name that a structure file knows it by. */
export async function renameInMirror(
  db: Db,
  accountId: number,
  { listId, name }: { listId: string; name: string },
): Promise<void> {
  await db('shared_list')
    .where({ account_id: accountId, list_id: Number(listId) })
    .update({ name });
}

const CAMPAIGNS = `(select name, min(campaign_id) as campaign_id from campaign where account_id = :account group by name)`;
const GROUPS = `(select c.name as campaign, g.name as ad_group, min(g.ad_group_id) as ad_group_id
   from ad_group g join campaign c on (c.account_id, c.campaign_id) = (g.account_id, g.campaign_id)
  where g.account_id = :account group by 1, 2)`;
const LISTS = `(select name, min(list_id) as list_id from shared_list where account_id = :account group by name)`;
/** A negative's place by its ids; in the narrowest that its row names. */
const PLACES = `(
  select s.position, s.text, s.text_key, s.match, s.status,
         case when s.list <> '' then 'list' when s.ad_group <> '' then 'adGroup'
              when s.campaign <> '' then 'campaign' else 'account' end as kind,
         case when s.list = '' and s.ad_group = '' then c.campaign_id end as campaign_id,
         case when s.list = '' then g.ad_group_id end as ad_group_id, l.list_id
    from staged_element s
    left join ${CAMPAIGNS} c on c.name = s.campaign
    left join ${GROUPS} g on (g.campaign, g.ad_group) = (s.campaign, s.ad_group)
    left join ${LISTS} l on l.name = s.list
   where s.element = 'negative' and s.text_key <> '')`;
const SAME_PLACE = `n.account_id = :account and n.place_kind = p.kind and n.match = p.match
  and n.campaign_id is not distinct from p.campaign_id and n.ad_group_id is not distinct from p.ad_group_id
  and n.list_id is not distinct from p.list_id
  and n.negative_id = k.negative_id and k.text_key = p.text_key`;

const STATEMENTS = [
  // Campaigns, ad groups and lists that any row names; then what their own rows say of them.
  `insert into campaign (account_id, name, status)
   select distinct cast(:account as integer), s.campaign, 'unknown' from staged_element s
    where s.campaign <> '' and not exists (select from campaign c where c.account_id = :account and c.name = s.campaign)`,
  `insert into ad_group (account_id, campaign_id, name, status)
   select distinct cast(:account as integer), c.campaign_id, s.ad_group, 'unknown'
     from staged_element s join ${CAMPAIGNS} c on c.name = s.campaign
    where s.ad_group <> '' and not exists (
      select from ad_group g where (g.account_id, g.campaign_id, g.name) = (:account, c.campaign_id, s.ad_group))`,
  `insert into shared_list (account_id, platform_id, name)
   select :account, 'file:' || gen_random_uuid(), s.list from (select distinct list from staged_element) s
    where s.list <> '' and not exists (select from shared_list l where l.account_id = :account and l.name = s.list)`,
  `update campaign c set status = s.status, end_date = s.end_date
     from (select distinct on (campaign) * from staged_element where element = 'campaign'
            order by campaign, position desc) s
    where c.account_id = :account and c.name = s.campaign`,
  `update ad_group g set status = s.status
     from (select distinct on (campaign, ad_group) * from staged_element where element = 'ad group'
            order by campaign, ad_group, position desc) s
     join ${GROUPS} known on (known.campaign, known.ad_group) = (s.campaign, s.ad_group)
    where g.account_id = :account and g.ad_group_id = known.ad_group_id`,
  `insert into keyword (account_id, ad_group_id, text, text_key, match, status)
   select :account, g.ad_group_id, min(s.text), s.text_key, s.match, 'unknown'
     from staged_element s join ${GROUPS} g on (g.campaign, g.ad_group) = (s.campaign, s.ad_group)
    where s.element = 'keyword' and not exists (
      select from keyword k where (k.account_id, k.ad_group_id, k.text_key, k.match)
                                = (:account, g.ad_group_id, s.text_key, s.match))
    group by g.ad_group_id, s.text_key, s.match`,
  `update keyword k set status = s.status, bid_micros = coalesce(s.bid_micros, k.bid_micros)
     from (select distinct on (campaign, ad_group, text_key, match) * from staged_element where element = 'keyword'
            order by campaign, ad_group, text_key, match, position desc) s
     join ${GROUPS} g on (g.campaign, g.ad_group) = (s.campaign, s.ad_group)
    where (k.account_id, k.ad_group_id, k.text_key, k.match) = (:account, g.ad_group_id, s.text_key, s.match)`,
  `insert into list_hanging (account_id, list_id, campaign_id)
   select distinct cast(:account as integer), l.list_id, c.campaign_id
     from staged_element s join ${LISTS} l on l.name = s.list left join ${CAMPAIGNS} c on c.name = s.campaign
    where s.element = 'list' and s.campaign <> '' and s.status = 'live'
   on conflict do nothing`,
  `delete from list_hanging h using staged_element s
     join ${LISTS} l on l.name = s.list join ${CAMPAIGNS} c on c.name = s.campaign
    where s.element = 'list' and s.status = 'removed'
      and (h.account_id, h.list_id, h.campaign_id) = (:account, l.list_id, c.campaign_id)`,
  `insert into negative (account_id, platform_id, text, match, place_kind, campaign_id, ad_group_id, list_id, created_at)
   select :account, 'file:' || gen_random_uuid(), p.text, p.match, p.kind, p.campaign_id, p.ad_group_id, p.list_id, null
     from (select distinct on (kind, campaign_id, ad_group_id, list_id, match, text_key) * from ${PLACES} p
            where status <> 'removed') p
    where not exists (select from negative n, known_text k where ${SAME_PLACE})`,
  `delete from negative n using known_text k, ${PLACES} p where p.status = 'removed' and ${SAME_PLACE}`,
];
