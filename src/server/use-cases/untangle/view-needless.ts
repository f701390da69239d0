import { describePlace, findRedundant, placeKey, proveNeedless, type PlacedNegative } from '@/core';
import type { NeedlessLine, NeedlessView } from '@/contracts/untangle';
import { derivedFrom } from '../../compute/derived';
import { keyAt, kindAt } from '../../compute/window-columns';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';

/**
 * The negatives that can all go together without any gate answering otherwise (rules 3), as the tray leaves the account,
 * each with the one that covers it, and with what was tried to show it.
 */
export async function viewNeedless(deps: Deps, slug: string): Promise<NeedlessView> {
  return needlessIn(await openWorkbench(deps, await requireAccount(deps, slug)));
}

const needlessIn = derivedFrom((open: Open): NeedlessView => {
  const shape = open.draft.gate.shape();
  const byId = new Map(shape.negatives.map((negative) => [negative.id, negative]));
  const found = findRedundant(shape).map(({ id, coveredBy, lasting }) => ({
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
    lines: going.map(({ negative, coveredBy, lasting }): NeedlessLine => ({
      ...{ key: nameOf(negative), isLasting: lasting },
      ...{ negative: inPlace(open, negative), coveredBy: inPlace(open, coveredBy) },
    })),
    twins: found.length - going.length,
    proof: { ...tried, differences: differences.length },
  };
});

const nameOf = ({ text, match, place }: PlacedNegative) => `${placeKey(place)} · ${match} ${text}`;

const inPlace = ({ names }: Open, { text, match, place }: PlacedNegative) => ({
  ...{ text, match, place, placeName: describePlace(place, names) },
});
