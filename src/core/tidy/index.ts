export { daysBeforeForce, findConflicts, type Conflict, type ConflictsQuestion } from './conflicts';
export {
  campaignsOverlap,
  compileDuplicates,
  effectiveStatus,
  type DeliberateSplit,
  type DuplicateFinder,
  type Duplicates,
  type DuplicatesAccount,
  type DuplicatesOptions,
  type Segment,
  type Status,
} from './duplicates';
export { findMisspelt } from './misspelt';
export { findProtectedHits, type ProtectedHit } from './protected';
export { proveNeedless, type Proof } from './proof';
export { compileReach, type Reach } from './reach';
export { findRedundant, type Redundancy } from './redundant';
export { certaintyOfSurvivor, rankSurvivors, type Contender, type Expected } from './survivor';
export { compileLeftOpen, findRouting } from './routing';
