import { randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { SourceFault } from '@/core';
import { listEntries, readEntry } from './archive';
import { findContainer } from './container';
import { LOCKED } from './limits';
import { isWorkbook } from './workbook';

/** Whether a file is a ZIP archive of other files; a workbook is one as well, but is read as it is. */
export async function isArchive(file: string): Promise<boolean> {
  return (await findContainer(file)) === 'zip' && !(await isWorkbook(file));
}

const MOST_TABLES = 200;

/**
 * Writes the tables of a ZIP archive into a folder, each under a name of ours. What a person packed beside them
 * (folders of one system, notes, hidden files) is left.
 * @returns the name in the archive and the file that was written; all or nothing
 * @throws SourceFault when the archive can not be read, is locked or holds no table
 */
export async function unpackArchive(
  archive: string,
  folder: string,
): Promise<{ name: string; file: string }[]> {
  const entries = (await listEntries(archive)).filter(({ name }) => isTable(name));
  if (entries.some((entry) => entry.isLocked)) throw new SourceFault(LOCKED);
  if (entries.length === 0 || entries.length > MOST_TABLES) {
    const found = entries.length === 0 ? 'no CSV, TSV or XLSX file' : `more than ${MOST_TABLES} files`;
    throw new SourceFault({ category: 'empty', message: `The archive holds ${found}.` });
  }
  const written: { name: string; file: string }[] = [];
  try {
    for (const { name } of entries) {
      const file = path.join(folder, randomUUID());
      written.push({ name, file });
      await pipeline(readEntry(archive, name), createWriteStream(file));
    }
  } catch (error) {
    for (const { file } of written) await rm(file, { force: true });
    throw error;
  }
  return written;
}

function isTable(name: string): boolean {
  const last = name.split('/').at(-1)!;
  return !name.startsWith('__MACOSX/') && !last.startsWith('.') && /\.(csv|tsv|tab|txt|xlsx|gz)$/i.test(last);
}
