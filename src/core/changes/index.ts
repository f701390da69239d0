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
} from './change';
export { describeChange, describePlace, nameKeyword, type Names } from './describe';
export { layGate, type RowGate, type ServedRows } from './draft';
export { effectOfDraft, negativesBroughtBy, protectedHits, rowsActedOn, type DraftEffect } from './effect';
export { checkNegative, productCodeTest, STANDIN_LIMITS, type Limits, type Refusal } from './limits';
export { proposePullOuts, type PullOut } from './pull-out';
export { roomAfter, type Room } from './room';
