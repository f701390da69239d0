import { sum } from 'd3-array';
import { orderBy } from '../../columns';
import type { NegativeText } from '../../gate';
import { memoised } from '../../memoised';
import { matchTexts } from '../../mining';
import { gatherFacts } from '../gather-facts';
import { textsIn, type Texts } from '../texts-in-facts';
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
  const held = lists.map(({ entries }) => textsHeldBy(entries, texts));
  const most = sum(held, (some) => sum(some, (t) => texts.end[t]! - texts.begin[t]!));
  const [pair, day, source] = [new Int32Array(most), new Int32Array(most), new Int32Array(most)];
  const unhung: UnhungList[] = [];
  let count = 0;
  lists.forEach(({ mayHangOn }, list) => {
    const pairOn = new Map<number | undefined, number>([[undefined, NONE]]);
    for (const t of held[list]!) {
      const isOpenIn = isStopped && openIn(textOf(facts.termId[texts.begin[t]!]!)!, isStopped);
      for (let f = texts.begin[t]!; f < texts.end[t]!; f++) {
        const campaignId = campaignOf(facts.adGroupId[f]!);
        let on = pairOn.get(campaignId);
        if (on === undefined) {
          on = mayHangOn(campaignId!) ? unhung.push({ list, campaignId: campaignId! }) - 1 : NONE;
          pairOn.set(campaignId, on);
        }
        if (on === NONE || isOpenIn?.(facts.adGroupId[f]!) === false) continue;
        pair[count] = on;
        day[count] = facts.day[f]!;
        source[count++] = f;
      }
    }
  });
  const order = orderBy(pair.subarray(0, count), day.subarray(0, count));
  const inOrder = (column: Int32Array) => {
    const ordered = new Int32Array(count);
    for (let i = 0; i < count; i++) ordered[i] = column[order[i]!]!;
    return ordered;
  };
  const sources = inOrder(source);
  const gathered = gatherFacts(facts, inOrder(pair), sources);
  const firstDay = firstDays(facts, campaignOf);
  return {
    facts: { ...gathered, begunOn: (id) => firstDay.get(unhung[id]!.campaignId)! },
    ...{ unhung, source: sources },
  };
}

/** No list hangs there, or it hangs there already. */
const NONE = -1;

/** The texts that some negatives stop, ascending. */
function textsHeldBy(entries: readonly NegativeText[], { count, table }: Texts): number[] {
  const isHeld = new Uint8Array(count);
  for (const entry of entries) for (const t of matchTexts(table, entry)) isHeld[t] = 1;
  const held: number[] = [];
  for (let t = isHeld.indexOf(1); t >= 0; t = isHeld.indexOf(1, t + 1)) held.push(t);
  return held;
}

/** Whether nothing stops a text in an ad group, each asked once. */
const openIn = (text: string, isStopped: NonNullable<ListsGround['isStopped']>) =>
  memoised(String, (adGroupId: number) => !isStopped(text, adGroupId));

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
