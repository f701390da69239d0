export {
  cancels,
  changeKey,
  inverse,
  isNewListId,
  listOf,
  newListId,
  type Change,
  type ChangeKind,
} from './change';
export { describeChange, describePlace, type Names } from './describe';
export { layGate, type RowGate, type ServedRows } from './draft';
export { effectOfDraft, negativesBroughtBy, protectedHits, type DraftEffect } from './effect';
export { checkNegative, productCodeTest, STANDIN_LIMITS, type Limits, type Refusal } from './limits';
export { roomAfter, type Room } from './room';
