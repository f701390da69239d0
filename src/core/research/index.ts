export { combineWords, countCombinations, type CombineSettings, type WordColumn } from './combine-words';
export { groupIdeas, type GroupSettings, type IdeaGroup, type IdeaGroups } from './group-ideas';
export { readIdeaLines, type IdeaLines } from './idea-lines';
export { proposeStems, type Stem } from './propose-stems';
export { findRemainders, type Remainders } from './remainders';
export { strikeOut } from './strike-out';
export { stemTexts, type StemmedTexts } from './stemmed-texts';
