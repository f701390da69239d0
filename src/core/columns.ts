/** A longer copy of a typed array, what is beyond its old end 0. */
export function grown<
  A extends Uint16Array<ArrayBuffer> | Uint32Array<ArrayBuffer> | Float64Array<ArrayBuffer>,
>(array: A, length: number): A {
  const longer = new (array.constructor as new (length: number) => A)(length);
  longer.set(array);
  return longer;
}
