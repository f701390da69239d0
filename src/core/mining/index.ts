export { countNgrams, type Ngram } from './ngrams';
export { buildTermTable, matchingTexts, type TermTable } from './term-table';
