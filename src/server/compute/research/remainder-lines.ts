import { descending } from 'd3-array';
import { normalise, type Remainders } from '@/core';
import type { RemainderLine, RemaindersQuery } from '@/contracts/research';
import { judgingOf } from '../evidence/faults';
import { steeringKey, type Steering } from '../evidence/row-targets';
import { derivedByKey } from '../derived';
import type { Snapshot } from '../snapshot';
import type { SheetContent } from './sheet-content';

/** A remainder over the ideas that are shown. */
/** A line but for what its words mean. */
type LineFigures = Omit<RemainderLine, 'location'>;

type Sum = { remainder: number; ideas: number; volume: number; related: number; fault: number };

/**
 * A page of the remainders of the ideas that are shown.
 * @param isShown 1 for each idea that is
 */
export function remainderLines(
  content: SheetContent,
  remainders: Remainders,
  isShown: Uint8Array,
  faults: ReadonlyMap<string, number>,
  { sort, offset, most }: Pick<RemaindersQuery, 'sort' | 'offset' | 'most'>,
): { total: number; lines: LineFigures[] } {
  const sums: Sum[] = [];
  for (let remainder = 0; remainder < remainders.texts.length; remainder++) {
    const sum = sumOf(content, remainders.ideasOf(remainder), isShown);
    if (sum.ideas === 0) continue;
    const fault = sort === 'at fault' ? (faultOf(faults, remainders.formsOf(remainder)) ?? -1) : 0;
    sums.push({ remainder, ...sum, fault });
  }
  const by: Record<RemaindersQuery['sort'], (a: Sum, b: Sum) => number> = {
    ideas: (a, b) => descending(a.ideas, b.ideas),
    searches: (a, b) => descending(a.volume, b.volume),
    'least related': (a, b) => a.related - b.related || 0,
    'at fault': (a, b) => descending(a.fault, b.fault),
  };
  sums.sort((a, b) => by[sort](a, b) || descending(a.ideas, b.ideas) || a.remainder - b.remainder);
  return {
    total: sums.length,
    lines: sums
      .slice(offset, offset + most)
      .map(({ remainder }) => toLine(content, remainders, remainder, isShown, faults)),
  };
}

function sumOf({ ideas }: SheetContent, holding: Uint32Array, isShown: Uint8Array) {
  let [count, volume, related, known] = [0, 0, 0, 0];
  for (const i of holding) {
    if (isShown[i] === 0) continue;
    const { relatedness } = ideas[i]!;
    count += 1;
    volume += searchesOf(ideas[i]!) ?? 0;
    if (relatedness === null) continue;
    related += relatedness;
    known += 1;
  }
  return { ideas: count, volume, related: known === 0 ? Infinity : related / known };
}

function toLine(
  { ideas }: SheetContent,
  remainders: Remainders,
  remainder: number,
  isShown: Uint8Array,
  faults: ReadonlyMap<string, number>,
): LineFigures {
  const holding = Array.from(remainders.ideasOf(remainder))
    .filter((i) => isShown[i] === 1)
    .map((i) => ideas[i]!);
  const forms = remainders.formsOf(remainder);
  const known = <Value>(values: readonly (Value | null)[]) => values.filter((value) => value !== null);
  const volumes = known(holding.map(searchesOf));
  const bids = known(holding.map((idea) => idea.openingBidMicros));
  const related = known(holding.map((idea) => idea.relatedness));
  const example = holding.reduce((best, idea) =>
    (searchesOf(idea) ?? 0) > (searchesOf(best) ?? 0) ? idea : best,
  );
  return {
    ...{ text: forms[0]!, forms, ideas: holding.length },
    volume: volumes.length === 0 ? null : volumes.reduce((a, b) => a + b, 0),
    openingBidMicros: bids.length === 0 ? null : Math.max(...bids),
    relatedness: related.length === 0 ? null : related.reduce((a, b) => a + b, 0) / related.length,
    fault: faultOf(faults, forms),
    example: example.key,
  };
}

type Volumes = { volume: number | null; volumeFrom: number | null; volumeTo: number | null };

/** Searches a month: where only a range is told, its geometric middle; null where nothing is known. */
export function searchesOf({ volume, volumeFrom, volumeTo }: Volumes): number | null {
  if (volume !== null || volumeFrom === null || volumeTo === null) return volume;
  return Math.round(Math.sqrt(Math.max(1, volumeFrom) * volumeTo));
}

/** The surest of some forms; null where the data say nothing of any. */
function faultOf(faults: ReadonlyMap<string, number>, forms: readonly string[]): number | null {
  const known = forms.flatMap((form) => faults.get(normalise(form)) ?? []);
  return known.length === 0 ? null : Math.max(...known);
}

/** How surely each n-gram of the account is at fault (rules 7.12), 0 to 1. */
export const faultsByNgram: (snapshot: Snapshot, steering: Steering) => ReadonlyMap<string, number> =
  derivedByKey(
    steeringKey,
    (snapshot: Snapshot, steering: Steering) =>
      new Map(
        judgingOf(snapshot, steering)?.words.map(({ ngram, probability }) => [ngram, probability]) ?? [],
      ),
  );
