import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { pipeline } from 'node:stream';
import { createGunzip } from 'node:zlib';
import { SourceFault } from '@/core';
import { checkRatio, damaged } from './limits';

/** The bytes within a gzip file. @throws SourceFault when it is damaged, or unpacks to far more than its size */
export async function* readGzip(path: string): AsyncGenerator<Uint8Array> {
  const { size } = await stat(path);
  const unpacked = createGunzip({ chunkSize: 256 * 1024 });
  pipeline(createReadStream(path), unpacked, () => undefined); // faults come out of the loop
  let bytes = 0;
  try {
    for await (const chunk of unpacked as AsyncIterable<Buffer>) {
      bytes += chunk.length;
      checkRatio(size, bytes);
      yield chunk;
    }
  } catch (error) {
    const isZlib = error instanceof Error && 'code' in error && String(error.code).startsWith('Z_');
    throw isZlib ? new SourceFault(damaged('The gzip file can not be unpacked to its end.')) : error;
  }
}
