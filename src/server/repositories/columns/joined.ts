/** The bytes of some columns, one after another; numbers as this machine holds them. */
export function joined(columns: readonly ArrayBufferView[]): Buffer {
  return Buffer.concat(
    columns.map(({ buffer, byteOffset, byteLength }) => new Uint8Array(buffer, byteOffset, byteLength)),
  );
}
