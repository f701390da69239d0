import { SourceFault, type Cell, type ReadDecisions, type Reading } from '@/core';
import { readReportFile } from '../open-report';
import type { Received } from '../receive';
import { isArchive, unpackArchive } from '../unpack-archive';
import { findContainer } from '../container';
import { isWorkbook, listSheets, readSheet } from '../workbook';

/** How a report is looked at: its rows do not come out, so that the answer is small. */
export type Look = ReadDecisions & { currency?: string; mostRows?: number };

/** What opens files that people bring. Whatever a file is like, its reader answers, or says in words why it can not. */
export type FileReader = {
  /** Reads a report. What can not be read is told by the reading's `error`. */
  look(path: string, how: Look): Promise<Reading>;
  /**
   * Takes an archive apart, into a folder.
   * @returns the tables in it; null where the file is no archive
   * @throws SourceFault, or NotReceived where a part of it is not whole; nothing is kept then
   */
  unpack(path: string, folder: string): Promise<(Received & { name: string })[] | null>;
  /**
   * The sheets of a workbook as lines of text, cells parted by tabs.
   * @returns null where the file is no workbook
   * @throws SourceFault
   */
  readSheets(path: string): Promise<{ name: string; text: string }[] | null>;
};

/** Reads in this process: where it is a job's own, or a test's. */
export const readerHere: FileReader = {
  look: (path, how) => readReportFile(path, how),
  unpack: async (path, folder) => ((await isArchive(path)) ? unpackArchive(path, folder) : null),
  async readSheets(path) {
    if ((await findContainer(path)) !== 'zip' || !(await isWorkbook(path))) return null;
    const sheets: { name: string; text: string }[] = [];
    let letters = 0;
    for (const [index, name] of (await listSheets(path)).entries()) {
      const lines: string[] = [];
      for await (const rows of readSheet(path, index))
        for (const line of rows.map(toLine)) {
          letters += line.length;
          if (letters > MOST_LETTERS) throw tooLong();
          lines.push(line);
        }
      sheets.push({ name, text: lines.join('\n') });
    }
    return sheets;
  },
};

/** Letters of all lines of a workbook of lists: lists hold far fewer. */
const MOST_LETTERS = 100_000_000;

const toLine = (cells: readonly Cell[]) =>
  cells.map((cell) => String(cell ?? '').replace(/[\t\r\n]+/g, ' ')).join('\t');

const tooLong = () =>
  new SourceFault({ category: 'damaged', message: 'The workbook holds more text than lists can hold.' });
