import { rm } from 'node:fs/promises';
import path from 'node:path';
import { counted, SourceFault, splitLine, writeCsv, type ReadDecisions } from '@/core';
import type { IntakeView, ReportFileView } from '@/contracts/intake';
import { NotReceived, receiveFile } from '../../files/receive';
import { listDaysThere } from '../../repositories/facts';
import {
  askToCancel,
  findLoadedByDigest,
  findReportFile,
  insertReportFile,
  listRejectedRows,
  listReportFiles,
  moveReportFile,
  type ReportFile,
} from '../../repositories/intake/reports';
import type { Account } from '../../repositories/account/accounts';
import { appendLedger } from '../../repositories/ledger';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { recipesOf } from './recipes';

/** Bytes of a file that are taken in: 2 GB, or as GATEPOST_LARGEST_FILE_MB says. */
export function largestFile(): number {
  const megabytes = Number(process.env.GATEPOST_LARGEST_FILE_MB ?? '');
  return (megabytes > 0 ? megabytes : 2_000) * 1e6;
}

/**
 * Takes a file in, as a stream, into the data folder; an archive is taken apart. Nothing is read or loaded yet.
 * @returns the file, or those of the archive
 * @param file `announced`: the bytes that it has, as the sender says
 * @throws Refusal when it is too large, not whole, the disk is full or the archive can not be read; nothing is kept then
 */
export async function takeIn(
  deps: Deps,
  slug: string,
  file: { name: string; source: 'file' | 'platform'; personId: number | null; announced?: number | null },
  bytes: AsyncIterable<Uint8Array>,
): Promise<ReportFile[]> {
  const account = await requireAccount(deps, slug);
  const { announced, ...about } = file;
  const parts = await inWords(async () => {
    const received = await receiveFile(bytes, { folder: deps.files, most: largestFile(), announced });
    const unpacked = await unpack(deps, received.path);
    if (unpacked === null) return [{ ...received, name: file.name }];
    await rm(received.path, { force: true });
    return unpacked.map((part) => ({ ...part, name: `${file.name} › ${part.name}` }));
  });
  const taken: ReportFile[] = [];
  for (const { name, path: at, digest, sizeBytes } of parts) {
    const part = { ...about, name: name.slice(-200), digest, sizeBytes, storedAs: path.basename(at) };
    taken.push(await insertReportFile(deps.db, account.id, part));
  }
  return taken;
}

/** The parts of an archive; null where the file is none. What can not be unpacked is not kept. */
async function unpack({ reader, files }: Deps, received: string) {
  try {
    return await reader.unpack(received, files);
  } catch (error) {
    await rm(received, { force: true });
    throw error;
  }
}

/** Turns a failure to take a file in into words for a person. */
async function inWords<Answer>(work: () => Promise<Answer>): Promise<Answer> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof NotReceived) throw sayNotReceived(error);
    if (error instanceof SourceFault) throw new Refusal(`${error.message} Nothing was stored.`);
    if (error instanceof Error && 'code' in error && error.code === 'ENOSPC') {
      throw new Refusal('The disk is full, so the file was not stored. Make room and bring it again.', 413);
    }
    throw error;
  }
}

/** Why a file was not received, and what to do. */
export function sayNotReceived({ why, sizeBytes }: NotReceived, most = largestFile()): Refusal {
  if (why === 'too large') {
    const limit = `${Math.round(most / 1e6).toLocaleString('en')} MB`;
    return new Refusal(`Files of up to ${limit} can be taken in. Nothing was stored. Split the file.`, 413);
  }
  return new Refusal(
    `The file did not come in whole: ${sizeBytes.toLocaleString('en')} bytes, ${why}. Nothing was stored. Bring it again.`,
  );
}

export async function requireReportFile(deps: Deps, accountId: number, id: number): Promise<ReportFile> {
  const file = await findReportFile(deps.db, accountId, id);
  if (!file) throw new Refusal('This file is not there any more. Bring it again.', 404);
  return file;
}

/** A file whose bytes are there still. @throws Refusal that names the remedy when they are not */
export async function requireBytes(deps: Deps, account: Account, id: number): Promise<ReportFile> {
  const file = await requireReportFile(deps, account.id, id);
  if (!file.isGone) return file;
  throw new Refusal(
    `The file itself was removed after ${counted(account.fileDays, 'day')}, as the Account screen says; what was loaded of it stays. Bring it again.`,
    409,
  );
}

