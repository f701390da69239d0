import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { SourceFault, splitLine, writeCsv, type ReadDecisions } from '@/core';
import type { IntakeView, ReportFileView } from '@/contracts/intake';
import { readReportFile } from '../files/open-report';
import { isArchive, unpackArchive } from '../files/unpack-archive';
import { listDaysThere } from '../repositories/facts';
import {
  askToCancel,
  findLoadedByDigest,
  findReportFile,
  insertReportFile,
  listRejectedRows,
  listReportFiles,
  moveReportFile,
  type ReportFile,
} from '../repositories/reports';
import { appendLedger } from '../repositories/ledger';
import { Refusal, type Deps } from './deps';
import { requireAccount } from './open-workbench';
import { recipesOf } from './recipes';

const LARGEST_FILE = 1024 * 1024 * 1024;

/**
 * Takes a file in, as a stream, into the data folder; an archive is taken apart. Nothing is read or loaded yet.
 * @returns the file, or those of the archive
 * @throws Refusal when it is too large, the disk is full or the archive can not be read; nothing is kept then
 */
export async function takeIn(
  deps: Deps,
  slug: string,
  file: { name: string; source: 'file' | 'platform'; personId: number | null },
  bytes: AsyncIterable<Uint8Array>,
): Promise<ReportFile[]> {
  const account = await requireAccount(deps, slug);
  await mkdir(deps.files, { recursive: true });
  const target = path.join(deps.files, randomUUID());
  const parts = await guarded(target, async () => {
    await pipeline(bytes, limited(), createWriteStream(target));
    if (!(await isArchive(target))) return [{ name: file.name, file: target }];
    const unpacked = await unpackArchive(target, deps.files);
    await rm(target, { force: true });
    return unpacked.map((part) => ({ ...part, name: `${file.name} › ${part.name}` }));
  });
  const taken: ReportFile[] = [];
  for (const part of parts) {
    const { size } = await stat(part.file);
    const about = {
      ...file,
      name: part.name.slice(-200),
      digest: await digestOf(part.file),
      sizeBytes: size,
    };
    taken.push(await insertReportFile(deps.db, account.id, { ...about, storedAs: path.basename(part.file) }));
  }
  return taken;
}

function limited(): Transform {
  let sizeBytes = 0;
  return new Transform({
    transform(chunk: Buffer, _, done) {
      sizeBytes += chunk.length;
      if (sizeBytes > LARGEST_FILE)
        done(new Refusal('Files of up to 1 GB can be taken in. Nothing was stored. Split the file.', 413));
      else done(null, chunk);
    },
  });
}

/** Leaves nothing behind when the work fails, and tells why in a person's words. */
async function guarded<Answer>(target: string, work: () => Promise<Answer>): Promise<Answer> {
  try {
    return await work();
  } catch (error) {
    await rm(target, { force: true });
    if (error instanceof SourceFault) throw new Refusal(`${error.message} Nothing was stored.`);
    if (error instanceof Error && 'code' in error && error.code === 'ENOSPC') {
      throw new Refusal('The disk is full, so the file was not stored. Make room and bring it again.', 413);
    }
    throw error;
  }
}

async function digestOf(file: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
}

export async function requireReportFile(deps: Deps, accountId: number, id: number): Promise<ReportFile> {
  const file = await findReportFile(deps.db, accountId, id);
  if (!file) throw new Refusal('This file is not there any more. Bring it again.', 404);
  return file;
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
  const file = await requireReportFile(deps, account.id, id);
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
  const { columns, separator } = await readReportFile(pathOf(deps, file), { ...file.options, mostRows: 1 });
  const headers = columns.map((column) => column.header);
  return writeCsv(
    [...headers, 'Refused', 'Line', 'Why'],
    rows.map(({ line, category, reason, raw }) => {
      const cells = splitLine(raw, separator ?? '\t');
      const filled = headers.map((_, i) => cells[i] ?? '');
      return [...filled, category, line, reason];
    }),
  );
}

export function toView(file: ReportFile): ReportFileView {
  const { id, name, source, kind, sizeBytes, state, rowsRead, outcome, error, createdAt, startedAt } = file;
  const seconds = startedAt === null ? 0 : (Date.now() - Date.parse(startedAt)) / 1_000;
  return {
    ...{ id, name, source, kind, sizeBytes, state, rowsRead, outcome, error, createdAt },
    rowsPerSecond: state === 'loading' && seconds > 0 ? Math.round(rowsRead / seconds) : null,
  };
}

/** Where the bytes of a file lie that was taken in. */
export function pathOf(deps: Deps, file: Pick<ReportFile, 'storedAs'>): string {
  return path.join(deps.files, file.storedAs);
}
