import type { AccountShape, MatchType, Place, PlacedNegative } from '@/core';
import { normalise } from '@/core';
import type { Structure } from '@/contracts/platform';
import type { Db } from '../db/connection';

export type Status = 'live' | 'paused' | 'ended' | 'removed' | 'unknown';
export type Campaign = { id: string; platformId: string | null; name: string; status: Status };
export type AdGroup = {
  id: string;
  platformId: string | null;
  campaignId: string;
  name: string;
  status: Status;
};
export type Keyword = {
  id: string;
  adGroupId: string;
  text: string;
  match: MatchType | 'automatic' | 'unknown';
  status: Status;
  platformId: string | null;
  /** the most that a click may cost, micro-units */
  bidMicros: number | null;
  /** the day on which its bid, status or match type was changed last, where the platform says so */
  changedOn: string | null;
};
export type Exclusion = { id: string; platformId: string; code: string; place: Place };
export type SharedList = { id: string; platformId: string; name: string; hungOn: string[] | 'account' };
export type Negative = PlacedNegative & { platformId: string; createdAt: string };

/** The mirror of an account. Ids are ours, as strings; the platform's stand beside them. */
export type Mirror = {
  campaigns: Campaign[];
  adGroups: AdGroup[];
  keywords: Keyword[];
  lists: SharedList[];
  negatives: Negative[];
  exclusions: Exclusion[];
};

export async function loadMirror(db: Db, accountId: number): Promise<Mirror> {
  const where = { account_id: accountId };
  // One after another: within a transaction there is one connection for all of them.
  const campaigns = await db('campaign')
    .where(where)
    .orderBy('campaign_id')
    .select('campaign_id', 'platform_id', 'name', 'status');
  const adGroups = await db('ad_group')
    .where(where)
    .orderBy('ad_group_id')
    .select('ad_group_id', 'platform_id', 'campaign_id', 'name', 'status');
  const keywords = await db('keyword')
    .where(where)
    .orderBy('keyword_id')
    .select(
      'keyword_id',
      'platform_id',
      'ad_group_id',
      'text',
      'match',
      'status',
      'bid_micros',
      'changed_on',
    );
  const lists = await db('shared_list')
    .where(where)
    .orderBy('list_id')
    .select('list_id', 'platform_id', 'name');
  const hangings = await db('list_hanging').where(where).select('list_id', 'campaign_id');
  const negatives = await db('negative')
    .where(where)
    .orderBy('negative_id')
    .select('negative_id', 'platform_id', 'text', 'match', 'place_kind')
    .select('campaign_id', 'ad_group_id', 'list_id', 'created_at');
  const exclusions = await db('product_exclusion')
    .where(where)
    .orderBy('product_exclusion_id')
    .select('product_exclusion_id', 'platform_id', 'code', 'place_kind', 'campaign_id', 'ad_group_id');
  return {
    campaigns: campaigns.map((r) => ({
      id: String(r.campaign_id),
      platformId: r.platform_id,
      name: r.name,
      status: r.status,
    })),
    adGroups: adGroups.map((r) => ({
      id: String(r.ad_group_id),
      platformId: r.platform_id,
      campaignId: String(r.campaign_id),
      name: r.name,
      status: r.status,
    })),
    keywords: keywords.map((r) => ({
      id: String(r.keyword_id),
      adGroupId: String(r.ad_group_id),
      text: r.text,
      match: r.match,
      status: r.status,
      platformId: r.platform_id,
      bidMicros: r.bid_micros,
      changedOn: r.changed_on,
    })),
    lists: lists.map((r) => {
      const own = hangings.filter((h) => h.list_id === r.list_id);
      const onAccount = own.some((h) => h.campaign_id === null);
      return {
        id: String(r.list_id),
        platformId: r.platform_id,
        name: r.name,
        hungOn: onAccount ? ('account' as const) : own.map((h) => String(h.campaign_id)),
      };
    }),
    negatives: negatives.map((r) => ({
      id: String(r.negative_id),
      platformId: r.platform_id,
      text: r.text,
      match: r.match,
      place: toPlace(r),
      createdAt: r.created_at.toISOString(),
    })),
    exclusions: exclusions.map((r) => ({
      id: String(r.product_exclusion_id),
      platformId: r.platform_id,
      code: r.code,
      place: toPlace({ ...r, list_id: null }),
    })),
  };
}

/** The parts of a mirror that decide what is in force where. */
export function shapeOf({ campaigns, adGroups, lists, negatives, exclusions }: Mirror): AccountShape {
  return {
    campaigns: campaigns.map(({ id }) => ({ id, adGroups: adGroups.filter((g) => g.campaignId === id) })),
    lists,
    negatives,
    exclusions,
  };
}

function toPlace(row: {
  place_kind: Place['kind'];
  campaign_id: number | null;
  ad_group_id: number | null;
  list_id: number | null;
}): Place {
  const id = row.campaign_id ?? row.ad_group_id ?? row.list_id;
  if ((id === null) !== (row.place_kind === 'account'))
    throw new Error(`a ${row.place_kind} negative with id ${id}`);
  return { kind: row.place_kind, id: id === null ? null : String(id) };
}

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
  }));
  await removeByPlatformId(db, accountId, 'shared_list', structure.lists);
  const listIds = await idsByPlatformId(db, accountId, 'shared_list', 'list_id');
  for (const hanging of structure.hangings) {
    const listId = listIds.get(hanging.listId);
    if (listId === undefined) continue; // the list is gone, and its hangings with it
    const row = {
      account_id: accountId,
      list_id: listId,
      campaign_id: hanging.campaignId === null ? null : requireId(campaignIds, hanging.campaignId),
    };
    if (isThere(hanging))
      await db('list_hanging').insert(row).onConflict(db.raw('(account_id, list_id, campaign_id)')).ignore();
    else await db('list_hanging').where(row).delete();
  }
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

const isThere = (element: { status: string }) => element.status !== 'removed';

/** A report may have named campaigns and ad groups before the structure was read: they are the same elements. */
async function adoptByName(db: Db, accountId: number, { campaigns, adGroups, keywords }: Structure) {
  const platformCampaign = new Map(campaigns.map((c) => [c.id, c.name]));
  for (const c of campaigns) {
    await db('campaign')
      .where({ account_id: accountId, name: c.name, platform_id: null })
      .update({ platform_id: c.id });
  }
  for (const g of adGroups) {
    const name = platformCampaign.get(g.campaignId);
    if (name === undefined) continue;
    const parent = db('campaign').select('campaign_id').where({ account_id: accountId, name });
    await db('ad_group')
      .where({ account_id: accountId, name: g.name, platform_id: null })
      .whereIn('campaign_id', parent)
      .update({ platform_id: g.id });
  }
  const orphans = await db('keyword')
    .where({ account_id: accountId, platform_id: null })
    .whereNot({ text_key: '' })
    .count();
  if (Number(orphans[0]?.count ?? 0) === 0) return;
  for (const k of keywords) {
    const parent = db('ad_group')
      .select('ad_group_id')
      .where({ account_id: accountId, platform_id: k.adGroupId });
    await db('keyword')
      .where({ account_id: accountId, text_key: normalise(k.text), match: k.match, platform_id: null })
      .whereIn('ad_group_id', parent)
      .update({ platform_id: k.id });
  }
}

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
