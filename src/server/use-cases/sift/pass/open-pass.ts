import type { Barred } from '@/core';
import { derivedFrom } from '../../../compute/derived';
import { offersOf } from '../../../compute/evidence/offers';
import { weighRows } from '../../../compute/workbench';
import type { Open } from '../../open-workbench';
import { expectedOf, placeWord, type OfferedWord } from './place-word';
import { isNegative, undecidedTerms, type Left, type OfferedTerm } from './undecided-terms';

/** The steps of a pass over an account as the tray would leave it (rules 7.14). */
export type Pass = {
  words: OfferedWord[];
  barred: readonly Barred[];
  terms: OfferedTerm[];
  /** terms that surely miss because their whole ad group does */
  ofGroups: OfferedTerm[];
  left: Left;
  /** what the first two steps would stop and risk, each row once */
  gain: Record<'words' | 'terms', Gain>;
};
export type Gain = { costMicros: number; risks: number };

/** The pass of a workbench; made when it is first asked for. */
export const passOf: (open: Open) => Pass = derivedFrom((open: Open): Pass => {
  const { offered, barred } = offersOf(open, open.account);
  const costOf = ({ places }: OfferedWord) => weighRows(open.snapshot, places[0]!.rows).costMicros ?? 0;
  const words = offered
    .map((offer) => placeWord(open, offer))
    .filter(({ places }) => places.length > 0)
    .sort((a, b) => costOf(b) - costOf(a));
  const isTaken = new Uint8Array(open.snapshot.rows.count);
  const take = (rows: readonly number[], risksOf: (rows: number[]) => number): Gain => {
    const more = rows.filter((r) => isTaken[r] === 0);
    for (const r of more) isTaken[r] = 1;
    return { costMicros: weighRows(open.snapshot, more).costMicros ?? 0, risks: risksOf(more) };
  };
  const ofWords = words.map(({ places, factor }) =>
    take(places[0]!.rows, (rows) => factor * expectedOf(open, rows)),
  );
  const { missing, left } = undecidedTerms(open, isTaken);
  const terms = missing.filter(isNegative);
  const ofTerms = terms.map(({ rows, risks }) => take(rows, () => risks));
  return {
    ...{ words, barred, terms, left },
    ofGroups: missing.filter((one) => !isNegative(one)),
    gain: { words: addUp(ofWords), terms: addUp(ofTerms) },
  };
});

const addUp = (gains: readonly Gain[]): Gain => ({
  costMicros: gains.reduce((sum, gain) => sum + gain.costMicros, 0),
  risks: gains.reduce((sum, gain) => sum + gain.risks, 0),
});
