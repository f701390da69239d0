import { mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import ExcelJS from 'exceljs';
import JSZip from 'jszip';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { zipped } from '../../../tests/support/zipped';
import { readerHere } from './reader/file-reader';
import { readReportFile } from './open-report';
import { isArchive, unpackArchive } from './unpack-archive';

const CSV = 'Search term,Day,Clicks\nhive,2026-10-01,3\n';
let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'gatepost-files-'));
});
afterAll(() => rm(folder, { recursive: true }));

async function stored(name: string, content: string | Uint8Array): Promise<string> {
  const file = path.join(folder, name);
  await writeFile(file, content);
  return file;
}

async function workbook(sheets: Record<string, ExcelJS.CellValue[][]>): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  for (const [name, rows] of Object.entries(sheets)) book.addWorksheet(name).addRows(rows);
  return new Uint8Array(await book.xlsx.writeBuffer());
}

describe('gzip', () => {
  test('is unpacked as it is read', async () => {
    const file = await stored('a.csv.gz', gzipSync(CSV));
    expect(await readReportFile(file)).toMatchObject({ rows: 1, sums: { clicks: 3 }, error: null });
  });

  test('that is cut off is damaged, and nothing of it counts', async () => {
    const whole = gzipSync(
      CSV + Array.from({ length: 9_000 }, (_, i) => `hive ${i * 7919},2026-10-01,1`).join('\n'),
    );
    const file = await stored('cut.gz', whole.subarray(0, whole.length - 40));
    expect(await readReportFile(file)).toMatchObject({ rows: 0, error: { category: 'damaged' } });
  });

  test('that unpacks to hundreds of times its size is refused early', async () => {
    const file = await stored(
      'bomb.gz',
      gzipSync(Buffer.concat([Buffer.from(CSV), Buffer.alloc(200e6, 'a')])),
    );
    const before = process.memoryUsage.rss();
    expect((await readReportFile(file)).error).toMatchObject({ category: 'damaged' });
    expect(process.memoryUsage.rss() - before).toBeLessThan(150e6);
  }, 30_000);
});

describe('workbooks', () => {
  test('are read by the sheet that holds a table; numbers, days and formulas are what they come to', async () => {
    const rows: ExcelJS.CellValue[][] = [
      ['Larkfell'],
      [],
      ['Search term', 'Day', 'Clicks', 'Cost', 'Conversions'],
      ['hive', new Date('2026-10-31'), 1204, 1.234, 0.5],
      ['smoker', '30.10.2026', { formula: '1+1', result: 2 }, '3,50', null],
      [{ richText: [{ text: 'rich ' }, { text: 'hive' }] }, '29.10.2026', 1, 2, 0],
      ['broken', '29.10.2026', { error: '#REF!' }, 2, 0],
    ];
    const file = await stored('a.xlsx', await workbook({ Notes: [['nothing here']], Report: rows }));
    const reading = await readReportFile(file);
    expect(reading).toMatchObject({ headerLine: 3, rows: 2, encoding: null, separator: null, questions: [] });
    expect(reading.sums).toMatchObject({ clicks: 1205, conversions: 0.5, costMicros: 3_234_000 });
    expect(reading.rejected.map((r) => [r.line, r.category])).toEqual([
      [5, 'bad number'],
      [7, 'bad number'],
    ]);
  });

  test('that are cut off are damaged; locked ones say so; old ones are no table', async () => {
    const whole = await workbook({
      Report: [
        ['Search term', 'Clicks'],
        ['hive', 1],
      ],
    });
    const compound = Buffer.alloc(4096);
    Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1]).copy(compound);
    const old = await stored('old.xls', compound);
    expect((await readReportFile(old)).error?.category).toBe('not a table');
    Buffer.from('EncryptedPackage', 'utf16le').copy(compound, 2048);
    const locked = await stored('locked.xlsx', compound);
    expect((await readReportFile(locked)).error?.category).toBe('encrypted');
    const cut = await stored('cut.xlsx', whole.subarray(0, whole.length / 2));
    expect((await readReportFile(cut)).error?.category).toBe('damaged');
  });

  test('are read alike in whatever order their parts stand in the archive', async () => {
    const whole = await workbook({
      Report: [
        ['Search term', 'Day', 'Clicks'],
        ['hive', '2026-10-31', 3],
        ['smoker', '2026-10-31', 4],
      ],
      More: [['movie'], ['plans']],
    });
    const { files } = await JSZip.loadAsync(whole);
    const parts: [string, Uint8Array][] = [];
    for (const part of Object.values(files))
      if (!part.dir) parts.push([part.name, await part.async('uint8array')]);
    // Texts and names last, as some programs write them; first; and the sheets before all.
    const isSheet = ([name]: [string, unknown]) => name.includes('worksheets');
    const orders = [
      parts,
      parts.toReversed().sort((a, b) => Number(isSheet(b)) - Number(isSheet(a)) || a[0].localeCompare(b[0])),
      parts.toSorted((a, b) => Number(isSheet(a)) - Number(isSheet(b))),
    ];
    for (const [i, order] of orders.entries()) {
      const file = await stored(`order${i}.xlsx`, await zipped(Object.fromEntries(order)));
      expect(await readReportFile(file)).toMatchObject({ rows: 2, sums: { clicks: 7 } });
      expect(await readerHere.readSheets(file)).toEqual([
        { name: 'Report', text: 'Search term\tDay\tClicks\nhive\t2026-10-31\t3\nsmoker\t2026-10-31\t4' },
        { name: 'More', text: 'movie\nplans' },
      ]);
    }
  });

  test('without a table say that no header was found', async () => {
    const file = await stored('none.xlsx', await workbook({ Report: [['nothing'], ['at all']] }));
    expect((await readReportFile(file)).error?.category).toBe('no header');
  });
});

