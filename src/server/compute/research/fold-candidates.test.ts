import { expect, test } from 'vitest';
import { foldCandidates } from './fold-candidates';

const idea = (key: string, ...sources: number[]) => ({
  ...{ key, sources, volume: null, volumeFrom: null, volumeTo: null },
  ...{ openingBidMicros: null, relatedness: null },
});

test('forms of the same words are one candidate with all their sources, the shortest form first', () => {
  expect(
    foldCandidates([idea('jobs', 1), idea('cover letters', 2), idea('job', 2, 3), idea('cover letter', 1)]),
  ).toEqual([
    { forms: ['job', 'jobs'], sources: [1, 2, 3] },
    { forms: ['cover letter', 'cover letters'], sources: [2, 1] },
  ]);
});

test('other words, or the same in another order, are other candidates', () => {
  expect(foldCandidates([idea('job free'), idea('free job'), idea('free')])).toHaveLength(3);
});
