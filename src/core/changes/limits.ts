import type { MatchType } from '../gate';
import { normalise, words } from '../text';

/** What an account's platform allows (rules 12): a part of the account's profile. */
export type Limits = {
  accountNegatives: number;
  listNegatives: number;
  listPlacements: number;
  listsOnCampaign: number;
  wordsInNegative: number;
  /** code points of the normalised text */
  charactersInNegative: number;
};

/** What a new account begins with, until somebody says what its platform allows. */
export const USUAL_LIMITS: Limits = {
  accountNegatives: 1_200,
  listNegatives: 4_000,
  listPlacements: 20_000,
  listsOnCampaign: 25,
  wordsInNegative: 12,
  charactersInNegative: 100,
};

export type Refusal = { code: 'no word' | 'too many words' | 'too long' | 'product code'; message: string };

/**
 * Whether a text may become a negative (rules 1.2, 2.5, 12).
 * @param isProductCode asked with the raw text
 * @returns undefined when it may
 * @example checkNegative({ text: '???', match: 'broad' }, USUAL_LIMITS)?.code // 'no word'
 */
export function checkNegative(
  { text }: { text: string; match: MatchType },
  limits: Limits,
  isProductCode: (raw: string) => boolean = () => false,
): Refusal | undefined {
  const count = words(text).length;
  const length = [...normalise(text)].length;
  if (count === 0) return { code: 'no word', message: `A negative needs a word; “${text}” holds none.` };
  if (isProductCode(text)) {
    return {
      code: 'product code',
      message: `“${text}” is a product code. Codes can not be negatives: exclude the product instead.`,
    };
  }
  if (count > limits.wordsInNegative) {
    return {
      code: 'too many words',
      message: `A negative may hold ${limits.wordsInNegative} words; this one holds ${count}. Choose the words at fault.`,
    };
  }
  if (length > limits.charactersInNegative) {
    return {
      code: 'too long',
      message: `A negative may hold ${limits.charactersInNegative} characters; this one holds ${length}. Choose the words at fault.`,
    };
  }
  return undefined;
}
