type Column = Uint8Array | Uint16Array | Uint32Array | Int32Array | Float64Array;

/**
 * A longer copy of a typed array, what is beyond its old end 0.
 * @throws RangeError when it would be shorter
 * @example grown(Uint8Array.of(1), 2) // Uint8Array.of(1, 0)
 */
export function grown<A extends Column>(array: A, length: number): A {
  const longer = new (array.constructor as new (length: number) => A)(length);
  longer.set(array);
  return longer;
}

/**
 * Things in the order of some columns, the first column first; equals stay as they stand. A radix sort: one half of each
 * number after the other, the lower half first.
 * @param columns whole numbers of 0 or more, as many in each
 * @example orderBy(Int32Array.of(2, 1, 2), Int32Array.of(5, 6, 4)) // Uint32Array.of(1, 2, 0)
 */
export function orderBy(...columns: readonly Int32Array[]): Uint32Array {
  const halves = columns.toReversed().flatMap((of) => [of.map((n) => n & 0xffff), of.map((n) => n >>> 16)]);
  return halves.reduce(countingSort, numbersTo(columns[0]!.length));
}

/**
 * Things by their measures, the least first; equals stay as they stand, and NaN stands last.
 * @param items 0 to n − 1, in whatever order
 * @param measures measure i is that of item i
 * @example sortByMeasure(numbersTo(3), Float64Array.of(NaN, 2, -1)) // Uint32Array.of(2, 1, 0)
 */
export function sortByMeasure(
  items: Uint32Array<ArrayBuffer>,
  measures: Float64Array,
): Uint32Array<ArrayBuffer> {
  const bits = new DataView(new ArrayBuffer(8));
  const [high, low] = [new Uint32Array(measures.length), new Uint32Array(measures.length)];
  for (let i = 0; i < measures.length; i++) {
    if (Number.isNaN(measures[i]!)) {
      high[i] = 0xffffffff;
      continue;
    }
    bits.setFloat64(0, measures[i]! + 0); // −0 is 0
    const [h, l] = [bits.getUint32(0), bits.getUint32(4)];
    // As whole numbers, bits of doubles stand in the order of the doubles, those of negative ones the other way round.
    const isNegative = h >>> 31 === 1;
    high[i] = isNegative ? ~h : h | 0x80000000;
    low[i] = isNegative ? ~l : l;
  }
  const halves = [low, high].flatMap((of) => [of.map((n) => n & 0xffff), of.map((n) => n >>> 16)]);
  return halves.reduce(countingSort, items);
}

/** 0, 1, 2 … @example numbersTo(3) // Uint32Array.of(0, 1, 2) */
export const numbersTo = (count: number): Uint32Array<ArrayBuffer> => new Uint32Array(count).map((_, i) => i);

/**
 * Items 0 to n − 1, in whatever order, by their keys, which are whole numbers from 0; those of equal keys keep theirs.
 * @param keys key i is that of item i
 * @example countingSort(Uint32Array.of(0, 1, 2), Uint32Array.of(2, 0, 1)) // Uint32Array.of(1, 2, 0)
 */
export function countingSort(
  items: Uint32Array<ArrayBuffer>,
  keys: Uint32Array | Int32Array,
): Uint32Array<ArrayBuffer> {
  let last = 0;
  for (let i = 0; i < keys.length; i++) last = Math.max(last, keys[i]!);
  if (last === 0) return items;
  const begins = new Uint32Array(last + 2);
  for (let i = 0; i < keys.length; i++) begins[keys[i]! + 1]! += 1;
  for (let key = 0; key + 1 < begins.length; key++) begins[key + 1]! += begins[key]!;
  const sorted = new Uint32Array(items.length);
  for (let i = 0; i < items.length; i++) {
    const item = items[i]!;
    sorted[begins[keys[item]!]!++] = item;
  }
  return sorted;
}
