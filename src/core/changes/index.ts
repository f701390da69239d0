export {
  cancels,
  changeKey,
  dependentsOf,
  describeChange,
  doesWhat,
  inverse,
  listAlteredBy,
  listMadeBy,
  listOf,
  negativesBroughtBy,
  outcomeKey,
  rowsActedOn,
  stopsIn,
} from './about-change';
export {
  isNewListId,
  PRIORITIES,
  keyOfNewList,
  newListId,
  type Change,
  type ChangeKind,
  type Priority,
  type ChangeOf,
  type ListContent,
  type OwnKeyword,
} from './change';
export { layGate } from './gate/lay-gate';
export { effectOfDraft, extendDraft, protectedHits, type DraftEffect } from './gate/effect';
export { hangingPlace, isHungOn } from './hanging';
export { CHANGE_KINDS } from './kinds';
export type { MadeList } from './kinds/kind';
export { proposeMends, type Mend, type MendsQuestion } from './mends';
export { checkNegative, USUAL_LIMITS, type Limits, type Refusal } from './limits';
export { describePlace, nameKeyword, type Names } from './names';
export { codeKey, faultOfCodePattern, productCodeTest } from './product-codes';
export { proposePullOuts, type PullOut } from './pull-out';
export { roomAfter, type Room } from './gate/room';
export type { RowGate, ServedRows } from './gate/row-gate';
export { seatAlone, type Seating } from './seat-alone';
