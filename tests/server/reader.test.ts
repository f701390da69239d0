import { mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { buildSync } from 'esbuild';
import ExcelJS from 'exceljs';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { readerHere } from '@/server/files/reader/file-reader';
import { readerOutside } from '@/server/files/reader/reader-outside';
import { zipped } from '../support/zipped';

/** Of memory far below what is usual, so that a small file can pass it; and so many seconds that it comes first under load, too. */
const BOUNDS = { seconds: 100, megabytes: 80 };

let folder: string;
let reader: ReturnType<typeof readerOutside>;
const startReader = (bounds = BOUNDS) =>
  readerOutside(path.join(process.cwd(), 'dist/test/files.mjs'), bounds);
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'gatepost-reader-'));
  buildSync({
    ...{ entryPoints: { files: 'src/server/files/reader/main.ts' }, outdir: 'dist/test' },
    ...{
      outExtension: { '.js': '.mjs' },
      bundle: true,
      platform: 'node',
      format: 'esm',
      packages: 'external',
    },
  });
  reader = startReader();
});
afterAll(async () => {
  await reader.close();
  await rm(folder, { recursive: true });
});

async function stored(name: string, content: string | Uint8Array): Promise<string> {
  const file = path.join(folder, name);
  await writeFile(file, content);
  return file;
}

async function workbook(rows: ExcelJS.CellValue[][]): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  book.addWorksheet('Report').addRows(rows);
  return new Uint8Array(await book.xlsx.writeBuffer());
}

/** A workbook whose only sheet is written by hand. */
const bookOf = (rows: string) =>
  zipped({
    '[Content_Types].xml':
      '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/></Types>',
    'xl/workbook.xml':
      '<workbook xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="Report" sheetId="1" r:id="rId1"/></sheets></workbook>',
    'xl/_rels/workbook.xml.rels':
      '<Relationships><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>',
    'xl/worksheets/sheet1.xml': `<worksheet><sheetData>${rows}</sheetData></worksheet>`,
  });
const CSV = 'Search term,Day,Clicks\nhive,2026-10-01,3\n';

test('reads the same outside as here, whatever the file is', async () => {
  const book = await workbook([
    ['Search term', 'Day', 'Clicks'],
    ['hive', new Date('2026-10-31'), 4],
    ['broken', 'no day', 4],
  ]);
  const files = [
    await stored('a.csv', CSV),
    await stored('a.xlsx', book),
    await stored('cut.xlsx', book.subarray(0, 900)),
    await stored('none.csv', ''),
  ];
  for (const file of files) {
    expect(await reader.look(file, {})).toEqual(await readerHere.look(file, {}));
  }
  for (const file of [files[0]!, files[1]!, files[3]!]) {
    expect(await reader.unpack(file, folder)).toBeNull();
  }
  expect(await reader.readSheets(files[1]!)).toEqual(await readerHere.readSheets(files[1]!));
});

test('takes an archive apart, and tells in the same words why it can not', async () => {
  const parts = await reader.unpack(await stored('all.zip', await zipped({ 'oct/a.csv': CSV })), folder);
  expect(parts).toMatchObject([{ name: 'oct/a.csv', sizeBytes: CSV.length }]);
  const none = await stored('none.zip', await zipped({ 'a.png': 'x' }));
  await expect(reader.unpack(none, folder)).rejects.toMatchObject({
    name: 'SourceFault',
    error: { category: 'empty', message: expect.stringContaining('no CSV') },
  });
});

test('a small workbook of one cell of 60 MB is refused by its row, in little memory', async () => {
  const rows = `<row r="1"><c r="A1" t="inlineStr"><is><t>Search term</t></is></c></row><row r="2"><c r="A2" t="inlineStr"><is><t>${'a'.repeat(60e6)}</t></is></c></row>`;
  const bytes = await bookOf(rows);
  expect(bytes.length).toBeLessThan(200_000);
  const { error } = await reader.look(await stored('cell.xlsx', bytes), {});
  // Such a file packs so well that the archive alone gives it away; one that hides it better is seen by its cell.
  expect(error?.message).toMatch(/far beyond its size|A cell in row 2/);
  const less = await bookOf(rows.replace('a'.repeat(60e6), 'ab cd '.repeat(2_000_000)));
  expect((await reader.look(await stored('less.xlsx', less), {})).error?.message).toContain(
    'A cell in row 2',
  );
});

test('what takes all memory, or too long, ends its own reader, and the next file is read as ever', async () => {
  const before = await readdir(folder);
  // Texts of usual length, but so many different ones that they do not fit.
  const many = Array.from(
    { length: 200_000 },
    (_, i) =>
      `<row r="${i + 1}"><c r="A${i + 1}" t="inlineStr"><is><t>${i} ${'word '.repeat(80)}</t></is></c></row>`,
  );
  const large = await stored('large.xlsx', await bookOf(many.join('')));
  const lists = reader.readSheets(large);
  await expect(lists).rejects.toMatchObject({
    name: 'SourceFault',
    message: expect.stringContaining('80 MB of memory'),
  });
  expect((await reader.look(await stored('b.csv', CSV), {})).rows).toBe(1);
  const hasty = startReader({ ...BOUNDS, seconds: 0.05 });
  expect((await hasty.look(large, {})).error?.message).toContain('0.05 seconds');
  await hasty.close();
  expect((await readdir(folder)).length).toBe(before.length + 2);
}, 120_000);
