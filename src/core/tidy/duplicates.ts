import { group as groupBy, sum } from 'd3-array';
import type { MatchType } from '../gate';
import { memoised } from '../memoised';
import { tellProgress, type OnProgress } from '../progress';
import { stemOf, normalise } from '../text';

export type Status = 'live' | 'paused' | 'ended' | 'removed';

/** What decides which keywords compete. An empty array is no restriction. */
export type DuplicatesAccount = {
  /** YYYY-MM-DD in the account's time zone */
  today: string;
  campaigns: readonly {
    id: string;
    status: Status;
    endDate: string | null;
    location: readonly string[];
    audience: readonly string[];
    device: readonly string[];
    language: readonly string[];
    adGroups: readonly {
      id: string;
      status: Status;
      keywords: readonly { id: string; text: string; match: MatchType; status: Status }[];
    }[];
  }[];
};

export type DuplicatesOptions = {
  /** 'any form': in any order, and folded as rules 7.6 fold them */
  wordOrder: 'same' | 'any' | 'any form';
  matchType: 'same' | 'any';
  reach: 'adGroup' | 'campaign' | 'all';
};

type Campaign = DuplicatesAccount['campaigns'][number];
export type Segment = 'location' | 'audience' | 'device' | 'language';
const SEGMENTS: readonly Segment[] = ['location', 'audience', 'device', 'language'];

/** Keywords that are the same, but of campaigns that keep them apart. */
export type DeliberateSplit = {
  /** keyword ids; two parts never meet, and within one keywords compete */
  parts: string[][];
  /** what keeps the first two parts apart */
  by: Segment[];
};

export type Duplicates = {
  /** keyword ids, each group what competing pairs connect */
  groups: string[][];
  splits: DeliberateSplit[];
  /** pairs of keywords that are the same, whose campaigns never meet */
  deliberatePairs: number;
};

export type DuplicateFinder = {
  find(options: DuplicatesOptions): Duplicates;
  /** keywords without a word: nothing can be said of them (rules 1.2) */
  wordless: string[];
};

/**
 * Keywords that compete with each other (rules 5), by as many questions as there are: texts are normalised once.
 * @param statuses effective statuses looked at; only live ones unless given
 * @param onProgress is told how many keywords are read
 * @returns groups and splits in the order in which the keywords were given
 * @example compileDuplicates(keywordsOfTwoCampaigns).find({ wordOrder: 'any', matchType: 'same', reach: 'all' }).groups // [['k1', 'k2']]
 */
export function compileDuplicates(
  { today, campaigns }: DuplicatesAccount,
  statuses: readonly Status[] = ['live'],
  onProgress?: OnProgress,
): DuplicateFinder {
  const looked = BEST_FIRST.map((status) => statuses.includes(status));
  const wordless: string[] = [];
  // Keywords that can be told apart are most of them, so nothing is made for each: texts[k] is said by keywords[k] in adGroups[adGroupOf[k]].
  const keywords: { id: string; match: MatchType }[] = [];
  const texts: string[] = [];
  const adGroups: { id: string; campaign: number }[] = [];
  const adGroupOf: number[] = [];
  const total = sum(campaigns, ({ adGroups }) => sum(adGroups, (adGroup) => adGroup.keywords.length));
  let read = 0;
  campaigns.forEach((campaign, c) => {
    const ended = campaign.endDate !== null && today > campaign.endDate ? 'ended' : 'live';
    for (const adGroup of campaign.adGroups) {
      const around = BEST_FIRST.indexOf(effectiveStatus([campaign.status, ended, adGroup.status]));
      adGroups.push({ id: adGroup.id, campaign: c });
      for (const keyword of adGroup.keywords) {
        tellProgress(onProgress, read++, total);
        if (!looked[Math.max(around, RANKS[keyword.status])]) continue;
        const said = normalise(keyword.text);
        if (said === '') {
          wordless.push(keyword.id);
          continue;
        }
        texts.push(said);
        keywords.push(keyword);
        adGroupOf.push(adGroups.length - 1);
      }
    }
  });
  tellProgress(onProgress, read, total);
  const overlap = overlapsOf(campaigns);
  const alikeBy = memoised(
    (wordOrder: DuplicatesOptions['wordOrder']) => wordOrder,
    (wordOrder) =>
      findAlike(texts.map(FORMS[wordOrder])).map((alike) =>
        alike.map((k): Looked => {
          const { id: adGroupId, campaign } = adGroups[adGroupOf[k]!]!;
          return { id: keywords[k]!.id, match: keywords[k]!.match, at: k, adGroupId, campaign };
        }),
      ),
  );
  return {
    wordless,
    find({ wordOrder, matchType, reach }) {
      const found: Duplicates = { groups: [], splits: [], deliberatePairs: 0 };
      // An id that had a line break would only part what belongs together in another place.
      const keyOf = ({ match, adGroupId, campaign }: Looked) =>
        `${matchType === 'same' ? match : ''}\n${{ adGroup: adGroupId, campaign, all: '' }[reach]}`;
      const buckets = alikeBy(wordOrder)
        .flatMap((alike) => [...groupBy(alike, keyOf).values()])
        .filter((bucket) => bucket.length > 1)
        .sort(([a], [b]) => a!.at - b!.at);
      for (const bucket of buckets) part(bucket, overlap, found);
      return found;
    },
  };
}

