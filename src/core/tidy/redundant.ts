import { compileGate, covers, placeKey, type AccountShape, type PlacedNegative, type Place } from '../gate';
import { normalise } from '../text';
import { compileReach, type Reach } from './reach';

/** A negative that another one makes needless, by which, and whether that holds whatever ad groups are added. */
export type Redundancy = { id: string; coveredBy: string; lasting: boolean };

/**
 * The negatives that can all be removed together without any gate answering differently (rules 3). Of twins one stays:
 * the one in the widest place, then the older, then the smaller id. `coveredBy` always stays.
 * @returns in the order in which the negatives were given
 * @example findRedundant({ ...account, negatives: [...account.negatives, { id: 'n2', text: 'free hive', match: 'exact', place: { kind: 'adGroup', id: 'g1' } }] }) // [{ id: 'n2', coveredBy: 'n1', lasting: true }]
 */
export function findRedundant(account: AccountShape): Redundancy[] {
  const reach = compileReach(account);
  const coverers = findCoverers(file(account.negatives), reach);
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

/** Negatives that say the same in the same match type, by the number of their place. */
type SameText = { text: string; match: PlacedNegative['match']; places: Map<number, PlacedNegative[]> };

/** Each negative with its text and the number of its place; the places by number. */
type Filed = {
  texts: SameText[];
  places: Place[];
  of: Map<PlacedNegative, { text: SameText; place: number }>;
};

function file(negatives: readonly PlacedNegative[]): Filed {
  const texts = new Map<string, SameText>();
  const numbers = new Map<string, number>();
  const places: Place[] = [];
  const of: Filed['of'] = new Map();
  for (const negative of negatives) {
    const text = normalise(negative.text);
    const key = `${negative.match} ${text}`;
    let same = texts.get(key);
    if (!same) texts.set(key, (same = { text, match: negative.match, places: new Map() }));
    let place = numbers.get(placeKey(negative.place));
    if (place === undefined) {
      place = places.push(negative.place) - 1;
      numbers.set(placeKey(negative.place), place);
    }
    const there = same.places.get(place);
    if (there) there.push(negative);
    else same.places.set(place, [negative]);
    of.set(negative, { text: same, place });
  }
  return { texts: [...texts.values()], places, of };
}

/**
 * For each negative, the others that cover it and reach as far. What covers a text also stops it as a query (rules 3
 * against 2.1), so the gate finds the few that are worth a look.
 */
function findCoverers(
  { texts, places, of }: Filed,
  reach: Reach,
): (negative: PlacedNegative) => PlacedNegative[] {
  const gate = compileGate(texts);
  const covering = new Map<SameText, SameText[]>();
  const coveringOf = (own: SameText) => {
    let found = covering.get(own);
    if (!found) {
      found = gate.stoppers(own.text).flatMap((at) => (covers(texts[at]!, own) ? [texts[at]!] : []));
      covering.set(own, found);
    }
    return found;
  };
  const farEnough = placesAsFarAs(places, reach);
  const known = new Map<PlacedNegative, PlacedNegative[]>();
  return (negative) => {
    let others = known.get(negative);
    if (others) return others;
    others = [];
    const { text, place } = of.get(negative)!;
    const far = farEnough(place);
    for (const group of coveringOf(text)) {
      // A text sits in few places, or few places reach as far: the fewer are gone through.
      for (const at of group.places.size < far.size ? group.places.keys() : far) {
        if (!far.has(at)) continue;
        for (const other of group.places.get(at) ?? []) if (other !== negative) others.push(other);
      }
    }
    known.set(negative, others);
    return others;
  };
}

/** For the number of a place, those of the places that reach at least as far. */
function placesAsFarAs(places: readonly Place[], reach: Reach): (place: number) => ReadonlySet<number> {
  const reaching = new Map<string, number[]>();
  places.forEach((place, number) => {
    for (const adGroup of reach.adGroupsOf(place)) {
      const there = reaching.get(adGroup);
      if (there) there.push(number);
      else reaching.set(adGroup, [number]);
    }
  });
  const known = new Map<number, ReadonlySet<number>>();
  return (place) => {
    let far = known.get(place);
    if (!far) {
      // Whatever reaches as far reaches its first ad group; without any, there is only the place itself.
      const candidates = reaching.get(reach.adGroupsOf(places[place]!)[0] ?? '') ?? [place];
      far = new Set(candidates.filter((other) => reach.contains(places[other]!, places[place]!)));
      known.set(place, far);
    }
    return far;
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
