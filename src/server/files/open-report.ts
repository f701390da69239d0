import { createReadStream } from 'node:fs';
import {
  nothingRead,
  readReport,
  SourceFault,
  type Reading,
  type ReadOptions,
  type ReportSource,
} from '@/core';
import { findContainer, isLockedWorkbook } from './container';
import { readGzip } from './gzip';
import { LOCKED } from './limits';
import { isWorkbook, listSheets, readSheet } from './workbook';

const CHUNK = 256 * 1024;

/** Reads a file, be it text, gzip or a workbook. Archives of several files are taken apart before (`unpackArchive`). */
export async function readReportFile(path: string, options: ReadOptions = {}): Promise<Reading> {
  try {
    return await readReport(await openReport(path), options);
  } catch (error) {
    if (error instanceof SourceFault) return { ...nothingRead(), error: error.error };
    throw error;
  }
}

async function openReport(path: string): Promise<ReportSource> {
  const container = await findContainer(path);
  if (container === 'gzip') return { bytes: () => readGzip(path) };
  if (container === 'zip' && (await isWorkbook(path))) return openWorkbook(path);
  if (container === 'compound' && (await isLockedWorkbook(path))) throw new SourceFault(LOCKED);
  return { bytes: () => createReadStream(path, { highWaterMark: CHUNK }) };
}

/** A workbook is read by the first sheet that has a header. */
async function openWorkbook(path: string): Promise<ReportSource> {
  const sheets = await listSheets(path);
  for (let index = 0; index < sheets.length; index++) {
    const { headerLine } = await readReport(await firstRows(path, index));
    if (headerLine !== null && headerLine > 0) return { rows: () => readSheet(path, index) };
  }
  return { rows: () => readSheet(path, 0) };
}

/** Enough of a sheet to find its header. */
async function firstRows(path: string, index: number) {
  for await (const rows of readSheet(path, index)) return rows.slice(0, 50);
  return [];
}
