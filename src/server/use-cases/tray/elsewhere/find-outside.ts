import { outcomeKey, type Change } from '@/core';
import type { StructureAnswer } from '@/contracts/platform';
import type { StoredChange } from '../../../repositories/tray/changes';
import type { ElementStates } from '../../../repositories/structure/outside-changes';
import { workOfAll } from '../kinds';
import { partedByAuthor, type Author } from './authors';

/**
 * What others changed outside lists: what an answer of the platform says otherwise than the mirror had it, and nobody
 * sent from here.
 * @param before elements as the mirror had them; @param after as it has them now
 * @param ours changes that were sent and not read back until now
 */
export function findOutside(
  answer: StructureAnswer,
  before: ElementStates,
  after: ElementStates,
  ours: readonly StoredChange[],
): (Author & { change: Change })[] {
  const found = partedByAuthor(answer).flatMap(({ author, part }) =>
    workOfAll
      .flatMap((work) => work.findOutside?.(part, before, after) ?? [])
      .map((change) => ({ ...author, change })),
  );
  const sent = new Set(ours.flatMap(({ change, state }) => (state === 'refused' ? [] : outcomeKey(change))));
  const seen = new Set<string>();
  return found.filter(({ change }) => {
    const key = outcomeKey(change);
    const isNew = !sent.has(key) && !seen.has(key); // twins of one place came or went together
    seen.add(key);
    return isNew;
  });
}