type Looked = {
  id: string;
  match: MatchType;
  /** its index among those that are looked at */
  at: number;
  adGroupId: string;
  /** the index of it */
  campaign: number;
};

/** What of a normalised text is compared. */
const FORMS: Readonly<Record<DuplicatesOptions['wordOrder'], (text: string) => string>> = {
  same: (text) => text,
  any: (text) => text.split(' ').sort().join(' '),
  'any form': (text) => text.split(' ').map(stemOf).sort().join(' '),
};

/** Indexes of texts that are the same, for each text that there is more than once. Most are there once, and are put into one set only. */
function findAlike(texts: readonly string[]): number[][] {
  const seen = new Set<string>();
  const again = new Map<string, number[]>();
  for (const text of texts) {
    const before = seen.size;
    seen.add(text);
    if (seen.size === before) again.set(text, []);
  }
  texts.forEach((text, k) => again.get(text)?.push(k));
  return [...again.values()];
}

/** Parts keywords that are the same by whether their campaigns meet. Campaigns are compared, not keywords. */
function part(alike: readonly Looked[], overlap: Overlap, found: Duplicates): void {
  const ofCampaign = groupBy(alike, ({ campaign }) => campaign);
  const campaigns = [...ofCampaign.keys()];
  const connected = new Union(campaigns.length);
  for (let a = 0; a < campaigns.length; a++) {
    for (let b = a + 1; b < campaigns.length; b++) {
      if (overlap(campaigns[a]!, campaigns[b]!)) connected.join(a, b);
      else
        found.deliberatePairs +=
          ofCampaign.get(campaigns[a]!)!.length * ofCampaign.get(campaigns[b]!)!.length;
    }
  }
  const partOf = new Map(connected.groups().flatMap((of, p) => of.map((i) => [campaigns[i]!, p])));
  const parts = [...groupBy(alike, ({ campaign }) => partOf.get(campaign)!).values()];
  for (const one of parts) if (one.length > 1) found.groups.push(one.map(({ id }) => id));
  if (parts.length > 1)
    found.splits.push({
      parts: parts.map((one) => one.map(({ id }) => id)),
      by: overlap.keptApartBy(parts[0]![0]!.campaign, parts[1]![0]!.campaign),
    });
}

const BEST_FIRST: readonly Status[] = ['live', 'paused', 'ended', 'removed'];
const RANKS: Readonly<Record<Status, number>> = { live: 0, paused: 1, ended: 2, removed: 3 };

/** The worst of several statuses (rules 5.1). @example effectiveStatus(['live', 'paused']) // 'paused' */
export function effectiveStatus(statuses: readonly Status[]): Status {
  return BEST_FIRST[Math.max(...statuses.map((status) => BEST_FIRST.indexOf(status)))]!;
}

type Overlap = ((a: number, b: number) => boolean) & { keptApartBy(a: number, b: number): Segment[] };

/** Whether two campaigns can meet (rules 5.3), by their indexes; asked once for each pair. */
function overlapsOf(campaigns: readonly Campaign[]): Overlap {
  const known = new Int8Array(campaigns.length ** 2);
  const overlap = (a: number, b: number): boolean => {
    const at = a * campaigns.length + b;
    known[at] ||= campaignsOverlap(campaigns[a]!, campaigns[b]!) ? 1 : -1;
    return known[at] > 0;
  };
  return Object.assign(overlap, {
    keptApartBy: (a: number, b: number) =>
      SEGMENTS.filter((segment) => !meet(segment, campaigns[a]!, campaigns[b]!)),
  });
}

const same = (a: string, b: string) => a === b;
const holdsPart = (a: string, b: string) => a === b || a.startsWith(`${b}-`) || b.startsWith(`${a}-`);

/**
 * Rules 5.3: in each dimension one has no restriction, or their sets share something; a location holds its parts.
 * @example campaignsOverlap({ location: ['GB'], audience: [], device: [], language: [] }, { location: ['GB-N'], audience: [], device: [], language: [] }) // true
 */
export function campaignsOverlap(a: Pick<Campaign, Segment>, b: Pick<Campaign, Segment>): boolean {
  return SEGMENTS.every((segment) => meet(segment, a, b));
}

function meet(segment: Segment, a: Pick<Campaign, Segment>, b: Pick<Campaign, Segment>): boolean {
  const [ones, others] = [a[segment], b[segment]];
  const fits = segment === 'location' ? holdsPart : same;
  return ones.length === 0 || others.length === 0 || ones.some((x) => others.some((y) => fits(x, y)));
}

/** Disjoint sets of 0 … size − 1 (Tarjan 1975, JACM 22:215). */
class Union {
  readonly #parent: number[];

  constructor(size: number) {
    this.#parent = Array.from({ length: size }, (_, i) => i);
  }

  join(a: number, b: number): void {
    const [rootA, rootB] = [this.#root(a), this.#root(b)];
    this.#parent[Math.max(rootA, rootB)] = Math.min(rootA, rootB);
  }

  groups(): number[][] {
    const groups = new Map<number, number[]>();
    this.#parent.forEach((_, i) => {
      const root = this.#root(i);
      const group = groups.get(root);
      if (group) group.push(i);
      else groups.set(root, [i]);
    });
    return [...groups.values()];
  }

  #root(i: number): number {
    while (this.#parent[i] !== i) i = this.#parent[i] = this.#parent[this.#parent[i]!]!;
    return i;
  }
}
