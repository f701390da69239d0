import type { Fault } from '@/contracts/sift';
import { formatConversions, formatDay, formatShare } from '@/ui/format';

/** From here on a word is offered as one at fault (rules 7.12). */
export const OFFERED = 0.8;

/**
 * What is held against a word, in a sentence.
 * @param since the first of all days that are kept
 * @example sayFault({ probability: 0.97, expected: 9.44, conversions: 0, terms: 70, clicks: 310 }, '2026-08-24') // 'Since 24 Aug its ad groups would have brought 9.4 conversions; it brought 0. 97 % sure that it is at fault.'
 */
export function sayFault({ probability, expected, conversions }: Fault, since: string | null): string {
  const when = since ? `Since ${formatDay(since)} its` : 'Its';
  return `${when} ad groups would have brought ${expected.toFixed(1)} conversions; it brought ${formatConversions(conversions)}. ${formatShare(probability)} sure that it is at fault.`;
}

/** What is said of a word of which too little is known. */
export const TOO_LITTLE =
  'Too few clicks to judge: its ad groups would have brought less than one conversion.';
