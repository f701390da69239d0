import { expect, test } from 'vitest';
import type { StructureAnswer } from '@/contracts/platform';
import { partedByAuthor } from './authors';

const negative = (
  id: string,
  changedBy?: string,
  changedAt?: string,
): StructureAnswer['negatives'][number] => ({
  ...{ id, text: 'movie', match: 'phrase', place: { kind: 'account', id: null } },
  ...{ createdAt: '2026-11-20T12:00:00Z', status: 'live', changedBy, changedAt },
});
const answer = (over: Partial<StructureAnswer>): StructureAnswer => ({
  ...{ revision: 7, today: '2026-11-25', campaigns: [], adGroups: [], keywords: [] },
  ...{ lists: [], hangings: [], negatives: [], exclusions: [], placements: [] },
  ...over,
});

test('an answer is parted by who changed what on which day, and nothing is lost', () => {
  const negatives = [
    negative('N1', 'Ilka Brandt', '2026-11-24'),
    negative('N2'),
    negative('N3', 'Ilka Brandt', '2026-11-24'),
    negative('N4', 'Ilka Brandt', '2026-11-25'),
  ];
  const hangings: StructureAnswer['hangings'] = [
    { listId: 'S1', campaignId: 'C1', status: 'live', since: null, changedBy: 'Jorin Aske' },
  ];
  const parts = partedByAuthor(answer({ negatives, hangings }));
  expect(parts.map(({ author: { by, on }, part }) => [by, on, part.negatives.map(({ id }) => id)])).toEqual([
    ['Jorin Aske', null, []],
    ['Ilka Brandt', '2026-11-24', ['N1', 'N3']],
    [null, null, ['N2']],
    ['Ilka Brandt', '2026-11-25', ['N4']],
  ]);
  expect(parts[0]!.part.hangings).toEqual(hangings);
  expect(parts.every(({ part }) => part.revision === 7)).toBe(true);
});

test('an answer without changes has no parts', () => {
  expect(partedByAuthor(answer({}))).toEqual([]);
});
