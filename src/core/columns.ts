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
