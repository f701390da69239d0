import ExcelJS from 'exceljs';

export type Sheet = {
  name: string;
  header: readonly string[];
  rows: readonly (readonly (string | null)[])[];
};

/** Sheet names may hold 31 characters and none of these. */
const nameOf = (name: string) =>
  name
    .replace(/[\\/?*[\]:]/g, ' ')
    .slice(0, 31)
    .trim() || 'list';

/** An XLSX workbook. Every cell is text, so none is a formula. */
export async function writeWorkbook(sheets: readonly Sheet[]): Promise<Uint8Array<ArrayBuffer>> {
  const book = new ExcelJS.Workbook();
  for (const { name, header, rows } of sheets) {
    const sheet = book.addWorksheet(nameOf(name));
    sheet.addRow(header).font = { bold: true };
    for (const row of rows) sheet.addRow(row);
    sheet.columns.forEach((column) => (column.width = 32));
  }
  return new Uint8Array(await book.xlsx.writeBuffer());
}
