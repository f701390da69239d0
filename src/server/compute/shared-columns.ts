/** @returns the first `count` values in memory that threads share; all unless given */
export function shared<A extends Uint8Array | Uint32Array | Float64Array>(
  values: A,
  count = values.length,
): A {
  const Type = values.constructor as new (buffer: SharedArrayBuffer) => A;
  const column = new Type(new SharedArrayBuffer(count * values.BYTES_PER_ELEMENT));
  column.set(values.subarray(0, count));
  return column;
}

/** Text t of texts in UTF-8: it is bytes[starts[t] .. starts[t + 1]). */
export function textAt(bytes: Uint8Array, starts: Uint32Array, t: number): string {
  const start = starts[t]!;
  return Buffer.from(bytes.buffer, bytes.byteOffset + start, starts[t + 1]! - start).toString('utf8');
}

/** Some of the texts, in order; empty where one is not wanted. */
export function textsIn(bytes: Uint8Array, starts: Uint32Array, isWanted: (t: number) => boolean): string[] {
  const all = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const texts = new Array<string>(starts.length - 1);
  for (let t = 0; t < texts.length; t++)
    texts[t] = isWanted(t) ? all.toString('utf8', starts[t], starts[t + 1]) : '';
  return texts;
}

/** Bytes that columns take. */
export function bytesOf(...columns: object[]): number {
  return columns
    .flatMap((of) => Object.values(of) as unknown[])
    .reduce<number>((sum, value) => sum + (ArrayBuffer.isView(value) ? value.byteLength : 0), 0);
}
