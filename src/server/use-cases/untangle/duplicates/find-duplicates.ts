import { group } from 'd3';
import {
  certaintyOfSurvivor,
  compileDuplicates,
  effectiveStatus,
  noFigures,
  rankSurvivors,
  type Contender,
  type DuplicateFinder,
  type Duplicates,
  type DuplicatesOptions,
  type Expected,
  type Figures,
  type MatchType,
} from '@/core';
import {
  RUNGS,
  type DuplicatesQuery,
  type Nearness,
  type OtherStatus,
  type Rung,
} from '@/contracts/duplicates';
import type { UnjudgedLine } from '@/contracts/knots';
import { derivedByKey, derivedFrom } from '../../../compute/derived';
import { progressOf } from '../../../compute/progress';
import type { Snapshot } from '../../../compute/snapshot';
import type { AdGroup, Campaign, Keyword, Status } from '../../../repositories/structure/structure';
import type { KeywordFigures } from '../../../repositories/keyword-days';
import { whyUnjudged } from '../unjudged';
import { cvrOf, figuresOf, type Looking } from './keyword-figures';

/** A keyword as the tray leaves it, with where it stands. */
export type Standing = Omit<Keyword, 'match' | 'status'> & {
  match: MatchType;
  /** the effective one (rules 5.1) */
  status: 'live' | OtherStatus;
  adGroup: AdGroup;
  campaign: Campaign;
  figures: Figures;
  /** what keyword reports tell of it, where they do */
  told: KeywordFigures | undefined;
};

/** Keywords that compete, the suggested survivor first, and how sure that suggestion is (rules 5.5). */
export type FoundGroup = { keywords: Standing[]; expected: Expected[]; sure: number };

export type FoundDuplicates = {
  groups: FoundGroup[];
  apart: Pick<Duplicates, 'splits' | 'deliberatePairs'>;
};

type Asked = Pick<DuplicatesQuery, 'campaigns' | 'besides'> & { alike: Rung; near: Nearness };

/** Keywords that are looked at, and those of which nothing can be said. */
export type Looked = {
  finder: DuplicateFinder;
  keyword: ReadonlyMap<string, Standing>;
  unjudged: UnjudgedLine[];
};

const OF_RUNG: Record<Rung, Pick<DuplicatesOptions, 'wordOrder' | 'matchType'>> = {
  'text and match type': { wordOrder: 'same', matchType: 'same' },
  text: { wordOrder: 'same', matchType: 'any' },
  'words in any order': { wordOrder: 'any', matchType: 'any' },
  'other forms': { wordOrder: 'any form', matchType: 'any' },
};
const OF_NEARNESS: Record<Nearness, DuplicatesOptions['reach']> = {
  ...{ 'ad group': 'adGroup', campaign: 'campaign', all: 'all' },
};

const MOST_KEPT = 12;

/**
 * Finds something once for a snapshot, as long as the tray says the same of keywords: a negative that is drafted touches none
 * of them.
 */
function foundOnce<A, Found>(
  key: (asked: A) => string,
  find: (open: Looking, asked: A) => Found,
  most = MOST_KEPT,
): (open: Looking, asked: A) => Found {
  const known = derivedByKey(
    ({ open, asked }: { open: Looking; asked: A }) => `${saysOfKeywords(open)} ${key(asked)}`,
    (_: Snapshot, { open, asked }) => find(open, asked),
    most,
  );
  return (open, asked) => known(open.snapshot, { open, asked });
}

/** What of an account decides about its keywords, besides its snapshot. */
const saysOfKeywords = derivedFrom((open: Looking) =>
  JSON.stringify([open.account.conversionKinds, [...statusesByTray(open)]]),
);

/** The duplicates on each rung. */
export function findOnRungs(open: Looking, asked: Omit<Asked, 'alike'>): Record<Rung, Duplicates> {
  return Object.fromEntries(RUNGS.map((alike) => [alike, foundBy(open, { ...asked, alike })])) as Record<
    Rung,
    Duplicates
  >;
}

/** The duplicates of one rung, each group with who should stay. */
export const findDuplicates = foundOnce(
  (asked: Asked) => keyOf(asked),
  (open, asked): FoundDuplicates => {
    const { groups, splits, deliberatePairs } = foundBy(open, asked);
    const { keyword } = lookAt(open, asked);
    const cvr = cvrOf(open);
    return {
      groups: groups.map((ids) => weighGroup(ids, keyword, cvr)),
      apart: { splits, deliberatePairs },
    };
  },
  MOST_KEPT,
);

const foundBy = foundOnce(
  (asked: Asked) => keyOf(asked),
  (open, asked) =>
    lookAt(open, asked).finder.find({ ...OF_RUNG[asked.alike], reach: OF_NEARNESS[asked.near] }),
  RUNGS.length * MOST_KEPT,
);

const keyOf = ({ alike, near, campaigns, besides }: Asked) =>
  JSON.stringify([alike, near, campaigns, besides.toSorted()]);

