import { nameKeyword, plainAmount, type SheetCells } from '@/core';
import type { StructureAnswer } from '@/contracts/platform';
import type { ElementStates } from '../../../repositories/structure/outside-changes';
import type { Mirror } from '../../../repositories/structure/structure';
import type { Open } from '../../open-workbench';
import { isFound, type Found, type WorkFor } from './kind';
import { cellsOfPlace } from './sheet-cells';

type Kind = 'set bid' | 'pause keyword' | 'run keyword';

export const keywordWork: WorkFor<Kind> = {
  'set bid': {
    refuse({ keywordId, wasMicros }, { snapshot }) {
      const keyword = snapshot.keyword.get(keywordId);
      if (!keyword) return GONE;
      return keyword.bidMicros === wasMicros
        ? undefined
        : `The bid of ${nameKeyword(keyword)} has changed meanwhile. Nothing was changed: look again.`;
    },
    isSoAlready: ({ bidMicros, wasMicros }) =>
      bidMicros === wasMicros ? 'This is the bid already.' : undefined,
    sameInTray: 'A bid for this keyword is in the tray already',
    translate: ({ kind, keywordId, bidMicros }, ids) => ({
      ...{ kind, keywordId: ids.keyword(keywordId), bidMicros },
    }),
    find({ keywordId, bidMicros, wasMicros }, { keywords }) {
      const found = keywords.find(({ id }) => id === keywordId)?.bidMicros;
      if (found === bidMicros) return 'there';
      return found === wasMicros ? 'missing' : 'different';
    },
    findOutside: (answer, before, after) =>
      bothOf(answer, before, after).flatMap(({ was, is }) =>
        was.bidMicros === null || is.bidMicros === null || was.bidMicros === is.bidMicros
          ? []
          : [{ kind: 'set bid', keywordId: is.id, bidMicros: is.bidMicros, wasMicros: was.bidMicros }],
      ),
    sheet: {
      ...{ task: 'Set the bid', status: 'live' },
      cells: ({ keywordId, bidMicros }, open) => ({
        Bid: plainAmount(bidMicros, open.account.currency),
        ...cellsOfKeyword(open, keywordId),
      }),
    },
    shownBy: () => 'keyword',
  },
  'pause keyword': {
    refuse: ({ keywordId }, { snapshot }) => (snapshot.keyword.has(keywordId) ? undefined : GONE),
    isSoAlready: ({ keywordId }, open) => hasStatus(open, keywordId, 'paused'),
    translate: ({ kind, keywordId }, ids) => ({ kind, keywordId: ids.keyword(keywordId) }),
    find: ({ keywordId }, mirror) => findStatus(mirror, keywordId, 'paused'),
    findOutside: (answer, before, after) =>
      bothOf(answer, before, after).flatMap(({ was, is }) =>
        was.status !== 'paused' && is.status === 'paused'
          ? [{ kind: 'pause keyword', keywordId: is.id }]
          : [],
      ),
    sheet: {
      task: 'Pause the keyword',
      status: 'paused',
      cells: ({ keywordId }, open) => cellsOfKeyword(open, keywordId),
    },
    shownBy: () => 'keyword',
  },
  'run keyword': {
    refuse: ({ keywordId }, { snapshot }) => (snapshot.keyword.has(keywordId) ? undefined : GONE),
    isSoAlready: ({ keywordId }, open) => hasStatus(open, keywordId, 'live'),
    translate: ({ kind, keywordId }, ids) => ({ kind, keywordId: ids.keyword(keywordId) }),
    find: ({ keywordId }, mirror) => findStatus(mirror, keywordId, 'live'),
    findOutside: (answer, before, after) =>
      bothOf(answer, before, after).flatMap(({ was, is }) =>
        was.status === 'paused' && is.status === 'live' ? [{ kind: 'run keyword', keywordId: is.id }] : [],
      ),
    sheet: {
      ...{ task: 'Run the keyword again', status: 'live' },
      cells: ({ keywordId }, open) => cellsOfKeyword(open, keywordId),
    },
    shownBy: () => 'keyword',
  },
};

const GONE = 'This keyword is not there any more.';

function hasStatus({ snapshot, names }: Open, keywordId: string, wanted: 'paused' | 'live') {
  const { status } = snapshot.keyword.get(keywordId)!;
  return status === wanted ? `${names.keyword?.(keywordId)} is ${status} already.` : undefined;
}

function findStatus({ keywords }: Mirror, keywordId: string, wanted: 'paused' | 'live'): Found {
  return isFound(keywords.find(({ id }) => id === keywordId)?.status === wanted);
}

function cellsOfKeyword(open: Open, keywordId: string): SheetCells {
  const keyword = open.snapshot.keyword.get(keywordId);
  if (!keyword) return { Keyword: keywordId };
  const { text, match, adGroupId } = keyword;
  return { Keyword: text, 'Match type': match, ...cellsOfPlace(open, { kind: 'adGroup', id: adGroupId }) };
}

/** Keywords of an answer that were there before and still are; the others are new, or gone with their ad group. */
function bothOf({ keywords }: StructureAnswer, before: ElementStates, after: ElementStates) {
  return keywords.flatMap(({ id }) => {
    const [was, is] = [before.keywords.get(id), after.keywords.get(id)];
    return was && is ? [{ was, is }] : [];
  });
}
