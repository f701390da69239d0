import { rm } from 'node:fs/promises';
import { SourceFault } from '@/core';
import { listEntries, readEntry } from './archive';
import { findContainer } from './container';
import { LARGEST_UNPACKED, LOCKED } from './limits';
import { receiveFile, type Received } from './receive';
import { isWorkbook } from './workbook';

/** Whether a file is a ZIP archive of other files; a workbook is one as well, but is read as it is. */
export async function isArchive(file: string): Promise<boolean> {
  return (await findContainer(file)) === 'zip' && !(await isWorkbook(file));
}

const MOST_TABLES = 200;

/**
 * Writes the tables of a ZIP archive into a folder, each under a name of ours. What a person packed beside them
 * (folders of one system, notes, hidden files) is left.
 * @returns each with its name in the archive; all or nothing
 * @throws SourceFault when the archive can not be read, is locked or holds no table
 */
export async function unpackArchive(
  archive: string,
  folder: string,
): Promise<(Received & { name: string })[]> {
  const entries = (await listEntries(archive)).filter(({ name }) => isTable(name));
  if (entries.some((entry) => entry.isLocked)) throw new SourceFault(LOCKED);
  if (entries.length === 0 || entries.length > MOST_TABLES) {
    const found = entries.length === 0 ? 'no CSV, TSV or XLSX file' : `more than ${MOST_TABLES} files`;
    throw new SourceFault({ category: 'empty', message: `The archive holds ${found}.` });
  }
  const written: (Received & { name: string })[] = [];
  try {
    for (const { name, size } of entries)
      written.push({
        ...(await receiveFile(readEntry(archive, name), { folder, most: LARGEST_UNPACKED, announced: size })),
        name,
      });
  } catch (error) {
    for (const { path } of written) await rm(path, { force: true });
    throw error;
  }
  return written;
}

function isTable(name: string): boolean {
  const last = name.split('/').at(-1)!;
  return !name.startsWith('__MACOSX/') && !last.startsWith('.') && /\.(csv|tsv|tab|txt|xlsx|gz)$/i.test(last);
}
