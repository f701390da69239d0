import type { WantedVerdict } from './decisions';
import { counted } from '@/core';

/**
 * A verdict in one line of words, as the ledger has it.
 * @param what the term, or how many there are of them
 * @example sayVerdict('“free hive”', { is: 'kept', note: null }) // 'Keep “free hive” open'
 */
export function sayVerdict(
  what: string,
  verdict: Pick<WantedVerdict, 'is'> & { moreClicks?: number },
  each = 'it has',
): string {
  switch (verdict.is) {
    case 'kept':
      return `Keep ${what} open`;
    case 'aside':
      return `Set ${what} aside until ${each} ${counted(verdict.moreClicks ?? 0, 'more click')}`;
    case 'open':
      return `Take ${what} back`;
  }
}
