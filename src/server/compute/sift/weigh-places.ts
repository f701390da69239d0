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
import { isServing } from '../serving';
import type { Snapshot } from '../snapshot';
import { figuresOfTerm } from '../term-sums';
import { FIGURE_COUNT, COLUMN } from '../figure-columns';

/** Places are told apart by the bits of a number. */
const PLACES_AT_ONCE = 30;
/** Figures of a row, in the order of FIGURE_NAMES. */

/** The figures of the rows within one place, and the ids of the keywords that served the converting rows. */
export type WeightAt = { weight: Weight; costly: Set<number> };

/** Which serving ad groups lie within which places: bit p of a number stands for place p, thirty places a number. */
export type PlaceBits = { places: number; bitsOf: Uint32Array }[];

export function bitsOfPlaces(snapshot: Snapshot, gate: RowGate, places: readonly Place[]): PlaceBits {
  const { served } = snapshot;
  const chunks: PlaceBits = [];
  for (let from = 0; from < places.length; from += PLACES_AT_ONCE) {
    const some = places.slice(from, from + PLACES_AT_ONCE);
    chunks.push({
      places: some.length,
      bitsOf: Uint32Array.from(served.adGroups, (adGroup, g) => {
        if (!isServing(snapshot, g)) return 0; // stopping there saves nothing
        return some.reduce((bits, place, p) => (gate.isWithin(place, adGroup) ? bits | (1 << p) : bits), 0);
      }),
    });
  }
  return chunks;
}

/** Rows, ascending, and their sums by ad group: the part of the work that does not depend on the places. */
export type Reach = { rows: Uint32Array; byAdGroup: ReadonlyMap<number, AdGroupSum> };

export function reachOf(snapshot: Snapshot, rows: Uint32Array): Reach {
  return { rows, byAdGroup: sumByAdGroup(snapshot, rows) };
}

/**
 * Weighs the same rows within many places. One pass over the rows serves thirty places: for each term it notes the
 * places in which the term lies.
 */
export function weighAtPlaces(snapshot: Snapshot, { rows, byAdGroup }: Reach, bits: PlaceBits): WeightAt[] {
  return bits.flatMap(({ places, bitsOf }) => {
    const terms = countTerms(snapshot, rows, bitsOf, places);
    return terms.map((count, p): WeightAt => {
      const weight: Weight = { terms: count, ...noFigures() };
      const costly = new Set<number>();
      for (const [g, of] of byAdGroup) {
        if ((bitsOf[g]! & (1 << p)) === 0) continue;
        addFigures(weight, of.figures);
        for (const id of of.costly) costly.add(id);
      }
      return { weight, costly };
    });
  });
}

type AdGroupSum = { figures: Figures; costly: Set<number> };

/** The sums of rows by ad group: gathered in one array, NaN where a figure is unknown. */
function sumByAdGroup({ rows: columns, served }: Snapshot, rows: Uint32Array): Map<number, AdGroupSum> {
  const { figures } = columns;
  const groups = served.adGroups.length;
  const sums = new Float64Array(FIGURE_COUNT * groups);
  const isKnown = new Uint8Array(FIGURE_COUNT * groups);
  const costly = new Array<Set<number> | undefined>(groups);
  const has = new Uint8Array(groups);
  for (let i = 0; i < rows.length; i++) {
    const r = rows[i]!;
    const g = served.adGroupOf[r]!;
    has[g] = 1;
    const from = FIGURE_COUNT * r;
    const to = FIGURE_COUNT * g;
    for (let f = 0; f < FIGURE_COUNT; f++) {
      const value = figures[from + f]!;
      if (value !== value) continue; // NaN: it is unknown
      sums[to + f]! += value;
      isKnown[to + f] = 1;
    }
    if (figures[from + COLUMN.conversions]! > 0) (costly[g] ??= new Set()).add(columns.keywordId[r]!);
  }
  for (let i = 0; i < sums.length; i++) if (isKnown[i] === 0) sums[i] = NaN;
  const byAdGroup = new Map<number, AdGroupSum>();
  for (let g = 0; g < groups; g++) {
    if (has[g] === 1)
      byAdGroup.set(g, { figures: figuresOfTerm({ figures: sums }, g), costly: costly[g] ?? new Set() });
  }
  return byAdGroup;
}

/** How many terms lie within each place: rows of a term stand together. */
function countTerms(
  { rows: columns, served }: Snapshot,
  rows: Uint32Array,
  bitsOf: Uint32Array,
  places: number,
): number[] {
  // Few sets of places occur: each is a number, and most terms lie in one ad group.
  const setOf = new Map([...new Set(bitsOf)].map((bits, i) => [bits, i]));
  const setOfGroup = Uint32Array.from(bitsOf, (bits) => setOf.get(bits)!);
  const inOne = new Float64Array(setOf.size);
  const inSeveral = new Map<number, number>();
  for (let i = 0; i < rows.length;) {
    const t = columns.termOf[rows[i]!]!;
    const first = served.adGroupOf[rows[i]!]!;
    let bits = bitsOf[first]!;
    const start = i++;
    for (; i < rows.length && columns.termOf[rows[i]!] === t; i++)
      bits |= bitsOf[served.adGroupOf[rows[i]!]!]!;
    if (i === start + 1) inOne[setOfGroup[first]!]! += 1;
    else inSeveral.set(bits, (inSeveral.get(bits) ?? 0) + 1);
  }
  const termsWith: (readonly [number, number])[] = [
    ...[...setOf].map(([bits, set]) => [bits, inOne[set]!] as const),
    ...inSeveral,
  ];
  return Array.from({ length: places }, (_, p) =>
    termsWith.reduce((sum, [bits, terms]) => (bits & (1 << p) ? sum + terms : sum), 0),
  );
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
  const covering = candidates.filter((one) => stops(one, negative.text) && covers(one, negative));
  if (covering.length === 0) return undefined;
  const inside = adGroups.filter((adGroup) => gate.isWithin(place, adGroup));
  return covering.find(
    (one) => inside.length > 0 && inside.every((adGroup) => gate.isWithin(one.place, adGroup)),
  );
}
