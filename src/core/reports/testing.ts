import { readReport } from './read-report';
import type { ReadOptions, ReportRow } from './reading';
import type { Cell } from './table/source';

/** Reads a report whole: its reading, all rows that went out, and what each column was taken for. */
export async function read(source: string | Uint8Array | Cell[][], options: ReadOptions = {}) {
  const all: ReportRow[] = [];
  const bytes = typeof source === 'string' ? new TextEncoder().encode(source) : source;
  const reading = await readReport(bytes, { ...options, onRows: (rows) => void all.push(...rows) });
  return { ...reading, all, roles: reading.columns.map((c) => c.role) };
}
