import { describePlace, findRedundant, placeKey, proveNeedless, type PlacedNegative } from '@/core';
import type { NeedlessLine, NeedlessView } from '@/contracts/untangle';
import type { Days } from '@/contracts/days';
import type { Pile } from '@/contracts/knots';
import { derivedByKey } from '../../compute/derived';
import { progressOf } from '../../compute/progress';
import type { Snapshot } from '../../compute/snapshot';
import { keyAt, kindAt } from '../../compute/window-columns';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { intoPiles, openPiles, type FoundKnot } from './knots/piles';

/**
 * The negatives that can all go together without any gate answering otherwise (rules 3), as the tray leaves the account,
 * each with the one that covers it, and with what was tried to show it.
 */
export async function viewNeedless(
  deps: Deps,
  slug: string,
  { pile, days }: { pile: Pile; days?: Days | undefined },
): Promise<NeedlessView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), days);
  const { lines, ...more } = needlessIn(open);
  const leftAs = await openPiles(deps, open, 'needless');
  const leftOf = (line: Needless) => leftAs({ key: line.key, state: stateOf(line) });
  const piles = intoPiles(lines, leftOf);
  return {
    ...more,
    counts: { open: piles.open.length, left: piles.left.length },
    lines: piles[pile].map((line) => ({ ...line, left: leftOf(line) })),
  };
}

type Needless = Omit<NeedlessLine, 'left'>;
type Found = Omit<NeedlessView, 'lines' | 'counts'> & { lines: Needless[] };

/** It is otherwise when another negative covers it, or it lasts where it did not. */
const stateOf = ({ coveredBy, isLasting }: Needless) => `${nameOf(coveredBy)} ${isLasting}`;

export function knotsOfNeedless(_: Deps, open: Open): FoundKnot[] {
  return needlessIn(open).lines.map((line) => ({
    ...{ key: line.key, state: stateOf(line), costMicros: 0, conversions: 0 },
    says: `“${line.negative.text}” (${line.negative.match}) in ${line.negative.placeName}, which is needless`,
  }));
}

/** Found once for a snapshot, as long as the tray says the same of everything but keywords: these make no negative needless. */
const needlessIn = (open: Open) => foundIn(open.snapshot, open);

const MOST_KEPT = 4;
const foundIn = derivedByKey(
  ({ laid }: Open) => JSON.stringify(laid.filter(({ kind }) => !kind.endsWith(' keyword'))),
  (_: Snapshot, open) => findNeedless(open),
  MOST_KEPT,
);

function findNeedless(open: Open): Found {
  const shape = open.draft.gate.shape();
  const byId = new Map(shape.negatives.map((negative) => [negative.id, negative]));
  const found = findRedundant(shape, progressOf('needless')).map(({ id, coveredBy, lasting }) => ({
    ...{ negative: byId.get(id)!, coveredBy: byId.get(coveredBy)!, lasting },
  }));
  // A platform takes twins of one place away together, so that one of them alone can not go.
  const going = found.filter(({ negative, coveredBy }) => nameOf(negative) !== nameOf(coveredBy));
  const { terms } = open.snapshot;
  const queries = Array.from({ length: terms.count }, (_, t) => t)
    .filter((t) => kindAt(terms, t) === 'query')
    .map((t) => keyAt(terms, t));
  const { differences, ...tried } = proveNeedless(
    shape,
    new Set(going.map(({ negative }) => negative.id)),
    queries,
  );
  return {
    lines: going.map(({ negative, coveredBy, lasting }): Needless => ({
      ...{ key: nameOf(negative), isLasting: lasting },
      ...{ negative: inPlace(open, negative), coveredBy: inPlace(open, coveredBy) },
    })),
    twins: found.length - going.length,
    proof: { ...tried, differences: differences.length },
  };
}

const nameOf = ({ text, match, place }: Pick<PlacedNegative, 'text' | 'match' | 'place'>) =>
  `${placeKey(place)} · ${match} ${text}`;

const inPlace = ({ names }: Open, { text, match, place }: PlacedNegative) => ({
  ...{ text, match, place, placeName: describePlace(place, names) },
});
