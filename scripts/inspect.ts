import { mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { nothingRead, SourceFault, type Reading } from '@/core';
import { readReportFile } from '@/server/files/open-report';
import { isArchive, unpackArchive } from '@/server/files/unpack-archive';

/** How a file was read; of an archive with several tables each of them, and all together. */
type Inspection = Reading & { files?: (Reading & { name: string })[] };

/**
 * `npm run inspect -- FILE [--json]`: how Gate Post would read a report, without loading it. Exits with 1 when it can
 * not be read.
 */
async function main(args: readonly string[]): Promise<void> {
  const [file] = args.filter((arg) => !arg.startsWith('--'));
  if (file === undefined) throw new Error('Name a file: npm run inspect -- FILE [--json]');
  await stat(file);
  const inspection = await inspect(file);
  if (args.includes('--json')) process.stdout.write(`${JSON.stringify(inspection, null, 2)}\n`);
  else print(inspection);
  if (inspection.error) process.exitCode = 1;
}

async function inspect(file: string): Promise<Inspection> {
  const folder = await mkdtemp(path.join(tmpdir(), 'gatepost-inspect-'));
  try {
    if (!(await isArchive(file))) return await readReportFile(file);
    const files: (Reading & { name: string })[] = [];
    for (const part of await unpackArchive(file, folder))
      files.push({ ...(await readReportFile(part.path)), name: part.name });
    return files.length === 1 ? files[0]! : { ...together(files), files };
  } catch (error) {
    if (error instanceof SourceFault) return { ...nothingRead(), error: error.error };
    throw error;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Sums over several files; refused rows bear the name of theirs. What is not a sum is that of the first. */
function together(files: readonly (Reading & { name: string })[]): Reading {
  const [first, ...others] = files;
  const all = structuredClone(first!) as Reading;
  all.rejected = files.flatMap(({ name, rejected }) => rejected.map((row) => ({ ...row, file: name })));
  for (const other of others) {
    all.rows += other.rows;
    all.rejectedCount += other.rejectedCount;
    all.questions = [...all.questions, ...other.questions];
    all.error ??= other.error;
    const days = [all.days, other.days].filter((span) => span !== null);
    const [from, to] = [
      days.map((d) => d.from).sort()[0],
      days
        .map((d) => d.to)
        .sort()
        .at(-1),
    ];
    all.days = from && to ? { from, to } : null;
    for (const name of Object.keys(all.sums) as (keyof Reading['sums'])[]) {
      const sums = [all.sums[name], other.sums[name]].filter((sum) => sum !== null);
      all.sums[name] = sums.length > 0 ? sums.reduce((a, b) => a + b) : null;
    }
  }
  return all;
}

function print(inspection: Inspection): void {
  for (const reading of inspection.files ?? [inspection]) {
    if ('name' in reading) console.log(`\n${String(reading.name)}`);
    printOne(reading);
  }
}

function printOne(reading: Reading): void {
  const { kind, encoding, separator, headerLine, columns, days, rows, sums, rejected, rejectedCount } =
    reading;
  if (headerLine !== null) {
    const form = encoding === null ? 'a sheet' : `${encoding}, separator ${JSON.stringify(separator)}`;
    console.log(`${kind}: ${form}, header in line ${headerLine}`);
    console.table(columns.map(({ header, role, because, sample }) => ({ header, role, because, sample })));
  }
  for (const question of reading.questions) console.log(`Undecided: ${question.text}`);
  if (reading.error) return console.error(`${reading.error.category}: ${reading.error.message}`);
  const currency = reading.currency === null ? '' : ` in ${reading.currency}`;
  console.log(
    `${rows} rows${days ? `, ${days.from} to ${days.to}` : ''}; sums${currency}: ${JSON.stringify(sums)}`,
  );
  console.log(`${rejectedCount} rows refused`);
  for (const { line, category, reason, raw } of rejected.slice(0, 20))
    console.log(`  line ${line}: ${category}: ${reason}: ${raw}`);
}

main(process.argv.slice(2)).catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
});
