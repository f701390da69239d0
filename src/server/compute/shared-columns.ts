import { grown } from '@/core';

type Shared = {
  new (buffer: SharedArrayBuffer): Uint8Array | Uint32Array | Float64Array;
  BYTES_PER_ELEMENT: number;
};

/** Numbers that are gathered in doubles and end in shared memory. Null becomes NaN. */
export function column() {
  let values = new Float64Array(1 << 10);
  let length = 0;
  return {
    push(...more: (number | null)[]) {
      if (length + more.length > values.length) values = grown(values, 2 * values.length);
      for (const value of more) values[length++] = value ?? NaN;
    },
    length: () => length,
    into<T extends Shared>(Type: T): InstanceType<T> {
      const shared = new Type(new SharedArrayBuffer(length * Type.BYTES_PER_ELEMENT));
      shared.set(values.subarray(0, length));
      return shared as InstanceType<T>;
    },
  };
}

/** Whole numbers in shared memory. */
export function sharedNumbers(values: readonly number[]): Uint32Array {
  const shared = new Uint32Array(new SharedArrayBuffer(4 * values.length));
  shared.set(values);
  return shared;
}

/** Texts that are gathered and end in shared memory, in UTF-8: text t is bytes[starts[t] .. starts[t + 1]). */
export function texts() {
  const starts = column();
  starts.push(0);
  let bytes = Buffer.alloc(1 << 12);
  let end = 0;
  return {
    /** @param text in UTF-8 */
    push(text: Uint8Array) {
      const most = end + text.length;
      if (most > bytes.length) bytes = Buffer.concat([bytes], Math.max(most, 2 * bytes.length));
      bytes.set(text, end);
      end = most;
      starts.push(end);
    },
    finish() {
      const shared = new Uint8Array(new SharedArrayBuffer(end));
      shared.set(bytes.subarray(0, end));
      return { starts: starts.into(Uint32Array), bytes: shared };
    },
  };
}

/** Text t of such columns. */
export function textAt(bytes: Uint8Array, starts: Uint32Array, t: number): string {
  const start = starts[t]!;
  return Buffer.from(bytes.buffer, bytes.byteOffset + start, starts[t + 1]! - start).toString('utf8');
}

/** Bytes that columns take. */
export function bytesOf(...columns: object[]): number {
  return columns
    .flatMap((of) => Object.values(of) as unknown[])
    .reduce<number>((sum, value) => sum + (ArrayBuffer.isView(value) ? value.byteLength : 0), 0);
}
