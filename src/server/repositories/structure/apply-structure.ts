import { normalise } from '@/core';
import type { Structure } from '@/contracts/platform';
import type { Db } from '../../db/connection';

/** The mark of elements that only a structure file names: their platform id is not known. */
const FROM_FILE = 'file:';

/**
 * Brings the mirror up to what the platform says changed, in the caller's transaction. Elements that a report named
 * first are taken over by name.
 */
export async function applyStructure(db: Db, accountId: number, structure: Structure): Promise<void> {
  await adoptByName(db, accountId, structure);
  await upsert(db, 'campaign', structure.campaigns, (c) => ({
    account_id: accountId,
    platform_id: c.id,
    name: c.name,
    status: c.status,
    channel: c.channel,
    location: c.location,
    audience: c.audience,
    device: c.device,
    language: c.language,
    budget_micros: c.budgetMicros,
    shared_budget: c.sharedBudget,
    end_date: c.endDate,
    label: c.labels,
    priority: c.priority,
  }));
  const campaignIds = await idsByPlatformId(db, accountId, 'campaign', 'campaign_id');
  await upsert(db, 'ad_group', structure.adGroups, (g) => ({
    account_id: accountId,
    platform_id: g.id,
    campaign_id: requireId(campaignIds, g.campaignId),
    name: g.name,
    status: g.status,
  }));
  const adGroupIds = await idsByPlatformId(db, accountId, 'ad_group', 'ad_group_id');
  await upsert(db, 'keyword', structure.keywords, (k) => ({
    account_id: accountId,
    platform_id: k.id,
    ad_group_id: requireId(adGroupIds, k.adGroupId),
    text: k.text,
    text_key: normalise(k.text),
    match: k.match,
    status: k.status,
    bid_micros: k.bidMicros,
    changed_on: k.changedOn,
  }));
  await upsert(db, 'shared_list', structure.lists.filter(isThere), (l) => ({
    account_id: accountId,
    platform_id: l.id,
    name: l.name,
    holds: l.holds,
  }));
  await removeByPlatformId(db, accountId, 'shared_list', structure.lists);
  const listIds = await idsByPlatformId(db, accountId, 'shared_list', 'list_id');
  const hangings = structure.hangings.flatMap(({ listId, campaignId, since, status }) => {
    const list_id = listIds.get(listId);
    if (list_id === undefined) return []; // the list is gone, and its hangings with it
    const campaign_id = campaignId === null ? null : requireId(campaignIds, campaignId);
    return [{ isThere: isThere({ status }), row: { account_id: accountId, list_id, campaign_id, since } }];
  });
  const takenDown = hangings.filter((hanging) => !hanging.isThere).map(({ row }) => row);
  await db.raw(
    `delete from list_hanging h
      using unnest(cast(:lists as integer[]), cast(:campaigns as integer[])) as t (list_id, campaign_id)
      where h.account_id = :account and h.list_id = t.list_id and h.campaign_id is not distinct from t.campaign_id`,
    {
      ...{ account: accountId, lists: takenDown.map((row) => row.list_id) },
      campaigns: takenDown.map((row) => row.campaign_id),
    },
  );
  const hung = hangings.filter((hanging) => hanging.isThere).map(({ row }) => row);
  for (let at = 0; at < hung.length; at += 500) {
    await db('list_hanging')
      .insert(hung.slice(at, at + 500))
      .onConflict(db.raw('(account_id, list_id, campaign_id)'))
      .merge(['since']);
  }
  await removeByPlatformId(db, accountId, 'placement', structure.placements);
  const placements = structure.placements.filter((p) => isThere(p) && listIds.has(p.listId));
  await upsert(db, 'placement', placements, (p) => ({
    account_id: accountId,
    platform_id: p.id,
    list_id: requireId(listIds, p.listId),
    address: p.address,
    created_at: p.createdAt,
  }));
  await removeByPlatformId(db, accountId, 'negative', structure.negatives);
  await upsert(db, 'negative', structure.negatives.filter(isThere), (n) => ({
    account_id: accountId,
    platform_id: n.id,
    text: n.text,
    match: n.match,
    place_kind: n.place.kind,
    campaign_id: n.place.kind === 'campaign' ? requireId(campaignIds, n.place.id) : null,
    ad_group_id: n.place.kind === 'adGroup' ? requireId(adGroupIds, n.place.id) : null,
    list_id: n.place.kind === 'list' ? requireId(listIds, n.place.id) : null,
    created_at: n.createdAt,
  }));
  await removeByPlatformId(db, accountId, 'product_exclusion', structure.exclusions);
  await upsert(db, 'product_exclusion', structure.exclusions.filter(isThere), (e) => ({
    account_id: accountId,
    platform_id: e.id,
    code: e.code,
    place_kind: e.place.kind,
    campaign_id: e.place.kind === 'campaign' ? requireId(campaignIds, e.place.id) : null,
    ad_group_id: e.place.kind === 'adGroup' ? requireId(adGroupIds, e.place.id) : null,
    created_at: e.createdAt,
  }));
}

/**
 * Removes what a structure file named and the platform does not have, because the platform is the truth from now on.
 * Elements of the same name were taken over before.
 */
