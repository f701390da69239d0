import {
  addFigures,
  covers,
  noFigures,
  stops,
  type Figures,
  type NegativeText,
  type Place,
  type RowGate,
} from '@/core';
import type { Weight } from '@/contracts/common';
import type { Snapshot } from '../snapshot';
import { addRow, conversionsAt } from '../window-columns';

/** Places are told apart by the bits of a number. */
const PLACES_AT_ONCE = 30;

/** What rows weigh within one place; and those of them that converted. */
export type WeightAt = { weight: Weight; converting: number[] };

/**
 * Weighs the same rows within many places, in one pass over the rows for each thirty places: figures are gathered by
 * ad group, and of each term it is noted within which places it lies.
 * @param rows ascending
 */
export function weighAtPlaces(
  snapshot: Snapshot,
  gate: RowGate,
  rows: readonly number[],
  places: readonly Place[],
): WeightAt[] {
  const { adGroups } = snapshot.served;
  const byAdGroup = sumByAdGroup(snapshot, rows);
  const weights: WeightAt[] = [];
  for (let from = 0; from < places.length; from += PLACES_AT_ONCE) {
    const some = places.slice(from, from + PLACES_AT_ONCE);
    const bitsOf = Uint32Array.from(adGroups, (adGroup) =>
      some.reduce((bits, place, p) => (gate.isWithin(place, adGroup) ? bits | (1 << p) : bits), 0),
    );
    const terms = countTerms(snapshot, rows, bitsOf, some.length);
    some.forEach((_, p) => {
      const weight: Weight = { terms: terms[p]!, ...noFigures() };
      for (const [g, { figures }] of byAdGroup) if (bitsOf[g]! & (1 << p)) addFigures(weight, figures);
      const converting = [...byAdGroup].flatMap(([g, of]) => (bitsOf[g]! & (1 << p) ? of.converting : []));
      weights.push({ weight, converting });
    });
  }
  return weights;
}

function sumByAdGroup({ rows: columns, served }: Snapshot, rows: readonly number[]) {
  const byAdGroup = new Map<number, { figures: Figures; converting: number[] }>();
  for (const r of rows) {
    const g = served.adGroupOf[r]!;
    let of = byAdGroup.get(g);
    if (!of) byAdGroup.set(g, (of = { figures: noFigures(), converting: [] }));
    addRow(of.figures, columns, r);
    if (conversionsAt(columns, r) > 0) of.converting.push(r);
  }
  return byAdGroup;
}

/** How many terms lie within each place: rows of a term stand together. */
function countTerms(
  { rows: columns, served }: Snapshot,
  rows: readonly number[],
  bitsOf: Uint32Array,
  places: number,
): number[] {
  const termsWith = new Map<number, number>();
  let [last, bits] = [-1, 0];
  const close = () => void (bits !== 0 && termsWith.set(bits, (termsWith.get(bits) ?? 0) + 1));
  for (const r of rows) {
    const t = columns.termOf[r]!;
    if (t !== last) {
      close();
      [last, bits] = [t, 0];
    }
    bits |= bitsOf[served.adGroupOf[r]!]!;
  }
  close();
  return Array.from({ length: places }, (_, p) => {
    let sum = 0;
    for (const [of, terms] of termsWith) if (of & (1 << p)) sum += terms;
    return sum;
  });
}

/**
 * A negative that makes another needless at a place (rules 3): it covers it and is in force in every ad group there.
 * @param candidates among which it is sought; they stand as the gate has them
 */
export function findCoverer<N extends NegativeText & { place: Place }>(
  { served: { adGroups } }: Snapshot,
  gate: RowGate,
  candidates: readonly N[],
  negative: NegativeText,
  place: Place,
): N | undefined {
  const inside = adGroups.filter((adGroup) => gate.isWithin(place, adGroup));
  return candidates.find(
    (one) =>
      stops(one, negative.text) &&
      covers(one, negative) &&
      inside.length > 0 &&
      inside.every((adGroup) => gate.isWithin(one.place, adGroup)),
  );
}
