import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { sheetBounds } from './sheet-bounds';

const MOST_BYTES = 1024 * 1024;
const MOST_CELLS = 2_000;
const cell = (text: string) => `<c r="A1" t="inlineStr"><is><t>${text}</t></is></c>`;
const sheet = (...rows: string[]) =>
  `<worksheet><sheetData>${rows.map((cells, i) => `<row r="${i + 1}">${cells}</row>`).join('')}</sheetData></worksheet>`;

/** What it comes to, whatever the chunks are. */
function check(xml: string, chunk = 65_536): string {
  const take = sheetBounds();
  const bytes = Buffer.from(xml);
  try {
    for (let at = 0; at < bytes.length; at += chunk) take(bytes.subarray(at, at + chunk));
    return 'fits';
  } catch (error) {
    return (error as Error).message;
  }
}

describe('the bounds of a workbook', () => {
  test('leave in what workbooks hold: the longest cell, with each character escaped', () => {
    const longest = '&amp;'.repeat(32_767);
    expect(check(sheet(cell(longest), cell(longest) + cell('x')))).toBe('fits');
    expect(check(`<sst><si><t>${longest}</t></si><si><t>x</t></si></sst>`)).toBe('fits');
    expect(check(sheet('<c/>'.repeat(9_000), '<c r="A2">'.repeat(MOST_CELLS)))).toBe('fits');
  });

  test.each([
    ['a cell', sheet(cell('x'), cell('a'.repeat(MOST_BYTES + 1))), 'A cell in row 2 '],
    [
      'a cell of many parts',
      sheet(`<c r="A1"><is>${'<r><t>ab</t></r>'.repeat(70_000)}</is></c>`),
      'in row 1 ',
    ],
    ['the name of a cell', sheet(`<c r="${'A'.repeat(MOST_BYTES + 1)}"/>`), 'A cell in row 1 '],
    ['a shared text', `<sst><si><t>${'a'.repeat(MOST_BYTES + 1)}</t></si></sst>`, 'A text in the workbook'],
    [
      'a row',
      sheet(cell('x'), '<c r="A1">'.repeat(MOST_CELLS + 1)),
      'Row 2 of the workbook has more than 2,000',
    ],
  ])('refuse %s that is too large, and say where', (_, xml, said) => {
    expect(check(xml)).toContain(said);
    expect(check(xml)).toContain('as CSV');
  });

  test('do not depend on where the chunks end', () => {
    const whole = sheet(cell('x').repeat(5), '<c r="B1">'.repeat(MOST_CELLS + 1));
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 50 }), (chunk) => {
        expect(check(whole, chunk)).toBe(check(whole));
        expect(check(sheet('<c r="A2">'.repeat(MOST_CELLS)), chunk)).toBe('fits');
      }),
      { numRuns: 50 },
    );
  });
});
