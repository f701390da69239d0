import { group, sum } from 'd3';
import {
  daysBeforeForce,
  describePlace,
  placeKey,
  replaceNegatives,
  type Change,
  type PlacedNegative,
  type Place,
} from '@/core';
import type { SmallerLine, SmallerSetView, SmallerView } from '@/contracts/smaller';
import { derivedByKey, derivedFrom } from '../../../compute/derived';
import type { Snapshot } from '../../../compute/snapshot';
import { keyAt, kindAt } from '../../../compute/window-columns';
import { few } from '../../../compute/workbench';
import { Refusal, type Deps } from '../../deps';
import { shapeOf } from '../../../repositories/structure/structure';
import { openWorkbench, requireAccount, type Open } from '../../open-workbench';

/** Answers that are kept for a window: a place is looked at again when something about it changes. */
const MOST_KEPT = 400;

/**
 * Places whose negatives could be fewer and stop the same terms (rules 9.3), over all days that are kept, as the
 * tray leaves the account.
 */
export async function viewSmallerSets(deps: Deps, slug: string): Promise<SmallerView> {
  const open = await openAllDays(deps, slug);
  const places = placesOf(open);
  const lines = places.flatMap((held): SmallerLine[] => {
    const { place, fixed } = held;
    const { kept, added, removed, terms, idle } = replacementOf(open, held);
    const after = fixed.length + kept.length + added.length;
    const before = fixed.length + kept.length + removed.length;
    if (after >= before || terms === 0) return [];
    return [
      {
        ...{ key: placeKey(place), place, placeName: describePlace(place, open.names) },
        ...{ before, after, terms, idle, fixed: fixed.length },
        ...{ kept: kept.length, added: added.length, removed: removed.length },
      },
    ];
  });
  return {
    lines: lines.sort((a, b) => b.before - b.after - (a.before - a.after)),
    fixed: sum(places, ({ fixed }) => fixed.length),
  };
}

/** @throws Refusal when nothing can be smaller there any more */
export async function viewSmallerSet(
  deps: Deps,
  slug: string,
  asked: { place: Place['kind']; id: string },
): Promise<SmallerSetView> {
  const open = await openAllDays(deps, slug);
  const key = placeKey({ kind: asked.place, id: asked.place === 'account' ? null : asked.id });
  const found = placesOf(open).find(({ place }) => placeKey(place) === key);
  if (!found) throw new Refusal('These negatives are not there any more. Look again.', 404);
  const { place } = found;
  const { added, removed, opened, differs } = replacementOf(open, found);
  return {
    ...{ key, added: few(added), removed: few(removed), opened: few(opened) },
    ...{ noMore: few(differs.open), fromThenOn: few(differs.stopped) },
    changes: [
      ...added.map(({ text, match }): Change => ({ kind: 'add negative', text, match, place })),
      ...removed.map(({ text, match }): Change => ({ kind: 'remove negative', text, match, place })),
    ],
  };
}

async function openAllDays(deps: Deps, slug: string): Promise<Open> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const { dataDays } = open.snapshot;
  return dataDays ? openWorkbench(deps, open.account, dataDays) : open;
}

type Texts = Pick<PlacedNegative, 'text' | 'match'>[];
/** A place with its ad groups of the window, by their indexes, and the negatives that are known to have come while there were data. */
type Held = { place: Place; adGroups: number[]; standing: Texts; fixed: Texts };

/** Places with several negatives of their own. */
const placesOf = derivedFrom((open: Open): Held[] => {
  const { snapshot, draft } = open;
  const isKnown = knownIn(snapshot);
  const byPlace = group(draft.gate.shape().negatives, ({ place }) => placeKey(place));
  return [...byPlace.values()].flatMap((negatives): Held[] => {
    const { place } = negatives[0]!;
    const adGroups = snapshot.served.adGroups.flatMap((adGroup, g) =>
      draft.gate.isWithin(place, adGroup) ? g : [],
    );
    if (negatives.length < 2 || adGroups.length === 0) return [];
    const ids = adGroups.map((g) => snapshot.served.adGroups[g]!.id);
    const texts = (of: readonly PlacedNegative[]) => of.map(({ text, match }) => ({ text, match }));
    const [standing = [], fixed = []] = [true, false].map((known) =>
      negatives.filter((negative) => isKnown(negative, ids) === known),
    );
    return [{ place, adGroups, standing: texts(standing), fixed: texts(fixed) }];
  });
});

/**
 * Whether the data reach back before a negative came into force in some ad groups: what is stopped is not reported, so nobody
 * knows what older ones stop. What only the tray adds is not in force yet.
 */
function knownIn({ mirror, dataDays }: Snapshot): (negative: PlacedNegative, adGroups: string[]) => boolean {
  const nameOf = ({ text, match, place }: PlacedNegative) => `${placeKey(place)} ${match} ${text}`;
  const stood = new Map(mirror.negatives.map((negative) => [nameOf(negative), negative.id]));
  const before = daysBeforeForce(shapeOf(mirror), { days: 1, firstDay: dataDays?.from ?? '' });
  return (negative, adGroups) => {
    const id = stood.get(nameOf(negative));
    return id === undefined || adGroups.every((adGroup) => before(id, adGroup) !== null);
  };
}

function replacementOf({ snapshot, protectedOwn }: Open, { adGroups, standing, fixed }: Held) {
  return replacedIn(snapshot, { adGroups, standing, fixed, own: protectedOwn.map(({ text }) => text) });
}

type Asked = Omit<Held, 'place'> & { own: string[] };

const replacedIn = derivedByKey(
  (asked: Asked) => JSON.stringify(asked),
  (snapshot: Snapshot, { standing, fixed, adGroups, own }: Asked) => {
    const { terms, liveKeywords, converting } = snapshot;
    const within = new Set(adGroups.map((g) => snapshot.served.adGroups[g]!.id));
    const served = new Set(adGroups.flatMap((g) => termsOf(snapshot).get(g) ?? []));
    const keywords = liveKeywords.filter(({ adGroup }) => within.has(adGroup.id));
    return replaceNegatives({
      ...{ standing, fixed },
      terms: [...served].map((t) => keyAt(terms, t)),
      open: [...keywords.map(({ text }) => text), ...converting, ...own],
    });
  },
  MOST_KEPT,
);

/** Queries that each ad group served, by its index. */
const termsOf = derivedFrom(({ rows, served, terms }: Snapshot): ReadonlyMap<number, number[]> => {
  const byAdGroup = new Map<number, number[]>();
  for (let r = 0; r < rows.count; r++) {
    const t = rows.termOf[r]!;
    if (kindAt(terms, t) !== 'query') continue;
    const g = served.adGroupOf[r]!;
    const of = byAdGroup.get(g);
    if (!of) byAdGroup.set(g, [t]);
    else if (of.at(-1) !== t) of.push(t);
  }
  return byAdGroup;
});
