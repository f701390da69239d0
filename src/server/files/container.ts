import { open } from 'node:fs/promises';

/** What a file is packed in, by its first bytes. */
export type Container = 'plain' | 'gzip' | 'zip' | 'compound';

const SIGNATURES: { container: Container; bytes: readonly number[] }[] = [
  { container: 'gzip', bytes: [0x1f, 0x8b] },
  { container: 'zip', bytes: [0x50, 0x4b, 0x03, 0x04] },
  { container: 'zip', bytes: [0x50, 0x4b, 0x05, 0x06] },
  { container: 'compound', bytes: [0xd0, 0xcf, 0x11, 0xe0] },
];

export async function findContainer(path: string): Promise<Container> {
  const head = await readStart(path, 8);
  return SIGNATURES.find(({ bytes }) => bytes.every((byte, i) => head[i] === byte))?.container ?? 'plain';
}

/**
 * Whether a compound file is a workbook that a password locks: such a one holds a stream of this name, which is
 * written in UTF-16 in its directory.
 */
export async function isLockedWorkbook(path: string): Promise<boolean> {
  const bytes = await readStart(path, 4 * 1024 * 1024);
  return bytes.includes(Buffer.from('EncryptedPackage', 'utf16le'));
}

async function readStart(path: string, length: number): Promise<Buffer> {
  const file = await open(path);
  try {
    const { bytesRead, buffer } = await file.read(Buffer.alloc(length), 0, length, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}
