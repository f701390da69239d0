export { createDictionary, type WordDictionary } from './dictionary';
export { normalise, words } from './normalise';
export { remainder } from './remainder';
export { stemOf } from './stem';
export { VARIANT_KINDS, variants, type Variant } from './variants';
export { compileVocabulary, lengthOf, type Vocabulary } from './vocabulary';
export { findNamed, type NamedRun } from './find-named';
export { positionsOfNgram } from './ngram-in-words';