describe('archives', () => {
  const unpack = async (name: string, content: Uint8Array) => {
    const file = await stored(name, content);
    expect(await isArchive(file)).toBe(true);
    return unpackArchive(file, folder);
  };

  test('come apart into their tables; other files and a system’s own are left', async () => {
    const inner = await workbook({
      Report: [
        ['Search term', 'Clicks'],
        ['hive', 2],
      ],
    });
    const files = {
      'oct/a.csv': CSV,
      'b.xlsx': inner,
      '__MACOSX/._a.csv': 'x',
      'readme.md': 'x',
      '.hidden.csv': 'x',
    };
    const parts = await unpack('all.zip', await zipped(files));
    expect(parts.map((part) => part.name)).toEqual(['oct/a.csv', 'b.xlsx']);
    const sums = await Promise.all(parts.map(async ({ path: at }) => (await readReportFile(at)).sums.clicks));
    expect(sums).toEqual([3, 2]);
  });

  test('that name files outside of themselves, hold no table or are locked are refused, and leave nothing', async () => {
    const there = (await readdir(folder)).length;
    const outside = Buffer.from(await zipped({ 'xx/xx/a.csv': CSV }))
      .toString('latin1')
      .replaceAll('xx/', '../');
    await expect(unpack('path.zip', Buffer.from(outside, 'latin1'))).rejects.toThrow('outside of itself');
    await expect(unpack('none.zip', await zipped({ 'a.png': 'x' }))).rejects.toThrow('no CSV');
    const locked = Buffer.from(await zipped({ 'a.csv': CSV }));
    locked[locked.indexOf(Buffer.from([0x50, 0x4b, 1, 2])) + 8]! |= 1; // the bit that says so
    await expect(unpack('locked.zip', locked)).rejects.toThrow('locked by a password');
    expect((await readdir(folder)).length).toBe(there + 3); // the archives themselves
  });

  test('that unpack to hundreds of times their size are refused before they do', async () => {
    const bomb = await zipped({ 'a.csv': Buffer.alloc(70e6, 'a') });
    await expect(unpack('bomb.zip', bomb)).rejects.toThrow('far beyond its size');
  }, 60_000);

  test('within a file that should be a table are not opened', async () => {
    const [part] = await unpack('nested.zip', await zipped({ 'inner.csv': await zipped({ 'a.csv': CSV }) }));
    expect((await readReportFile(part!.path)).error?.category).toBe('not a table');
  });
});