export async function dropFileElements(db: Db, accountId: number): Promise<void> {
  for (const table of ['negative', 'placement', 'product_exclusion', 'shared_list'])
    await db(table).where({ account_id: accountId }).where('platform_id', 'like', `${FROM_FILE}%`).delete();
}

/** The platform is left: what is known stays, known by its names as if files had named it. */
export async function forgetPlatformIds(db: Db, accountId: number): Promise<void> {
  for (const table of ['campaign', 'ad_group', 'keyword'])
    await db(table).where({ account_id: accountId }).update({ platform_id: null });
  for (const table of ['shared_list', 'negative', 'placement', 'product_exclusion'])
    await db(table)
      .where({ account_id: accountId })
      .update({ platform_id: db.raw(`'${FROM_FILE}' || gen_random_uuid()`) });
}

const isThere = (element: { status: string }) => element.status !== 'removed';

/**
 * Files may have named elements before the structure was read: they are the same elements. Of several of one name the oldest
 * is meant.
 */
async function adoptByName(db: Db, accountId: number, structure: Structure): Promise<void> {
  const { campaigns, adGroups, keywords, lists } = structure;
  const there = lists.filter(isThere);
  const account = { account: accountId };
  await db.raw(ADOPT.lists, { ...account, ids: there.map((l) => l.id), names: there.map((l) => l.name) });
  await db.raw(ADOPT.campaigns, {
    ...{ ...account, ids: campaigns.map((c) => c.id), names: campaigns.map((c) => c.name) },
  });
  await db.raw(ADOPT.adGroups, {
    ...{ ...account, ids: adGroups.map((g) => g.id), names: adGroups.map((g) => g.name) },
    parents: adGroups.map((g) => g.campaignId),
  });
  await db.raw(ADOPT.keywords, {
    ...{ ...account, ids: keywords.map((k) => k.id), names: keywords.map((k) => normalise(k.text)) },
    ...{ parents: keywords.map((k) => k.adGroupId), matches: keywords.map((k) => k.match) },
  });
}

const ELEMENTS = 'unnest(cast(:ids as text[]), cast(:names as text[])) as s (id, name)';
const WITHIN =
  'unnest(cast(:ids as text[]), cast(:names as text[]), cast(:parents as text[])) as s (id, name, parent)';

/** Each gives elements without a platform id the platform id of the element of the same name. */
const ADOPT = {
  lists: `
    update shared_list l set platform_id = s.id from ${ELEMENTS}
     where l.account_id = :account and l.list_id = (
       select min(list_id) from shared_list
        where account_id = :account and name = s.name and platform_id like '${FROM_FILE}%')`,
  campaigns: `
    update campaign c set platform_id = s.id from ${ELEMENTS}
     where c.account_id = :account and c.campaign_id = (
       select min(campaign_id) from campaign
        where account_id = :account and name = s.name and platform_id is null)`,
  adGroups: `
    update ad_group g set platform_id = s.id
      from ${WITHIN} join campaign c on (c.account_id, c.platform_id) = (:account, s.parent)
     where g.account_id = :account and g.ad_group_id = (
       select min(ad_group_id) from ad_group
        where account_id = :account and campaign_id = c.campaign_id and name = s.name and platform_id is null)`,
  keywords: `
    update keyword k set platform_id = s.id
      from unnest(cast(:ids as text[]), cast(:names as text[]), cast(:parents as text[]), cast(:matches as text[]))
        as s (id, name, parent, match)
      join ad_group g on (g.account_id, g.platform_id) = (:account, s.parent)
     where k.account_id = :account and k.keyword_id = (
       select min(keyword_id) from keyword
        where account_id = :account and ad_group_id = g.ad_group_id and text_key = s.name and match = s.match
          and platform_id is null)`,
};

async function upsert<T>(
  db: Db,
  table: string,
  elements: readonly T[],
  toRow: (element: T) => object,
): Promise<void> {
  for (let at = 0; at < elements.length; at += 500) {
    const rows = elements.slice(at, at + 500).map(toRow);
    await db(table).insert(rows).onConflict(['account_id', 'platform_id']).merge();
  }
}

async function removeByPlatformId(
  db: Db,
  accountId: number,
  table: string,
  elements: readonly { id: string; status: string }[],
): Promise<void> {
  const gone = elements.filter((element) => !isThere(element)).map((element) => element.id);
  if (gone.length > 0) await db(table).where({ account_id: accountId }).whereIn('platform_id', gone).delete();
}

async function idsByPlatformId(
  db: Db,
  accountId: number,
  table: string,
  column: string,
): Promise<Map<string, number>> {
  const rows: { platform_id: string; id: number }[] = await db(table)
    .where({ account_id: accountId })
    .whereNotNull('platform_id')
    .select('platform_id', `${column} as id`);
  return new Map(rows.map((row) => [row.platform_id, row.id]));
}

function requireId(ids: Map<string, number>, platformId: string | null): number {
  const id = ids.get(platformId ?? '');
  if (id === undefined)
    throw new Error(`the platform's structure refers to ${platformId}, which it never named`);
  return id;
}
