export {
  faultOfRecipe,
  layRow,
  SHEET_COLUMNS,
  USUAL_RECIPE,
  WORDED_COLUMNS,
  type SheetCells,
  type SheetColumn,
  type SheetRecipe,
  type WordedColumn,
} from './recipe';
export {
  readResults,
  SAID_DONE,
  TO_DO,
  type GivenOut,
  type ResultColumns,
  type SheetResults,
} from './read-results';
