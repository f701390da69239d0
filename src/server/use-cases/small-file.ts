import { readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import Papa from 'papaparse';
import { SourceFault } from '@/core';
import { findContainer } from '../files/container';
import { NotReceived, receiveFile, type Received } from '../files/receive';
import { Refusal, type Deps } from './deps';
import { sayNotReceived } from './intake/take-in';

/** A file as it comes in, and the bytes that it has, as the sender says. */
export type Incoming = { bytes: AsyncIterable<Uint8Array>; announced: number | null };

/** A workbook sheet by sheet, cells parted by tabs; or one text. */
export type SmallFile = { sheets: { name: string; text: string }[] } | { text: string };

/** Bytes of a file that is held in memory. */
const LARGEST = 20e6;

/**
 * Reads a file of up to 20 MB into text: a workbook sheet by sheet, cells parted by tabs, or one text. Nothing of it is
 * kept on disk.
 * @throws Refusal when it is empty, too large, or neither a workbook nor text
 */
export async function readSmallFile(
  { reader }: Pick<Deps, 'reader'>,
  { bytes, announced }: Incoming,
): Promise<SmallFile> {
  const { path: at, sizeBytes } = await receive(bytes, announced);
  try {
    if (sizeBytes === 0) throw new Refusal('The file is empty. Nothing was taken.');
    const sheets = await reader.readSheets(at);
    if (sheets) return { sheets };
    if ((await findContainer(at)) !== 'plain')
      throw new Refusal('This is no workbook and no text. Nothing was taken.');
    return { text: decode(await readFile(at)) };
  } catch (error) {
    if (error instanceof SourceFault) throw new Refusal(`${error.error.message} Nothing was taken.`);
    throw error;
  } finally {
    await rm(at, { force: true });
  }
}

/** The tables of a file as rows of cells; of a text, the parser finds the separator. */
export function tablesIn(file: SmallFile): string[][][] {
  return 'sheets' in file ? file.sheets.map(({ text }) => toTable(text, '\t')) : [toTable(file.text, '')];
}

const toTable = (text: string, delimiter: string) =>
  Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { delimiter }).data;

/** @throws Refusal as soon as there is more than is held, or less than was announced */
async function receive(source: AsyncIterable<Uint8Array>, announced: number | null): Promise<Received> {
  try {
    return await receiveFile(source, { folder: tmpdir(), most: LARGEST, announced });
  } catch (error) {
    throw error instanceof NotReceived ? sayNotReceived(error, LARGEST) : error;
  }
}

function decode(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
