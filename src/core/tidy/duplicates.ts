import type { MatchType } from '../gate';
import { words } from '../text';

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
  wordOrder: 'same' | 'any';
  matchType: 'same' | 'any';
  reach: 'adGroup' | 'campaign' | 'all';
  /** effective statuses looked at; only live ones unless given */
  statuses?: readonly Status[];
};

type Campaign = DuplicatesAccount['campaigns'][number];

/**
 * Keywords that compete with each other (rules 5).
 * @returns groups of keyword ids, each what competing pairs connect, and the pairs that are set aside as deliberate
 *   because their campaigns never meet; all in the order in which the keywords were given
 * @example findDuplicates(keywordsOfTwoCampaigns, { wordOrder: 'any', matchType: 'same', reach: 'all' }).groups // [['k1', 'k2']]
 */
export function findDuplicates(
  account: DuplicatesAccount,
  options: DuplicatesOptions,
): { groups: string[][]; deliberate: [string, string][] } {
  const overlap = overlaps();
  const groups: string[][] = [];
  const deliberate: [string, string][] = [];
  for (const alike of bucketsOf(account, options)) {
    const connected = new Union(alike.length);
    for (let a = 0; a < alike.length; a++) {
      for (let b = a + 1; b < alike.length; b++) {
        if (overlap(alike[a]!.campaign, alike[b]!.campaign)) connected.join(a, b);
        else deliberate.push([alike[a]!.id, alike[b]!.id]);
      }
    }
    for (const group of connected.groups()) if (group.length > 1) groups.push(group.map((i) => alike[i]!.id));
  }
  return { groups, deliberate };
}

/** Keywords that the options take for the same, whatever their campaigns. */
function bucketsOf({ today, campaigns }: DuplicatesAccount, options: DuplicatesOptions) {
  const looked = new Set<Status>(options.statuses ?? ['live']);
  const buckets = new Map<string, { id: string; campaign: Campaign }[]>();
  for (const campaign of campaigns) {
    const ended = campaign.endDate !== null && today > campaign.endDate ? 'ended' : 'live';
    for (const adGroup of campaign.adGroups) {
      for (const keyword of adGroup.keywords) {
        if (!looked.has(effectiveStatus([campaign.status, ended, adGroup.status, keyword.status]))) continue;
        const said = words(keyword.text);
        if (said.length === 0) continue; // no keyword at all (1.2)
        const text = options.wordOrder === 'any' ? said.sort() : said;
        const where = { adGroup: adGroup.id, campaign: campaign.id, all: '' }[options.reach];
        const key = JSON.stringify([where, options.matchType === 'same' ? keyword.match : '', ...text]);
        const bucket = buckets.get(key);
        if (bucket) bucket.push({ id: keyword.id, campaign });
        else buckets.set(key, [{ id: keyword.id, campaign }]);
      }
    }
  }
  return buckets.values();
}

const BEST_FIRST: readonly Status[] = ['live', 'paused', 'ended', 'removed'];

/** The worst of several statuses (rules 5.1). @example effectiveStatus(['live', 'paused']) // 'paused' */
export function effectiveStatus(statuses: readonly Status[]): Status {
  return BEST_FIRST[Math.max(...statuses.map((status) => BEST_FIRST.indexOf(status)))]!;
}

/** Whether two campaigns can meet (rules 5.3), asked once for each pair. */
function overlaps() {
  const known = new Map<Campaign, Map<Campaign, boolean>>();
  return (a: Campaign, b: Campaign): boolean => {
    if (a === b) return true;
    let ofA = known.get(a);
    if (!ofA) known.set(a, (ofA = new Map()));
    let answer = ofA.get(b);
    if (answer === undefined) ofA.set(b, (answer = campaignsOverlap(a, b)));
    return answer;
  };
}

const same = (a: string, b: string) => a === b;
const holdsPart = (a: string, b: string) => a === b || a.startsWith(`${b}-`) || b.startsWith(`${a}-`);

/**
 * Rules 5.3: in each dimension one has no restriction, or their sets share something; a location holds its parts.
 * @example campaignsOverlap({ location: ['GB'], audience: [], device: [], language: [] }, { location: ['GB-N'], audience: [], device: [], language: [] }) // true
 */
export function campaignsOverlap(
  a: Pick<Campaign, 'location' | 'audience' | 'device' | 'language'>,
  b: Pick<Campaign, 'location' | 'audience' | 'device' | 'language'>,
): boolean {
  const meet = (one: readonly string[], other: readonly string[], fits = same) =>
    one.length === 0 || other.length === 0 || one.some((x) => other.some((y) => fits(x, y)));
  return (
    meet(a.location, b.location, holdsPart) &&
    meet(a.audience, b.audience) &&
    meet(a.device, b.device) &&
    meet(a.language, b.language)
  );
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
