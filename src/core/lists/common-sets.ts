import type { Change } from '../changes';
import {
  compileGate,
  covers,
  placeKey,
  type AccountShape,
  type Gate,
  type NegativeText,
  type Place,
} from '../gate';
import { normalise } from '../text';

/** Negatives that stand one by one in each of several campaigns, and could be a list that hangs on them. */
export type CommonSet = {
  entries: NegativeText[];
  /** ids, in the account's order */
  campaignIds: string[];
  /** entries that stand today, less the entries and hangings of the list */
  saves: number;
};

/** Sets of campaigns whose pairs are tried for what they have in common. */
const MOST_PAIRED = 60;

/**
 * The largest sets of negatives that the same campaigns have in common (rules 3.1), each found in what the ones before
 * leave, the one that saves most first. Only what stands on campaigns counts, not on ad groups.
 * @param options.most how many sets at most
 * @example findCommonSets({ campaigns: [{ id: 'c1', adGroups: [] }, { id: 'c2', adGroups: [] }], lists: [], negatives: ['c1', 'c2'].flatMap((id) => ['free', 'jobs', 'meme'].map((text) => ({ id: text + id, text, match: 'broad', place: { kind: 'campaign', id } }))) }, { most: 9 })[0]?.saves // 1
 */
export function findCommonSets(account: AccountShape, { most }: { most: number }): CommonSet[] {
  const order = new Map(account.campaigns.map(({ id }, c) => [id, c]));
  const items = collectItems(account, order);
  const sets: CommonSet[] = [];
  while (sets.length < most) {
    const best = bestSet(groupBySet(items));
    if (!best) break;
    const taken = items.filter((item) => holdsAll(item.on, best.on));
    for (const item of taken) for (const c of best.on) item.on.delete(c);
    sets.push({
      entries: taken.map(({ text, match }) => ({ text, match })),
      campaignIds: [...best.on].sort((a, b) => a - b).map((c) => account.campaigns[c]!.id),
      saves: best.saves,
    });
  }
  return sets;
}

/** A text and match type, and the campaigns (by their number) on which it stands by itself. */
type Item = NegativeText & { on: Set<number> };

function collectItems({ negatives }: AccountShape, order: ReadonlyMap<string, number>): Item[] {
  const items = new Map<string, Item>();
  for (const { text, match, place } of negatives) {
    const campaign = place.kind === 'campaign' ? order.get(place.id ?? '') : undefined;
    if (campaign === undefined) continue;
    const key = `${match} ${normalise(text)}`;
    let item = items.get(key);
    if (!item) items.set(key, (item = { text: normalise(text), match, on: new Set() }));
    item.on.add(campaign);
  }
  return [...items.values()].filter(({ on }) => on.size > 1);
}

/** The sets of campaigns that occur, and how many items stand on exactly these. */
type Grouped = { on: ReadonlySet<number>; items: number }[];

function groupBySet(items: readonly Item[]): Grouped {
  const groups = new Map<string, { on: ReadonlySet<number>; items: number }>();
  for (const { on } of items) {
    if (on.size < 2) continue;
    const key = [...on].sort((a, b) => a - b).join();
    const known = groups.get(key);
    if (known) known.items += 1;
    else groups.set(key, { on, items: 1 });
  }
  return [...groups.values()].sort((a, b) => b.items * b.on.size - a.items * a.on.size);
}

function bestSet(groups: Grouped): { on: ReadonlySet<number>; saves: number } | undefined {
  let best: { on: ReadonlySet<number>; saves: number } | undefined;
  const tried = new Set<string>();
  const attempt = (on: ReadonlySet<number>) => {
    const key = [...on].sort((a, b) => a - b).join();
    if (on.size < 2 || tried.has(key)) return;
    tried.add(key);
    const entries = groups.reduce((sum, group) => sum + (holdsAll(group.on, on) ? group.items : 0), 0);
    const saves = entries * on.size - entries - on.size;
    if (entries > 1 && saves > (best?.saves ?? 0)) best = { on: new Set(on), saves };
  };
  for (const { on } of groups) attempt(on);
  const largest = groups.slice(0, MOST_PAIRED);
  for (const [i, a] of largest.entries())
    for (const b of largest.slice(i + 1)) attempt(new Set([...a.on].filter((c) => b.on.has(c))));
  return best;
}

function holdsAll(all: ReadonlySet<number>, those: ReadonlySet<number>): boolean {
  if (those.size > all.size) return false;
  for (const one of those) if (!all.has(one)) return false;
  return true;
}

