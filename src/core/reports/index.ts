export { readReport, type ReportSource } from './read-report';
export {
  COLUMN_ROLES,
  type ColumnRole,
  type DayOrder,
  type DecimalMark,
  type FileError,
  type Question,
  type ReadColumn,
  type Reading,
  type ReadOptions,
  type RejectedRow,
  type ReportMatch,
  type ReportRow,
} from './reading';
export { writeCsv } from './write-csv';
