export { createDictionary, type WordDictionary } from './dictionary';
export { normalise, words } from './normalise';