/**
 * Asks for a file to be loaded by the job process.
 * @param options how it is to be read; null: as it was read before
 * @param undoing the entry of the ledger that is taken back by it
 */
export async function askForLoad(
  deps: Deps,
  slug: string,
  id: number,
  options: ReadDecisions | null,
  undoing?: { personId: number; undoes: number },
): Promise<void> {
  const account = await requireAccount(deps, slug);
  const file = await requireBytes(deps, account, id);
  const before = await findLoadedByDigest(deps.db, account.id, file.digest);
  if (before) {
    throw new Refusal(
      `This file was loaded before, as ${before.name}. Loading it again would change nothing, so it was not.`,
      409,
    );
  }
  await deps.db.transaction(async (trx) => {
    const moved = await moveReportFile(
      trx,
      account.id,
      id,
      ['uploaded', 'cancelled', 'failed', 'taken back'],
      'waiting',
      { options: options ?? file.options },
    );
    if (!moved) throw new Refusal('This file is being loaded already.', 409);
    await deps.enqueue(trx, { name: 'load-report', accountId: account.id, reportFileId: id });
    if (undoing)
      await appendLedger(trx, account.id, {
        ...{ actor: { person: undoing.personId }, about: 'load', what: `Load ${file.name} again` },
        undoes: undoing.undoes,
      });
  });
}

export async function cancelLoad(deps: Deps, slug: string, id: number): Promise<void> {
  const account = await requireAccount(deps, slug);
  if (await moveReportFile(deps.db, account.id, id, ['waiting'], 'cancelled')) return;
  await askToCancel(deps.db, account.id, id);
}

/** The history of loads, newest first, and the days that hold data. */
export async function viewIntake(deps: Deps, slug: string): Promise<IntakeView> {
  const account = await requireAccount(deps, slug);
  return {
    files: (await listReportFiles(deps.db, account.id)).map(toView),
    daysThere: await listDaysThere(deps.db, account.id),
    fetchesDaily: account.fetchesDaily,
    largestFile: largestFile(),
    recipes: await recipesOf(deps, account.id),
  };
}

/**
 * The refused rows of a load as a sheet of the same columns, so that it can be mended and brought again; what was wrong
 * stands behind.
 */
export async function refusedSheet(deps: Deps, slug: string, id: number): Promise<string> {
  const account = await requireAccount(deps, slug);
  const file = await requireReportFile(deps, account.id, id);
  const rows = await listRejectedRows(deps.db, account.id, file.id);
  // Without the file nobody knows its columns: its rows are cut into cells no more.
  const { columns, separator } = file.isGone
    ? { columns: [{ header: 'Row' }], separator: '\0' }
    : await deps.reader.look(pathOf(deps, file), { ...file.options, mostRows: 1 });
  const split = rows.map((row) => ({ ...row, cells: splitLine(row.raw, separator ?? '\t') }));
  const headers = columns.map((column) => column.header);
  // Cells beyond the columns are kept: they are mostly what was wrong.
  const width = split.reduce((most, { cells }) => Math.max(most, cells.length), headers.length);
  for (let extra = 1; headers.length < width; extra++) headers.push(`Surplus ${extra}`);
  return writeCsv(
    [...headers, 'Refused', 'Line', 'Why'],
    split.map(({ line, category, reason, cells }) => {
      const filled = headers.map((_, i) => cells[i] ?? '');
      return [...filled, category, line, reason];
    }),
  );
}

export function toView(file: ReportFile): ReportFileView {
  const { id, name, source, kind, sizeBytes, state, rowsRead, outcome, error, createdAt, startedAt } = file;
  const { isGone } = file;
  const seconds = startedAt === null ? 0 : (Date.now() - Date.parse(startedAt)) / 1_000;
  return {
    ...{ id, name, source, kind, sizeBytes, state, rowsRead, outcome, error, createdAt, isGone },
    rowsPerSecond: state === 'loading' && seconds > 0 ? Math.round(rowsRead / seconds) : null,
  };
}

/** The path of a file that was taken in. */
export function pathOf(deps: Deps, file: Pick<ReportFile, 'storedAs'>): string {
  return path.join(deps.files, file.storedAs);
}
