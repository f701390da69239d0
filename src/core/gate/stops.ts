import { words } from '../text';
import { matchWords } from './match';
import type { NegativeText } from './negative';

/**
 * Whether one negative stops one query: the readable rule (2.1), against which the compiled gates are tested.
 * A negative without a word stops nothing; `checkNegative` is what refuses it.
 * @example stops({ text: 'free', match: 'broad' }, 'free hive plans') // true
 */
export function stops(negative: NegativeText, query: string): boolean {
  return matchWords(negative.match, words(negative.text), words(query));
}
