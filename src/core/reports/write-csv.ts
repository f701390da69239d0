import Papa from 'papaparse';

/**
 * Writes rows as CSV (RFC 4180, CRLF, UTF-8 with mark) that is safe to open in a spreadsheet: a text cell that
 * would start a formula is led by an apostrophe. Numbers stay numbers.
 * @example writeCsv(['term'], [['=cmd()']]) // '\uFEFFterm\r\n\'=cmd()\r\n'
 */
export function writeCsv(
  header: readonly string[],
  rows: readonly (readonly (string | number | null)[])[],
): string {
  const safe = [header, ...rows].map((row) =>
    row.map((cell) => (typeof cell === 'string' ? disarm(cell) : cell)),
  );
  return `\uFEFF${Papa.unparse(safe, { newline: '\r\n' })}\r\n`;
}

function disarm(text: string): string {
  return /^[\s]*[=+\-@\t\r|]/.test(text) ? `'${text}` : text;
}
