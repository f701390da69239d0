import { changeKey, type Change } from '@/core';
import type { StructureAnswer } from '@/contracts/platform';
import type { StoredChange } from '../../repositories/change-sets';
import type { ElementStates } from '../../repositories/outside-changes';

const isThere = (element: { status: string } | undefined) =>
  element !== undefined && element.status !== 'removed';

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
): Change[] {
  const found = [
    ...answer.negatives.flatMap(({ id, status }) => {
      const [was, is] = [before.negatives.get(id), after.negatives.get(id)];
      const negative = is ?? was;
      if (!negative || isThere({ status }) === (was !== undefined)) return [];
      const { text, match, place } = negative;
      return [{ kind: was ? 'remove negative' : 'add negative', text, match, place } as const];
    }),
    ...answer.exclusions.flatMap(({ id, status }) => {
      const [was, is] = [before.exclusions.get(id), after.exclusions.get(id)];
      const exclusion = is ?? was;
      if (!exclusion || isThere({ status }) === (was !== undefined)) return [];
      const { code, place } = exclusion;
      return [{ kind: was ? 'readmit product' : 'exclude product', code, place } as const];
    }),
    ...answer.keywords.flatMap(({ id }) => keywordChanges(before.keywords.get(id), after.keywords.get(id))),
  ];
  const sent = new Set(ours.flatMap(({ change, state }) => (state === 'refused' ? [] : sentKey(change))));
  const seen = new Set<string>();
  return found.filter((change) => {
    const key = sentKey(change);
    const isNew = !sent.has(key) && !seen.has(key); // twins of one place came or went together
    seen.add(key);
    return isNew;
  });
}

type Keyword = ElementStates['keywords'] extends Map<string, infer K> ? K : never;

function keywordChanges(was: Keyword | undefined, is: Keyword | undefined): Change[] {
  if (!was || !is) return []; // it is new, or gone with what it stood in
  const changes: Change[] = [];
  if (was.status !== 'paused' && is.status === 'paused')
    changes.push({ kind: 'pause keyword', keywordId: is.id });
  if (was.status === 'paused' && is.status === 'live')
    changes.push({ kind: 'run keyword', keywordId: is.id });
  if (was.bidMicros !== null && is.bidMicros !== null && was.bidMicros !== is.bidMicros) {
    const [wasMicros, bidMicros] = [was.bidMicros, is.bidMicros];
    changes.push({ kind: 'set bid', keywordId: is.id, bidMicros, wasMicros });
  }
  return changes;
}

/** Tells a change and its opposite apart. */
const sentKey = (change: Change) =>
  `${change.kind}|${changeKey(change)}${change.kind === 'set bid' ? `|${change.bidMicros}` : ''}`;
