export {
  cancels,
  changeKey,
  codeKey,
  inverse,
  isNewListId,
  listOf,
  newListId,
  type Change,
  type ChangeKind,
  type ListContent,
} from './change';
export { describeChange, describePlace, nameKeyword, type Names } from './describe';
export { layGate } from './draft';
export type { RowGate, ServedRows } from './row-gate';
export {
  effectOfDraft,
  hangingPlace,
  isHungOn,
  negativesBroughtBy,
  protectedHits,
  rowsActedOn,
  type DraftEffect,
} from './effect';
export { checkNegative, USUAL_LIMITS, type Limits, type Refusal } from './limits';
export { faultOfCodePattern, productCodeTest } from './product-codes';
export { proposePullOuts, type PullOut } from './pull-out';
export { roomAfter, type Room } from './room';
