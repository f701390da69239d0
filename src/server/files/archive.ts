import type { Readable } from 'node:stream';
import { openPromise, type Entry, type ZipFile } from 'yauzl';
import { SourceFault } from '@/core';
import { checkRatio, damaged, LOCKED } from './limits';

export type ArchiveEntry = { name: string; size: number; isLocked: boolean };

const MOST_ENTRIES = 2_000;

/** The files in a ZIP archive, folders left out. @throws SourceFault when the archive can not be read */
export async function listEntries(path: string): Promise<ArchiveEntry[]> {
  return withArchive(path, async (archive) => {
    const entries: ArchiveEntry[] = [];
    for await (const entry of archive.eachEntry()) {
      if (entries.length >= MOST_ENTRIES)
        throw new SourceFault(damaged(`The archive holds more than ${MOST_ENTRIES} files.`));
      if (entry.fileName.endsWith('/')) continue;
      checkRatio(entry.compressedSize, entry.uncompressedSize);
      entries.push({
        name: entry.fileName,
        size: entry.uncompressedSize,
        isLocked: entry.isEncrypted(),
      });
    }
    return entries;
  });
}

/** The bytes of one file of a ZIP archive. @throws SourceFault when it is damaged or locked */
export async function* readEntry(path: string, name: string): AsyncGenerator<Uint8Array> {
  const archive = await openArchive(path);
  try {
    const entry = await findEntry(archive, name);
    if (entry.isEncrypted()) throw new SourceFault(LOCKED);
    const bytes: Readable = await archive.openReadStreamPromise(entry);
    // The reader of the archive sees to it that no more comes out than the entry says.
    for await (const chunk of bytes as AsyncIterable<Buffer>) yield chunk;
  } catch (error) {
    throw toFault(error, `“${name}” in the archive can not be unpacked.`);
  } finally {
    archive.close();
  }
}

async function findEntry(archive: ZipFile, name: string): Promise<Entry> {
  for await (const entry of archive.eachEntry()) if (entry.fileName === name) return entry;
  throw new SourceFault(damaged(`“${name}” is not in the archive any more.`));
}

async function withArchive<Answer>(
  path: string,
  work: (archive: ZipFile) => Promise<Answer>,
): Promise<Answer> {
  const archive = await openArchive(path);
  try {
    return await work(archive);
  } catch (error) {
    throw toFault(error, 'The archive can not be read.');
  } finally {
    archive.close();
  }
}

async function openArchive(path: string): Promise<ZipFile> {
  try {
    return await openPromise(path, { autoClose: false, lazyEntries: true });
  } catch (error) {
    throw toFault(error, 'The archive can not be opened.');
  }
}

function toFault(error: unknown, what: string): unknown {
  if (error instanceof SourceFault) return error;
  const isOutside = error instanceof Error && /relative path|absolute path/.test(error.message);
  if (isOutside)
    return new SourceFault({
      category: 'damaged',
      message: 'The archive names a file outside of itself, as no report does. Nothing of it was read.',
    });
  const isOfSystem = error instanceof Error && 'syscall' in error;
  return isOfSystem ? error : new SourceFault(damaged(what));
}
