import {
  buildTermTable,
  compileVocabulary,
  describePlace,
  findMisspelt,
  matchTexts,
  placeKey,
  type Place,
} from '@/core';
import type { Days } from '@/contracts/days';
import type { MisspeltLine, MisspeltView } from '@/contracts/untangle';
import type { Pile } from '@/contracts/knots';
import { derivedFrom } from '../../compute/derived';
import { queryTexts } from '../../compute/history/history';
import { rowsOfTerm, type Snapshot } from '../../compute/snapshot';
import { few, protectedBy, weighRows } from '../../compute/workbench';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { intoPiles, openPiles, type FoundKnot } from './knots/piles';

/**
 * Negatives that stop nothing in all the data there is, and hold a word which is close to one that occurs (rules 8.1), as the
 * tray leaves the account; each with what the word that was meant would stop.
 */
export async function viewMisspelt(
  deps: Deps,
  slug: string,
  { pile, days }: { pile: Pile; days?: Days | undefined },
): Promise<MisspeltView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), days);
  const leftAs = await openPiles(deps, open, 'misspelt');
  const leftOf = ({ key, meant }: Misspelt) => leftAs({ key, state: meant });
  const piles = intoPiles(misspeltIn(open), leftOf);
  return {
    counts: { open: piles.open.length, left: piles.left.length },
    lines: piles[pile].map((line) => ({ ...line, left: leftOf(line) })),
  };
}

type Misspelt = Omit<MisspeltLine, 'left'>;

export function knotsOfMisspelt(_: Deps, open: Open): FoundKnot[] {
  return misspeltIn(open).map(({ key, meant, negative }) => ({
    ...{ key, state: meant, costMicros: 0, conversions: 0 },
    says: `“${negative.text}” (${negative.match}) in ${negative.placeName}, which may be misspelt`,
  }));
}

const misspeltIn = derivedFrom((open: Open): Misspelt[] => {
  const { negatives } = open.draft.gate.shape();
  const meant = findMisspelt(negatives, knownOf(open.snapshot));
  return negatives.flatMap(({ text, match, place }, i): Misspelt[] => {
    const right = meant[i];
    if (right == null) return [];
    const negative = { text: right, match };
    return [
      {
        key: `${placeKey(place)} · ${match} ${text}`,
        negative: { text, match, place, placeName: describePlace(place, open.names) },
        ...{ meant: right, would: weighRows(open.snapshot, openRows(open, negative, place)) },
        hits: few(protectedBy(open, [negative])),
      },
    ];
  });
});

/** All texts that were ever served, and the words of these and of the live keywords. */
const knownOf = derivedFrom((snapshot: Snapshot) => {
  const texts = queryTexts(snapshot.history);
  const keywords = snapshot.liveKeywords.map(({ text }) => text);
  return { table: buildTermTable(texts), vocabulary: compileVocabulary([...texts, ...keywords]) };
});

/** Rows within a place that a negative would stop, and nothing stops yet. */
function openRows(
  { snapshot, draft }: Open,
  negative: { text: string; match: MisspeltLine['negative']['match'] },
  place: Place,
): number[] {
  const rows = [...matchTexts(snapshot.served.table, negative)].flatMap((t) => rowsOfTerm(snapshot, t));
  return draft.gate.within(rows, place).filter((r) => draft.gate.stopCount(r) === 0);
}
