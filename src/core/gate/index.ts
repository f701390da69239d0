export { standTogether, textOfChosen } from './chosen-words';
export { compileAccountGate, type AccountGate } from './compiled/account-gate';
export { compileGate, type Gate } from './compiled/compile-gate';
export { classifyConflict, severityOfStopped, textSeverity, type Severity } from './conflict';
export { covers, coversWhatItStops } from './covers';
export { holds, matchSlice } from './match';
export {
  isInForceIn,
  MATCH_TYPES,
  placeKey,
  type AccountShape,
  type MatchType,
  type NegativeText,
  type Place,
  type PlacedNegative,
} from './negative';
export { stops } from './stops';
export { bitOf, EVERY_WORD } from './compiled/word-bits';
