import { Readable } from 'node:stream';
import ExcelJS from 'exceljs';
import { listEntries, readEntry } from './archive';

const SHEET = /^xl\/worksheets\/sheet(\d+)\.xml$/;

/**
 * Reads a workbook's sheets one after another, each row as it comes. The parts that sheets need (their names, the texts, the
 * styles) are read first, wherever they stand in the archive, and each part is found through the archive's directory: the
 * package's own way through the archive loses its last part now and then (ExcelJS 4.4.0, once in some hundred workbooks).
 */
export class OrderedReader extends ExcelJS.stream.xlsx.WorkbookReader {
  declare private _parseRels: (entry: Readable) => Promise<void>;
  declare private _parseWorkbook: (entry: Readable) => Promise<void>;
  declare private _parseStyles: (entry: Readable) => Promise<void>;
  declare private _parseSharedStrings: (entry: Readable) => AsyncIterable<unknown>;
  declare private _parseWorksheet: (rows: AsyncIterable<Uint8Array>, sheet: string) => Iterable<unknown>;

  constructor(private readonly path: string) {
    super(path, {
      ...{ worksheets: 'emit', sharedStrings: 'cache', styles: 'cache' },
      ...{ hyperlinks: 'ignore', entries: 'ignore' },
    });
  }

  override async *parse(): AsyncGenerator {
    const names = (await listEntries(this.path)).map(({ name }) => name);
    const part = (name: string) =>
      names.includes(name) ? Readable.from(readEntry(this.path, name)) : undefined;
    const rels = part('xl/_rels/workbook.xml.rels');
    if (rels) await this._parseRels(rels);
    const workbook = part('xl/workbook.xml');
    if (workbook) await this._parseWorkbook(workbook);
    const styles = part('xl/styles.xml');
    if (styles) await this._parseStyles(styles);
    const texts = part('xl/sharedStrings.xml');
    if (texts) for await (const text of this._parseSharedStrings(texts)) void text; // it keeps them itself
    for (const name of names) {
      const [, sheet] = SHEET.exec(name) ?? [];
      if (sheet !== undefined) yield* this._parseWorksheet(readEntry(this.path, name), sheet);
    }
  }
}
