import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import path from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { readReport, writeCsv } from '@/core';
import type { ReadingAnswer, ReadOptionsInput, ReportFileView } from '@/contracts/intake';
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
import { countDaysThere } from '../repositories/facts';
import { Refusal, type Deps } from './deps';
import { requireAccount } from './open-workbench';

const LARGEST_FILE = 1024 * 1024 * 1024;

/** Takes a file in, as a stream, into the data folder. Nothing is read or loaded yet. */
export async function takeIn(
  deps: Deps,
  slug: string,
  file: { name: string; source: 'file' | 'platform'; personId: number | null },
  bytes: AsyncIterable<Uint8Array>,
): Promise<ReportFile> {
  const account = await requireAccount(deps, slug);
  await mkdir(deps.files, { recursive: true });
  const storedAs = randomUUID();
  const target = path.join(deps.files, storedAs);
  const hash = createHash('sha256');
  let sizeBytes = 0;
  const measure = new Transform({
    transform(chunk: Buffer, _, done) {
      hash.update(chunk);
      sizeBytes += chunk.length;
      if (sizeBytes > LARGEST_FILE)
        done(new Refusal('Files of up to 1 GB can be taken in. Nothing was stored. Split the file.', 413));
      else done(null, chunk);
    },
  });
  try {
    await pipeline(bytes, measure, createWriteStream(target));
  } catch (error) {
    await rm(target, { force: true });
    if (error instanceof Error && 'code' in error && error.code === 'ENOSPC') {
      throw new Refusal('The disk is full, so the file was not stored. Make room and bring it again.', 413);
    }
    throw error;
  }
  return insertReportFile(deps.db, account.id, {
    ...file,
    name: file.name.slice(0, 200),
    digest: hash.digest('hex'),
    sizeBytes,
    storedAs,
  });
}

export async function requireReportFile(deps: Deps, accountId: number, id: number): Promise<ReportFile> {
  const file = await findReportFile(deps.db, accountId, id);
  if (!file) throw new Refusal('This file is not there any more. Bring it again.', 404);
  return file;
}

/** The bytes of a file that was taken in. */
export function openStored(deps: Deps, file: ReportFile): AsyncIterable<Uint8Array> {
  return createReadStream(path.join(deps.files, file.storedAs), { highWaterMark: 256 * 1024 });
}

/** Reads a file without storing anything of it, as the options say. */
export async function readUpload(
  deps: Deps,
  slug: string,
  id: number,
  options: ReadOptionsInput,
): Promise<ReadingAnswer> {
  const account = await requireAccount(deps, slug);
  const file = await requireReportFile(deps, account.id, id);
  const reading = await readReport(openStored(deps, file), { ...options, roles: options.roles });
  const before = await findLoadedByDigest(deps.db, account.id, file.digest);
  return {
    file: toView(file),
    reading: { ...reading, rejected: reading.rejected.slice(0, 200) },
    loadedBefore: before ? { name: before.name, at: before.loadedAt! } : null,
    daysThere: reading.days ? await countDaysThere(deps.db, account.id, reading.days) : 0,
    currency: account.currency,
  };
}

/** Asks for a file to be loaded by the job process. */
export async function askForLoad(
  deps: Deps,
  slug: string,
  id: number,
  options: ReadOptionsInput,
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
    const moved = await moveReportFile(trx, account.id, id, ['uploaded', 'cancelled', 'failed'], 'waiting', {
      options,
    });
    if (!moved) throw new Refusal('This file is being loaded already.', 409);
    await deps.enqueue(trx, { name: 'load-report', accountId: account.id, reportFileId: id });
  });
}

export async function cancelLoad(deps: Deps, slug: string, id: number): Promise<void> {
  const account = await requireAccount(deps, slug);
  if (await moveReportFile(deps.db, account.id, id, ['waiting'], 'cancelled')) return;
  await askToCancel(deps.db, account.id, id);
}

/** The history of loads, newest first. */
export async function listLoads(deps: Deps, slug: string): Promise<ReportFileView[]> {
  const account = await requireAccount(deps, slug);
  return (await listReportFiles(deps.db, account.id)).map(toView);
}

/** The refused rows of a load as a sheet, with line and reason. */
export async function refusedSheet(deps: Deps, slug: string, id: number): Promise<string> {
  const account = await requireAccount(deps, slug);
  const file = await requireReportFile(deps, account.id, id);
  const rows = await listRejectedRows(deps.db, account.id, file.id);
  return writeCsv(
    ['line', 'category', 'reason', 'row'],
    rows.map((r) => [r.line, r.category, r.reason, r.raw]),
  );
}

export function toView({
  id,
  name,
  source,
  sizeBytes,
  state,
  rowsRead,
  outcome,
  error,
  createdAt,
}: ReportFile): ReportFileView {
  return { id, name, source, sizeBytes, state, rowsRead, outcome, error, createdAt };
}
