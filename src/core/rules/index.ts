export { isPhrase, isPromising, isStop, mayActByItself, opposes } from './actions';
export { bidOfRule } from './bid-of-rule';
export { budgetOfRule } from './budget-of-rule';
export { breaksPromise, withinBounds, type Bounds, type Kept } from './bounds';
export { type Judge, type Sums } from './meets';
export { readyRules } from './ready-rules';
export { neighboursOf, type Neighbour } from './neighbours';
export {
  MEASURES,
  OFTEN,
  SERVED_BY,
  type AgeCondition,
  type CampaignAction,
  type Condition,
  type How,
  type KeywordAction,
  type LookBack,
  type Measure,
  type Rule,
  type RuleAction,
  type ServedBy,
  type SumCondition,
  type TermCondition,
  type Where,
} from './rule';
export { tryRules, type Evenings, type TermFacts, type Tried, type Trial, type WouldStop } from './trial';
export { type FittedWeek } from './words/fit-weeks';
export { factsOfNgrams, tryWords, type TriedWords, type TriedWordsOutcome } from './words/try-words';
export { factsOfLists, type RuledList, type UnhungFacts } from './lists/facts-of-lists';
export { settleLists } from './lists/settle-lists';
export { asPhrases } from './settle-trial';
