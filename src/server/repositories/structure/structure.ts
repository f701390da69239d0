import { group } from 'd3';
import type { AccountShape, ListContent, MatchType, Place, PlacedNegative, Priority, Segment } from '@/core';
import type { Db } from '../../db/connection';

export type Status = 'live' | 'paused' | 'ended' | 'removed' | 'unknown';
export type Campaign = {
  id: string;
  platformId: string | null;
  name: string;
  status: Status;
  channel: string | null;
  labels: string[];
  /** the most that it may cost a day, micro-units; null where nobody says */
  budgetMicros: number | null;
  /** the name of the budget that it shares with others, if it does */
  sharedBudget: string | null;
  /** of campaigns that could serve the same query, the one of the highest is asked first; null: it has none */
  priority: Priority | null;
  /** whom it meets; an empty array is no restriction (rules 5.3) */
  segments: Record<Segment, string[]>;
};
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
export type SharedList = {
  id: string;
  platformId: string;
  name: string;
  holds: ListContent;
  hungOn: string[] | 'account';
  /** campaigns on which it hangs besides the whole account */
  besides: string[];
  /** the first day on which it hung on each campaign ('account' is the whole account), where that is known */
  since: ReadonlyMap<string, string>;
  /** addresses (rules 2.6); none in a list of words */
  placements: string[];
};
export type Negative = PlacedNegative & {
  platformId: string;
  /** ISO time; '' where nobody says since when it stands (a structure file names it) */
  createdAt: string;
};

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
  // A campaign is ended from the day after its end date (rules 5.1).
  const campaigns = await db('campaign')
    .join('account', 'account.account_id', 'campaign.account_id')
    .where({ 'campaign.account_id': accountId })
    .orderBy('campaign_id')
    .select('campaign_id', 'platform_id', 'campaign.name', 'channel', 'label')
    .select('location', 'audience', 'device', 'language', 'priority', 'budget_micros', 'shared_budget')
    .select(
      db.raw(`case when status in ('live', 'unknown', 'paused') and end_date < coalesce(platform_day, current_date)
                   then 'ended' else status end as status`),
    );
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
    .select('list_id', 'platform_id', 'name', 'holds');
  const hangings = group(
    await db('list_hanging').where(where).select('list_id', 'campaign_id', 'since'),
    (row) => row.list_id as number,
  );
  const placements = group(
    await db('placement').where(where).orderBy('placement_id').select('list_id', 'address'),
    (row) => row.list_id as number,
  );
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
      channel: r.channel,
      labels: r.label,
      budgetMicros: r.budget_micros,
      sharedBudget: r.shared_budget,
      priority: r.priority,
      segments: { location: r.location, audience: r.audience, device: r.device, language: r.language },
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
      const own = hangings.get(r.list_id) ?? [];
      const onAccount = own.some((h) => h.campaign_id === null);
      return {
        id: String(r.list_id),
        platformId: r.platform_id,
        name: r.name,
        holds: r.holds,
        hungOn: onAccount ? ('account' as const) : own.map((h) => String(h.campaign_id)),
        besides: onAccount ? own.flatMap((h) => (h.campaign_id === null ? [] : String(h.campaign_id))) : [],
        since: new Map(
          own.flatMap((h) => (h.since === null ? [] : [[String(h.campaign_id ?? 'account'), h.since]])),
        ),
        placements: (placements.get(r.list_id) ?? []).map((p) => p.address),
      };
    }),
    negatives: negatives.map((r) => ({
      id: String(r.negative_id),
      platformId: r.platform_id,
      text: r.text,
      match: r.match,
      place: toPlace(r),
      createdAt: (r.created_at as Date | null)?.toISOString() ?? '',
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
  const groupsOf = group(adGroups, (g) => g.campaignId);
  return {
    campaigns: campaigns.map(({ id }) => ({ id, adGroups: groupsOf.get(id) ?? [] })),
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
