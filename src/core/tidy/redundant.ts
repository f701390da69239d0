import {
  compileGate,
  covers,
  coversWhatItStops,
  type AccountShape,
  type NegativeText,
  type PlacedNegative,
  type Place,
} from '../gate';
import { tellProgress, type OnProgress } from '../progress';
import { normalise } from '../text';
import { compileReach, type Reach } from './reach';

/** A negative that another one makes needless, by which, and whether that holds whatever ad groups are added. */
export type Redundancy = { id: string; coveredBy: string; lasting: boolean };

/**
 * The negatives that can all be removed together without any gate answering differently (rules 3). Of twins one stays:
 * the one in the widest place, then the older, then the smaller id. `coveredBy` always stays.
 * @param onProgress is told how many of the different texts are looked at
 * @returns in the order in which the negatives were given
 * @example findRedundant({ ...account, negatives: [...account.negatives, { id: 'n2', text: 'free hive', match: 'exact', place: { kind: 'adGroup', id: 'g1' } }] }) // [{ id: 'n2', coveredBy: 'n1', lasting: true }]
 */
export function findRedundant(account: AccountShape, onProgress?: OnProgress): Redundancy[] {
  const { negatives } = account;
  const reach = compileReach(account);
  const visitCoverers = compileCoverers(negatives, reach, onProgress);
  const stays = Uint8Array.from(negatives, (negative, n) =>
    visitCoverers(n, (other) => isOutlasted(negatives[other]!, negative, reach)) ? 1 : 0,
  );
  return negatives.flatMap((negative, n): Redundancy[] => {
    if (stays[n]) return [];
    const lasts = (other: PlacedNegative) => reach.containsForGood(other.place, negative.place);
    let by: PlacedNegative | undefined;
    visitCoverers(n, (at) => {
      const other = negatives[at]!;
      if (stays[at] && (!by || isBetterReason(other, by, lasts))) by = other;
      return true;
    });
    if (!by) throw new Error(`what covers a redundant negative must stay; got none for ${negative.id}`);
    return [{ id: negative.id, coveredBy: by.id, lasting: lasts(by) }];
  });
}

/** Whether a negative that is covered by another stays all the same: they are twins, and it comes first. */
function isOutlasted(coverer: PlacedNegative, negative: PlacedNegative, reach: Reach): boolean {
  return (
    staysBefore(negative, coverer) &&
    reach.contains(negative.place, coverer.place) &&
    covers(negative, coverer)
  );
}

/** One that holds for good is a better reason than one that holds today. */
function isBetterReason(
  other: PlacedNegative,
  best: PlacedNegative,
  lasts: (of: PlacedNegative) => boolean,
): boolean {
  return lasts(other) === lasts(best) ? staysBefore(other, best) : lasts(other);
}

/**
 * Calls with the index of each other negative that covers one and reaches as far, while it is told to go on.
 * @returns whether all were visited
 */
type VisitCoverers = (index: number, visit: (coverer: number) => boolean) => boolean;

/**
 * What covers a text also stops it as a query (rules 3 against 2.1), so the gate finds the few texts that are worth a
 * look; each is compared once, wherever it stands.
 */
function compileCoverers(
  negatives: readonly PlacedNegative[],
  reach: Reach,
  onProgress?: OnProgress,
): VisitCoverers {
  const filed = file(negatives);
  const { texts, places, textOf, placeOf } = filed;
  const gate = compileGate(texts);
  const farEnough = placesAsFarAs(places, reach);
  const covering = texts.map((own, text) => {
    tellProgress(onProgress, text, texts.length);
    return gate.stoppersOfTextOf(text).filter((at) => coversWhatItStops(texts[at]!, own));
  });
  tellProgress(onProgress, texts.length, texts.length);
  return (index, visit) => {
    const far = farEnough(placeOf[index]!);
    for (const text of covering[textOf[index]!]!) {
      // A text stands in few places, or few places reach as far: the fewer are gone through.
      if (texts[text]!.times <= far.size) {
        for (let at = filed.firstOf[text]!; at !== 0; at = filed.nextOf[at - 1]!)
          if (at - 1 !== index && far.has(placeOf[at - 1]!) && !visit(at - 1)) return false;
      } else {
        for (const place of far)
          for (let at = filed.firstAt(text, place); at !== 0; at = filed.nextAt[at - 1]!)
            if (at - 1 !== index && !visit(at - 1)) return false;
      }
    }
    return true;
  };
}

/**
 * Negatives by what they say and where they stand: negative n says texts[textOf[n]] in places[placeOf[n]]. Those that
 * say text t are firstOf[t], nextOf[firstOf[t] − 1] …; those that say it in place p are firstAt(t, p),
 * nextAt[firstAt(t, p) − 1] …: each one more than the index, 0 at the end.
 */
type Filed = {
  texts: (NegativeText & { isOneWord: boolean; times: number })[];
  places: Place[];
  textOf: Uint32Array;
  placeOf: Uint32Array;
  firstOf: number[];
  nextOf: Uint32Array;
  firstAt(text: number, place: number): number;
  nextAt: Uint32Array;
};

function file(negatives: readonly PlacedNegative[]): Filed {
  const column = () => new Uint32Array(negatives.length);
  const [textOf, placeOf, nextOf, nextAt] = [column(), column(), column(), column()];
  const texts: Filed['texts'] = [];
  const places: Place[] = [];
  const firstOf: number[] = [];
  const [numberText, numberPlace] = [numbering(), numbering()];
  negatives.forEach(({ text: raw, match, place }, n) => {
    const text = normalise(raw);
    textOf[n] = numberText(match, text);
    if (textOf[n] === texts.length) texts.push({ text, match, isOneWord: !text.includes(' '), times: 0 });
    placeOf[n] = numberPlace(place.kind, place.id ?? '');
    if (placeOf[n] === places.length) places.push(place);
  });
  const heads = new Map<number, number>();
  const keyOf = (text: number, place: number) => text * places.length + place;
  negatives.forEach((_, n) => {
    const text = textOf[n]!;
    const key = keyOf(text, placeOf[n]!);
    texts[text]!.times += 1;
    nextOf[n] = firstOf[text] ?? 0;
    nextAt[n] = heads.get(key) ?? 0;
    firstOf[text] = n + 1;
    heads.set(key, n + 1);
  });
  const firstAt = (text: number, place: number) => heads.get(keyOf(text, place)) ?? 0;
  return { texts, places, textOf, placeOf, firstOf, nextOf, firstAt, nextAt };
}

/** Numbers pairs of strings from 0, in the order in which they are first asked for. */
function numbering(): (kind: string, id: string) => number {
  const known = new Map<string, Map<string, number>>();
  let size = 0;
  return (kind, id) => {
    let ofKind = known.get(kind);
    if (!ofKind) known.set(kind, (ofKind = new Map()));
    let number = ofKind.get(id);
    if (number === undefined) ofKind.set(id, (number = size++));
    return number;
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

const WIDEST_FIRST: readonly Place['kind'][] = ['account', 'list', 'campaign', 'adGroup'];

/** Which of two twins stays: the wider place, the older, the smaller id. */
function staysBefore(a: PlacedNegative, b: PlacedNegative): boolean {
  const width = WIDEST_FIRST.indexOf(a.place.kind) - WIDEST_FIRST.indexOf(b.place.kind);
  if (width !== 0) return width < 0;
  const [ageA, ageB] = [a.createdAt ?? '', b.createdAt ?? ''];
  if (ageA !== ageB) return ageA < ageB;
  return a.id < b.id;
}
