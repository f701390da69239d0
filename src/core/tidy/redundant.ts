import { compileGate, covers, placeKey, type AccountShape, type PlacedNegative, type Place } from '../gate';
import { normalise } from '../text';
import { compileReach, type Reach } from './reach';

/** A negative that another one makes needless, by which, and whether that holds whatever ad groups are added. */
export type Redundancy = { id: string; coveredBy: string; lasting: boolean };

/**
 * The negatives that can all be removed together without any gate answering differently (rules 3). Of twins one stays:
 * the one in the widest place, then the older, then the smaller id. `coveredBy` always stays.
 * @returns in the order in which the negatives were given
 * @example findRedundant({ campaigns: [], lists: [], negatives: [broad('free'), phrase('free hive')] }) // both on the account: the second
 */
export function findRedundant(account: AccountShape): Redundancy[] {
  const reach = compileReach(account);
  const texts = groupByText(account.negatives);
  const coverers = findCoverers(texts, reach);
  const stays = (negative: PlacedNegative) =>
    coverers(negative).every((other) => isTwin(negative, other, reach) && staysBefore(negative, other));
  const answers = new Map<PlacedNegative, boolean>();
  const staysKnown = (negative: PlacedNegative) => {
    let answer = answers.get(negative);
    if (answer === undefined) answers.set(negative, (answer = stays(negative)));
    return answer;
  };
  return account.negatives.flatMap((negative): Redundancy[] => {
    if (staysKnown(negative)) return [];
    const lasts = (other: PlacedNegative) => reach.containsForGood(other.place, negative.place);
    const by = coverers(negative)
      .filter(staysKnown)
      .reduce((best, other) => {
        if (lasts(other) !== lasts(best)) return lasts(other) ? other : best;
        return staysBefore(other, best) ? other : best;
      });
    return [{ id: negative.id, coveredBy: by.id, lasting: lasts(by) }];
  });
}

/** Negatives that say the same in the same match type, by place. */
type SameText = {
  text: string;
  match: PlacedNegative['match'];
  places: Map<string, PlacedNegative[]>;
};

function groupByText(negatives: readonly PlacedNegative[]): SameText[] {
  const groups = new Map<string, SameText>();
  for (const negative of negatives) {
    const text = normalise(negative.text);
    const key = `${negative.match} ${text}`;
    let group = groups.get(key);
    if (!group) groups.set(key, (group = { text, match: negative.match, places: new Map() }));
    const place = placeKey(negative.place);
    const there = group.places.get(place);
    if (there) there.push(negative);
    else group.places.set(place, [negative]);
  }
  return [...groups.values()];
}

/**
 * For each negative, the others that cover it and reach as far. What covers a text also stops it as a query (rules 3
 * against 2.1), so the gate finds the few that are worth a look.
 */
function findCoverers(
  texts: readonly SameText[],
  reach: Reach,
): (negative: PlacedNegative) => PlacedNegative[] {
  const gate = compileGate(texts);
  const textOf = new Map(texts.map((group) => [`${group.match} ${group.text}`, group]));
  const covering = new Map<SameText, SameText[]>();
  const known = new Map<PlacedNegative, PlacedNegative[]>();
  const places = new Map(
    texts.flatMap((group) => [...group.places].map(([key, [first]]) => [key, first!.place] as const)),
  );
  const reaching = new Map<string, string[]>();
  for (const [key, place] of places) {
    for (const adGroup of reach.adGroupsOf(place)) {
      const there = reaching.get(adGroup);
      if (there) there.push(key);
      else reaching.set(adGroup, [key]);
    }
  }
  const asFarAs = new Map<string, Set<string>>();
  const placesAsFarAs = (inner: Place) => {
    const key = placeKey(inner);
    let keys = asFarAs.get(key);
    if (!keys) {
      // Whatever reaches as far reaches its first ad group; without any, there is only the place itself.
      const candidates = reaching.get(reach.adGroupsOf(inner)[0] ?? '') ?? [key];
      keys = new Set(candidates.filter((outer) => reach.contains(places.get(outer)!, inner)));
      asFarAs.set(key, keys);
    }
    return keys;
  };
  return (negative) => {
    const found = known.get(negative);
    if (found) return found;
    const own = textOf.get(`${negative.match} ${normalise(negative.text)}`)!;
    let groups = covering.get(own);
    if (!groups) {
      groups = gate
        .stoppers(own.text)
        .flatMap((index) => (covers(texts[index]!, own) ? [texts[index]!] : []));
      covering.set(own, groups);
    }
    const others: PlacedNegative[] = [];
    const farEnough = placesAsFarAs(negative.place);
    for (const group of groups) {
      // A text sits in few places, or few places reach as far: the fewer are gone through.
      const few = group.places.size < farEnough.size ? group.places.keys() : farEnough;
      for (const key of few) {
        if (!farEnough.has(key)) continue;
        for (const other of group.places.get(key) ?? []) if (other !== negative) others.push(other);
      }
    }
    known.set(negative, others);
    return others;
  };
}

/** Whether what covers a negative is covered by it in turn, and in force in the same ad groups. */
function isTwin(negative: PlacedNegative, coverer: PlacedNegative, reach: Reach): boolean {
  return covers(negative, coverer) && reach.contains(negative.place, coverer.place);
}

const WIDEST_FIRST: readonly Place['kind'][] = ['account', 'list', 'campaign', 'adGroup'];

/** Which of two twins stays: the wider place, the older, the smaller id. */
function staysBefore(a: PlacedNegative, b: PlacedNegative): boolean {
  const width = WIDEST_FIRST.indexOf(a.place.kind) - WIDEST_FIRST.indexOf(b.place.kind);
  if (width !== 0) return width < 0;
  const [ageA, ageB] = [a.createdAt ?? '', b.createdAt ?? ''];
  if (ageA !== ageB) return ageA < ageB;
  return a.id < b.id;
}
