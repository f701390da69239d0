import type { Knex } from 'knex';
import { copyRows, type CopyColumn } from '../../db/copy';
import { ranksOf } from './report-rows';
import type { NamedKeyword } from './report-texts';

/** What a keyword of a report stands for in the mirror. */
export type KeywordIds = { adGroupId: Int32Array; keywordId: Int32Array };

/**
 * Adds the campaigns, ad groups and keywords that a report names and the mirror lacks, with status unknown.
 * @returns the ids of each keyword, by its number; they stand in the table keyword_of as well, while the transaction
 * lasts
 */
export async function nameElements(
  trx: Knex.Transaction,
  accountId: number,
  keywords: readonly NamedKeyword[],
): Promise<KeywordIds> {
  const account = { account: accountId };
  await trx.raw(`
    create temporary table staged_keyword (
      local integer, campaign text, ad_group text, text text, text_key text, match text
    ) on commit drop`);
  const columns: CopyColumn[] = [
    { name: 'local', type: 'integer', valueOf: (local) => local },
    { name: 'campaign', type: 'text', valueOf: (local) => keywords[local]!.campaign },
    { name: 'ad_group', type: 'text', valueOf: (local) => keywords[local]!.adGroup },
    { name: 'text', type: 'text', valueOf: (local) => keywords[local]!.text },
    { name: 'text_key', type: 'text', valueOf: (local) => keywords[local]!.textKey },
    { name: 'match', type: 'text', valueOf: (local) => keywords[local]!.match },
  ];
  await copyRows(trx, 'staged_keyword', columns, keywords.length);
  await trx.raw('analyze staged_keyword');
  await trx.raw(
    `insert into campaign (account_id, name, status)
     select :account, s.campaign, 'unknown' from (select distinct campaign from staged_keyword) s
     where not exists (select from campaign c where c.account_id = :account and c.name = s.campaign)
     order by 2`,
    account,
  );
  await trx.raw(
    `create temporary table staged_campaign on commit drop as
       select name, min(campaign_id) as campaign_id from campaign where account_id = :account group by name`,
    account,
  );
  await trx.raw(
    `insert into ad_group (account_id, campaign_id, name, status)
     select :account, c.campaign_id, s.ad_group, 'unknown'
       from (select distinct campaign, ad_group from staged_keyword) s join staged_campaign c on c.name = s.campaign
      where not exists (select from ad_group g
                         where (g.account_id, g.campaign_id, g.name) = (:account, c.campaign_id, s.ad_group))
      order by 2, 3`,
    account,
  );
  await trx.raw(
    `create temporary table staged_group on commit drop as
       select c.name as campaign, g.name as ad_group, min(g.ad_group_id) as ad_group_id
         from ad_group g join staged_campaign c on c.campaign_id = g.campaign_id
        where g.account_id = :account group by 1, 2`,
    account,
  );
  await trx.raw('analyze staged_group');
  await trx.raw(
    `insert into keyword (account_id, ad_group_id, text, text_key, match, status)
     select :account, g.ad_group_id, min(s.text), s.text_key, s.match, 'unknown'
       from staged_keyword s join staged_group g using (campaign, ad_group)
      where not exists (select from keyword k where (k.account_id, k.ad_group_id, k.text_key, k.match)
                                                  = (:account, g.ad_group_id, s.text_key, s.match))
      group by g.ad_group_id, s.text_key, s.match
      order by 2, 4, 5`,
    account,
  );
  await trx.raw(
    `create temporary table keyword_of on commit drop as
       select s.local, g.ad_group_id, k.keyword_id
         from staged_keyword s
         join staged_group g using (campaign, ad_group)
         join (select ad_group_id, text_key, match, min(keyword_id) as keyword_id
                 from keyword where account_id = :account group by 1, 2, 3) k
           on (k.ad_group_id, k.text_key, k.match) = (g.ad_group_id, s.text_key, s.match)`,
    account,
  );
  await trx.raw('analyze keyword_of');
  const ids = { adGroupId: new Int32Array(keywords.length), keywordId: new Int32Array(keywords.length) };
  const rows: { local: number; ad_group_id: number; keyword_id: number }[] = await trx('keyword_of').select();
  for (const row of rows) {
    ids.adGroupId[row.local] = row.ad_group_id;
    ids.keywordId[row.local] = row.keyword_id;
  }
  return ids;
}

/** The ranks of keywords in the order of the facts' key. Keywords that came to one and the same share a rank. */
export function ranksOfKeywords({ adGroupId, keywordId }: KeywordIds): Uint32Array {
  return ranksOf(adGroupId, keywordId);
}
