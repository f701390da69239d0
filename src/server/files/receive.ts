import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import path from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';

/** A file on disk, with what was counted while it came in. */
export type Received = { path: string; sizeBytes: number; digest: string };

/** A file that is not as it was announced, or larger than what is taken; nothing of it is kept. */
export class NotReceived extends Error {
  override name = 'NotReceived';
  constructor(
    readonly why: 'too large' | 'cut off' | 'longer than announced',
    readonly sizeBytes: number,
  ) {
    super(`a file was ${why} after ${sizeBytes} bytes`);
  }
}

type Expected = {
  /** where it goes, under a name of ours */
  folder: string;
  /** bytes that are taken */
  most: number;
  /** bytes that the sender said it has, where he did */
  announced?: number | null;
};

/**
 * Writes a stream to disk, whatever its size, and takes its digest on the way.
 * @returns SHA-256 in hexadecimal beside the path and the size
 * @throws NotReceived when it is not of the size that was announced, or too large; nothing is left on disk then
 */
export async function receiveFile(
  bytes: AsyncIterable<Uint8Array>,
  { folder, most, announced = null }: Expected,
): Promise<Received> {
  if (announced !== null && announced > most) throw new NotReceived('too large', announced);
  await mkdir(folder, { recursive: true });
  const file = path.join(folder, randomUUID());
  const hash = createHash('sha256');
  let sizeBytes = 0;
  const counted = new Transform({
    transform(chunk: Buffer, _, done) {
      sizeBytes += chunk.length;
      if (sizeBytes > most) return done(new NotReceived('too large', sizeBytes));
      hash.update(chunk);
      done(null, chunk);
    },
  });
  try {
    await pipeline(bytes, counted, createWriteStream(file));
    if (announced !== null && sizeBytes !== announced)
      throw new NotReceived(sizeBytes < announced ? 'cut off' : 'longer than announced', sizeBytes);
    return { path: file, sizeBytes, digest: hash.digest('hex') };
  } catch (error) {
    await rm(file, { force: true });
    throw error;
  }
}
