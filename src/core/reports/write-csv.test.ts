import { expect, test } from 'vitest';
import { read } from './testing';
import { writeCsv } from './write-csv';

test('an exported cell never starts a formula', () => {
  expect(
    writeCsv(
      ['term', 'cost'],
      [
        ['=cmd()', -1.5],
        [' @x', null],
        ['a,"b"', 2],
      ],
    ),
  ).toBe('\uFEFFterm,cost\r\n\'=cmd(),-1.5\r\n\' @x,\r\n"a,""b""",2\r\n');
});

test('what was exported is read again as it was', async () => {
  const rows: [string, string, number][] = [
    ['=cmd()', '2026-10-01', 1],
    ["men's hive", '2026-10-02', 2],
    ['a, "b"', '2026-10-03', 3],
  ];
  const reading = await read(writeCsv(['Search term', 'Day', 'Clicks'], rows));
  expect(reading.all.map((row) => [row.term, row.day, row.clicks])).toEqual(rows);
});
