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
import { derivedFrom } from '../../compute/derived';
import { queryTexts } from '../../compute/history/history';
import { rowsOfTerm, type Snapshot } from '../../compute/snapshot';
import { few, protectedBy, weighRows } from '../../compute/workbench';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';

/**
 * Negatives that stop nothing in all the data there is, and hold a word which is close to one that occurs (rules 8.1), as the
 * tray leaves the account; each with what the word that was meant would stop.
 */
export async function viewMisspelt(
  deps: Deps,
  slug: string,
  { days }: { days?: Days | undefined },
): Promise<MisspeltView> {
  return misspeltIn(await openWorkbench(deps, await requireAccount(deps, slug), days));
}

const misspeltIn = derivedFrom((open: Open): MisspeltView => {
  const { negatives } = open.draft.gate.shape();
  const meant = findMisspelt(negatives, knownOf(open.snapshot));
  return {
    lines: negatives.flatMap(({ text, match, place }, i): MisspeltLine[] => {
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
    }),
  };
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
