export { findCommonSets, findUnlike, gatherIntoList, type CommonSet, type Unlike } from './common-sets';
export {
  applyDifference,
  changesFor,
  differenceOf,
  invertDifference,
  isNoDifference,
  noDifference,
  splitDifference,
  type ListDifference,
  type ListState,
} from './difference';
export { isRuled, sayRule, type HangRule } from './hang-rule';
export { compareEntries, mergeEntries, splitByTheme, type Compared, type Merged, type Part } from './merge';
export {
  cleanPlacement,
  foldPlacements,
  readPlacementLines,
  shutsOut,
  type PlacementLines,
} from './placements';
export { readNegativeLines, type NegativeLines } from './read-lines';
