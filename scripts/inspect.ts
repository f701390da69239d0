import { createReadStream } from 'node:fs';
import { readReport, type Reading } from '@/core';

/** `npm run inspect -- FILE [--json]`: how Gate Post would read a report, without loading it. */
async function main(args: readonly string[]): Promise<void> {
  const [file] = args.filter((arg) => !arg.startsWith('--'));
  if (file === undefined) throw new Error('Name a file: npm run inspect -- FILE [--json]');
  const reading = await readReport(createReadStream(file));
  if (args.includes('--json')) console.log(JSON.stringify(reading, null, 2));
  else print(reading);
  if (reading.error) process.exitCode = 1;
}

function print(reading: Reading): void {
  const { encoding, separator, headerLine, columns, days, rows, sums, rejected, rejectedCount } = reading;
  console.log(
    `${encoding ?? 'no text'}, separator ${JSON.stringify(separator)}, header in line ${headerLine ?? '–'}`,
  );
  if (columns.length > 0)
    console.table(columns.map(({ header, role, because, sample }) => ({ header, role, because, sample })));
  for (const question of reading.questions) console.log(`Undecided: ${question.text}`);
  if (reading.error) return console.error(reading.error.message);
  console.log(`${rows} rows${days ? `, ${days.from} to ${days.to}` : ''}; sums: ${JSON.stringify(sums)}`);
  console.log(`${rejectedCount} rows refused`);
  for (const { line, reason, raw } of rejected.slice(0, 20)) console.log(`  line ${line}: ${reason}: ${raw}`);
}

main(process.argv.slice(2)).catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
});
