export { nothingRead, readReport } from './read-report';
export { ENCODINGS } from './table/encoding';
export { agreeOnCurrency } from './cells/currency';
export { splitLine } from './table/delimited';
export { PASTED_SEPARATORS, readPastedHeader, withoutBullet, type PastedColumns } from './table/pasted';
export { SEPARATORS } from './table/layout';
export { SourceFault, type Cell, type ReportSource } from './table/source';
export {
  NUMBER_ROLES,
  REPORT_KINDS,
  ROLES_OF_KIND,
  type AnyRow,
  type ColumnRole,
  type DayOrder,
  type DecimalMark,
  type ElementRow,
  type FileError,
  type IdeaRow,
  type KeywordRow,
  type NumberRole,
  type Period,
  type Question,
  type ReadColumn,
  type ReadDecisions,
  type Reading,
  type ReadOptions,
  type RejectedRow,
  type ReportKind,
  type ReportMatch,
  type ReportRow,
} from './reading';
export { writeCsv } from './write-csv';
export { readMarked, readMatch } from './rows/match-words';
export { roleOfHeader } from './columns/headers';