/**
 * The changes that make a list of negatives, hang it, and take the single ones away that it stands for. The list comes
 * first, so that at no moment less is stopped than before.
 * @param from where the single ones stand: the campaigns of a common set, or the account
 * @example gatherIntoList({ listId: 'new:1', name: 'Jobs' }, [{ text: 'jobs', match: 'broad' }], [{ kind: 'account', id: null }]).map((change) => change.kind) // ['make list', 'add negative', 'hang list', 'remove negative']
 */
export function gatherIntoList(
  list: { listId: string; name: string },
  entries: readonly NegativeText[],
  from: readonly Place[],
): Change[] {
  const { listId, name } = list;
  const place: Place = { kind: 'list', id: listId };
  return [
    { kind: 'make list', listId, name },
    ...entries.map(({ text, match }) => ({ kind: 'add negative' as const, text, match, place })),
    ...from.map(({ id }) => ({ kind: 'hang list' as const, listId, campaignId: id })),
    ...from.flatMap((at) =>
      entries.map(({ text, match }) => ({ kind: 'remove negative' as const, text, match, place: at })),
    ),
  ];
}

/** An ad group in which one of two accounts stops queries that the other may let through. */
export type Unlike = { adGroupId: string; negative: NegativeText; side: 'before' | 'after' };

/**
 * Proves that two states of an account answer every possible query alike, by comparing what is in force in each ad group:
 * each negative must be in force on the other side too, or one that covers it (rules 3): then whatever is stopped on one
 * side is stopped on the other.
 * @returns the first negative that is not; undefined where all gates answer alike
 * @example findUnlike(account, { ...account, negatives: [] })?.negative // { text: 'free', match: 'broad' }
 */
export function findUnlike(before: AccountShape, after: AccountShape): Unlike | undefined {
  const [was, is] = [inForceOf(before), inForceOf(after)];
  const [coveredAfter, coveredBefore] = [coversIn(after), coversIn(before)];
  for (const { id: campaignId, adGroups } of before.campaigns) {
    for (const { id: adGroupId } of adGroups) {
      const [of, on] = [was(campaignId, adGroupId), is(campaignId, adGroupId)];
      for (const [key, negative] of of)
        if (!on.has(key) && !coveredAfter(key, negative, on)) return { adGroupId, negative, side: 'before' };
      for (const [key, negative] of on)
        if (!of.has(key) && !coveredBefore(key, negative, of)) return { adGroupId, negative, side: 'after' };
    }
  }
  return undefined;
}

const keyOf = ({ text, match }: NegativeText) => `${match} ${normalise(text)}`;

/** Whether one of the negatives in force covers another (rules 3); which ones could is found once for each. */
function coversIn({ negatives }: AccountShape) {
  const distinct = [...new Map(negatives.map((n) => [keyOf(n), n])).values()];
  let gate: Gate | undefined;
  const coverers = new Map<string, string[]>();
  return (key: string, negative: NegativeText, inForce: ReadonlyMap<string, NegativeText>): boolean => {
    let of = coverers.get(key);
    if (!of) {
      gate ??= compileGate(distinct);
      // What covers a negative stops its text.
      of = gate
        .stoppers(negative.text)
        .map((at) => distinct[at]!)
        .filter((one) => covers(one, negative))
        .map(keyOf);
      coverers.set(key, of);
    }
    return of.some((one) => inForce.has(one));
  };
}

function inForceOf({ lists, negatives }: AccountShape) {
  const at = new Map<string, Map<string, NegativeText>>();
  for (const { text, match, place } of negatives) {
    const key = placeKey(place);
    const there = at.get(key) ?? new Map<string, NegativeText>();
    at.set(key, there.set(`${match} ${normalise(text)}`, { text, match }));
  }
  const onCampaign = new Map<string, Map<string, NegativeText>>();
  const placesOn = (campaignId: string): Place[] => [
    { kind: 'account', id: null },
    { kind: 'campaign', id: campaignId },
    ...lists
      .filter(({ hungOn }) => hungOn === 'account' || hungOn.includes(campaignId))
      .map(({ id }) => ({ kind: 'list' as const, id })),
  ];
  const joined = (places: readonly Place[]) =>
    new Map(places.flatMap((place) => [...(at.get(placeKey(place)) ?? [])]));
  return (campaignId: string, adGroupId: string): ReadonlyMap<string, NegativeText> => {
    let shared = onCampaign.get(campaignId);
    if (!shared) onCampaign.set(campaignId, (shared = joined(placesOn(campaignId))));
    const own = at.get(placeKey({ kind: 'adGroup', id: adGroupId }));
    return own ? new Map([...shared, ...own]) : shared;
  };
}
