import fc from 'fast-check';
import { expect, test } from 'vitest';
import { readDay, spanOfDays } from './days';
import { decimalEvidence, readNumber, readPlain } from './numbers';

test.each<[string, '.' | ',', number | null | string]>([
  ['1234.5', '.', 1234.5],
  ['1,234.50', '.', 1234.5],
  ['1.234,50 €', ',', 1234.5],
  ['EUR 12', '.', 12],
  ['$ 1,000', '.', 1000],
  ["1'234.50", '.', 1234.5],
  ['1 234,50', ',', 1234.5],
  ['.5', '.', 0.5],
  ['0', '.', 0],
  ['', '.', null],
  ['--', '.', null],
  ['N/A', '.', null],
  ['< 10', '.', null],
  ['-3', '.', 'negative figure'],
  ['(3.20)', '.', 'negative figure'],
  ['12,34', '.', 'bad number'],
  ['1.2.3', '.', 'bad number'],
  ['12a', '.', 'bad number'],
  ['1e9', '.', 'bad number'],
  ['99999999999999999', '.', 'bad number'],
])('%j with decimal %j is %j', (cell, mark, expected) => {
  const read = readNumber(cell, mark);
  expect('fault' in read ? read.fault : read.value).toBe(expected);
});

test('plain figures are read as the language reads them', () => {
  const digits = fc.string({ unit: fc.constantFrom(...'0123456789'), maxLength: 9 });
  fc.assert(
    fc.property(digits, fc.option(digits), fc.constantFrom('.', ','), (whole, part, mark) => {
      const cell = part === null ? whole : `${whole}${mark}${part}`;
      const isPlain = whole !== '' && part !== '' && cell.length <= 15;
      expect(readPlain(cell, mark)).toBe(isPlain ? Number(cell.replace(',', '.')) : -1);
      expect(readPlain(cell, mark === '.' ? ',' : '.')).toBe(part === null && isPlain ? Number(cell) : -1);
    }),
    { numRuns: 1_000 },
  );
});

test.each([
  ['1,234.50', '.'],
  ['1.234,50', ','],
  ['1.234.567', ','],
  ['12,5', ','],
  ['0.123', '.'],
  ['1,234', 'either'],
  ['1234', undefined],
  ['n/a', undefined],
])('%j speaks for %j', (cell, mark) => {
  expect(decimalEvidence(cell)).toBe(mark);
});

test.each([
  ['2026-10-31', '2026-10-31'],
  ['2026/10/31', '2026-10-31'],
  ['20261031', '2026-10-31'],
  ['31.10.2026', '2026-10-31'],
  ['31/10/26', '2026-10-31'],
  ['2026-10-31T00:00:00Z', '2026-10-31'],
  ['31.10.2026 14:05', '2026-10-31'],
  ['31 Oct 2026', '2026-10-31'],
  ['31. Dezember 2026', '2026-12-31'],
  ['Oct 31, 2026', '2026-10-31'],
  ['Saturday, Oct 31, 2026', '2026-10-31'],
  ['5 févr. 2026', '2026-02-05'],
  ['2026-02-30', undefined],
  ['30.2.2026', undefined],
  ['yesterday', undefined],
  ['', undefined],
])('the day %j is %j', (cell, day) => {
  expect(readDay(cell, 'day first')).toBe(day);
});

test.each([
  ['1 Oct 2026 - 31 Oct 2026', { from: '2026-10-01', to: '2026-10-31' }],
  ['October 1, 2026 – October 31, 2026', { from: '2026-10-01', to: '2026-10-31' }],
  ['Zeitraum: 01.10.2026 bis 31.10.2026', { from: '2026-10-01', to: '2026-10-31' }],
  ['Terms, 2026-10-01 to 2026-10-31', { from: '2026-10-01', to: '2026-10-31' }],
  ['03/04/2026 - 05/06/2026', null],
  ['31 Oct 2026 - 1 Oct 2026', null],
  ['Search terms - all campaigns', null],
  ['', null],
])('above a table, %j is the span %j', (line, span) => expect(spanOfDays(line)).toEqual(span));
