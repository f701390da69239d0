import { compileGate, stops, type ChangeOf, type Gate } from '@/core';
import { derivedOnward } from '../../compute/derived';
import type { Open } from '../open-workbench';

type Added = ChangeOf<'add negative'>;
type Compiled = { negatives: readonly Added[]; gate: Gate };

/** So many negatives are looked through one by one before all of them are compiled again. */
const MOST_LOOKED_THROUGH = 50;

/** The first of the negatives that the changes of a workbench add, compiled; where the draft grew, those it had before. */
const compiledOf = derivedOnward((open: Open, before?: Compiled): Compiled => {
  const negatives = addedIn(open);
  const isNear = before && negatives.length - before.negatives.length <= MOST_LOOKED_THROUGH;
  return isNear ? before : { negatives, gate: compileGate(negatives) };
});

/** The negatives that the changes on their way and in the draft add, and that match a text (rules 2.1). */
export function addedMatching(open: Open, text: string): Added[] {
  const { negatives, gate } = compiledOf(open);
  const since = addedIn(open).slice(negatives.length);
  return [
    ...gate.stoppers(text).map((n) => negatives[n]!),
    ...since.filter((negative) => stops(negative, text)),
  ];
}

const addedIn = ({ laid }: Open) => laid.filter((change) => change.kind === 'add negative');
