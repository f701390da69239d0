import { orderBy } from '../../columns';
import type { NegativeText } from '../../gate';
import { memoised } from '../../memoised';
import { matchTexts } from '../../mining';
import { gatherFacts } from '../gather-facts';
import { textsIn } from '../texts-in-facts';
import type { TermFacts } from '../trial';

/** A shared list, as rules see it. */
export type RuledList = {
  entries: readonly NegativeText[];
  /** whether it may be hung on a campaign, and does not hang there */
  mayHangOn(campaignId: number): boolean;
};

/** A list on a campaign where it does not hang: the place of the list among those that were given, and the id of the campaign. */
export type UnhungList = { list: number; campaignId: number };

/** What lists would stop where they do not hang. */
export type UnhungFacts = {
  /** `termId` is a place among `unhung`; the age counts from the first day of the campaign */
  facts: TermFacts;
  unhung: readonly UnhungList[];
  /** which of the facts that were given each one is: what two lists would stop stands twice */
  source: Int32Array;
};

type ListsGround = {
  /** the campaign of an ad group; undefined for one that is gone */
  campaignOf(adGroupId: number): number | undefined;
  /** what a query says; null for what is none */
  textOf(termId: number): string | null;
  /** what is stopped in an ad group by something else is left out there; none is if not given */
  isStopped?: (text: string, adGroupId: number) => boolean;
};

/**
 * What shared lists would stop in campaigns where they do not hang, as if it were the facts of one term each, by list, campaign and
 * day.
 * @example factsOfLists(threeDaysOfSixClicks, [{ entries: [{ text: 'hive', match: 'broad' }], mayHangOn: () => true }], { campaignOf: () => 7, textOf: () => 'bee hive' }).unhung // [{ list: 0, campaignId: 7 }]
 */
export function factsOfLists(
  facts: TermFacts,
  lists: readonly RuledList[],
  { campaignOf, textOf, isStopped }: ListsGround,
): UnhungFacts {
  const texts = textsIn(facts, textOf);
  const openIn = (text: string) => memoised(String, (adGroupId: number) => !isStopped?.(text, adGroupId));
  const unhung: UnhungList[] = [];
  const [pairs, sources] = [[] as number[], [] as number[]];
  lists.forEach(({ entries, mayHangOn }, list) => {
    const pairOn = new Map<number, number | null>(); // null where it hangs
    const place = (campaignId: number): number | null => {
      let pair = pairOn.get(campaignId);
      if (pair === undefined) {
        pair = mayHangOn(campaignId) ? unhung.push({ list, campaignId }) - 1 : null;
        pairOn.set(campaignId, pair);
      }
      return pair;
    };
    const isHeld = new Uint8Array(texts.count);
    for (const entry of entries) for (const t of matchTexts(texts.table, entry)) isHeld[t] = 1;
    for (let t = isHeld.indexOf(1); t >= 0; t = isHeld.indexOf(1, t + 1)) {
      const isOpenIn = openIn(textOf(facts.termId[texts.begin[t]!]!)!);
      for (let f = texts.begin[t]!; f < texts.end[t]!; f++) {
        const campaignId = campaignOf(facts.adGroupId[f]!);
        const pair = campaignId === undefined ? null : place(campaignId);
        if (pair === null || !isOpenIn(facts.adGroupId[f]!)) continue;
        pairs.push(pair);
        sources.push(f);
      }
    }
  });
  const pair = Int32Array.from(pairs);
  const order = orderBy(
    pair,
    Int32Array.from(sources, (f) => facts.day[f]!),
  );
  const source = Int32Array.from(order, (i) => sources[i]!);
  const gathered = gatherFacts(
    facts,
    Int32Array.from(order, (i) => pair[i]!),
    source,
  );
  const firstDay = firstDays(facts, campaignOf);
  return {
    facts: { ...gathered, begunOn: (id) => firstDay.get(unhung[id]!.campaignId)! },
    ...{ unhung, source },
  };
}

/** The first day of each campaign. */
function firstDays(
  { count, day, adGroupId }: TermFacts,
  campaignOf: (adGroupId: number) => number | undefined,
): ReadonlyMap<number, number> {
  const first = new Map<number, number>();
  for (let f = 0; f < count; f++) {
    const campaignId = campaignOf(adGroupId[f]!);
    if (campaignId !== undefined && !(first.get(campaignId)! <= day[f]!)) first.set(campaignId, day[f]!);
  }
  return first;
}