/** The keywords that a question is about, as the tray leaves them. */
export const lookAt = foundOnce(
  ({ campaigns, besides }: Pick<Asked, 'campaigns' | 'besides'>) =>
    JSON.stringify([campaigns, besides.toSorted()]),
  (open, { campaigns, besides }): Looked => {
    const { mirror, campaign: campaignOf, adGroup: adGroupOf } = open.snapshot;
    const figures = figuresOf(open);
    const trayed = statusesByTray(open);
    const isChosen = choosing(campaigns);
    const unjudged: Looked['unjudged'] = [];
    const keyword = new Map<string, Standing>();
    const statuses: readonly string[] = ['live', ...besides];
    for (const one of mirror.keywords) {
      const adGroup = adGroupOf.get(one.adGroupId);
      const campaign = adGroup && campaignOf.get(adGroup.campaignId);
      if (!campaign || !isChosen(campaign) || one.match === 'automatic') continue;
      const own = trayed.get(one.id) ?? one.status;
      const status = effectiveStatus([campaign.status, adGroup.status, own].map(known));
      if (!statuses.includes(status)) continue;
      const why = whyUnjudged(one);
      if (why !== undefined || one.match === 'unknown') {
        unjudged.push({ text: one.text, where: `${campaign.name} · ${adGroup.name}`, why: why ?? '' });
        continue;
      }
      const { id, match } = one;
      const told = open.report?.figures.get(id);
      keyword.set(id, {
        ...{ ...one, match, status, adGroup, campaign },
        bidMicros: one.bidMicros ?? told?.bidMicros ?? null,
        told,
        figures: figures.get(id) ?? noFigures(),
      });
    }
    const finder = compileDuplicates(
      shapeOf([...keyword.values()]),
      ['live', ...besides],
      progressOf('duplicates'),
    );
    return { finder, keyword, unjudged };
  },
  MOST_KEPT,
);

/** What only a report has named was served, so it is live (rules 5.1). */
const known = (status: Status) => (status === 'unknown' ? 'live' : status);

function choosing(campaigns: string): (campaign: Campaign) => boolean {
  const part = campaigns.toLowerCase();
  return ({ name, labels }) =>
    part === '' || name.toLowerCase().includes(part) || labels.some((label) => label.toLowerCase() === part);
}

/** As the core asks for it. Statuses are effective ones already, those of campaigns that ended too. */
function shapeOf(keywords: readonly Standing[]): Parameters<typeof compileDuplicates>[0] {
  return {
    today: '',
    campaigns: [...group(keywords, ({ campaign }) => campaign)].map(([{ id, segments }, of]) => ({
      ...{ id, status: 'live', endDate: null, ...segments },
      adGroups: [...group(of, ({ adGroup }) => adGroup.id)].map(([adGroupId, within]) => ({
        ...{ id: adGroupId, status: 'live', keywords: within },
      })),
    })),
  };
}

/** Statuses that the tray, or what was sent, gives keywords. */
function statusesByTray({ laid, snapshot }: Pick<Looking, 'laid' | 'snapshot'>): ReadonlyMap<string, Status> {
  const given = new Map<string, Status>();
  for (const change of laid) {
    if (change.kind === 'pause keyword') given.set(change.keywordId, 'paused');
    if (change.kind === 'run keyword') given.set(change.keywordId, 'live');
    if (change.kind !== 'remove keyword' && change.kind !== 'add keyword') continue;
    for (const { id } of keywordsNamed(snapshot).get(nameOf(change)) ?? [])
      given.set(id, change.kind === 'remove keyword' ? 'removed' : 'live');
  }
  return given;
}

const nameOf = (named: { campaign: string; adGroup: string; text: string; match: string }) =>
  JSON.stringify([named.campaign, named.adGroup, named.text, named.match]);

const keywordsNamed = derivedFrom(({ mirror, campaign, adGroup }: Snapshot) =>
  group(mirror.keywords, ({ adGroupId, text, match }) => {
    const of = adGroup.get(adGroupId);
    const within = (of && campaign.get(of.campaignId)?.name) ?? '';
    return nameOf({ campaign: within, adGroup: of?.name ?? '', text, match });
  }),
);

function weighGroup(
  ids: readonly string[],
  keyword: ReadonlyMap<string, Standing>,
  cvr: number | null,
): FoundGroup {
  const contenders = ids.map((id): Contender => {
    const { clicks, costMicros, conversions } = keyword.get(id)!.figures;
    // Of equals the one that was known first stays: ranking keeps the order in which they came.
    return { id, createdAt: '', clicks, costMicros, conversions };
  });
  const ranked = rankSurvivors(contenders, cvr);
  // What does not run can not be the one that stays while another one does.
  const runs = (id: string) => keyword.get(id)!.status === 'live';
  const expected = [...ranked.filter(({ id }) => runs(id)), ...ranked.filter(({ id }) => !runs(id))];
  const isSame = expected[0]!.id === ranked[0]!.id;
  return {
    keywords: expected.map(({ id }) => keyword.get(id)!),
    expected,
    sure: isSame ? certaintyOfSurvivor(contenders, cvr) : 0,
  };
}
