import { screen, within } from '@testing-library/react';
import type { UserEvent } from '@testing-library/user-event';
import type { DraftOutcome } from '@/contracts/tray';
import { aChoiceAnswer, aListsView, aTermDetail, aTermLine, aTermsPage } from '../testing/builders';
import { show, type Answers } from '../testing/screen';
import { SiftScreen } from './sift-screen';

/** What the tests of Sift start from: three terms, and answers about them. */

export const movie = aTermLine();
export const kit = aTermLine({
  id: 2,
  raw: 'bee hive kit',
  words: ['bee', 'hive', 'kit'],
  conversions: 2,
  isProtected: true,
});
export const code = aTermLine({ id: 3, raw: 'LK-2041-S', words: [], kind: 'code' });

export const drafted: Extract<DraftOutcome, { outcome: 'drafted' }> = {
  ...{ outcome: 'drafted', changeId: 5, said: 'Stop “movie” (phrase) in campaign Hives', heed: null },
  change: { kind: 'add negative', text: 'movie', match: 'phrase', place: { kind: 'campaign', id: '1' } },
};

export const ANSWERS: Answers = {
  'GET sift/terms': aTermsPage([movie, kit, code]),
  'GET sift/words': {
    lines: [
      {
        ...{ ngram: 'movie', forms: ['movies'], isKept: false, terms: 4 },
        ...{ costMicros: 7_500_000, withoutReturnMicros: 7_500_000, conversions: 0 },
        fault: { probability: 0.93, expected: 4.2, conversions: 0, terms: 9, clicks: 120 },
      },
    ],
    ...{ neutral: 0, since: '2026-08-24' },
  },
  'GET sift/themes': {
    lines: [{ words: ['movie', 'cast'], terms: 3, clicks: 9, costMicros: 5_000_000, notes: 0, fault: null }],
  },
  'GET sift/choice': ({ query }) => aChoiceAnswer({ id: Number(query.term) }),
  'GET sift/term': ({ query }) => {
    const line = [movie, kit, code].find(({ id }) => id === Number(query.term))!;
    return aTermDetail({ id: line.id, raw: line.raw, words: line.words, kind: line.kind });
  },
  'GET views': { views: [] },
  'GET lists': aListsView(),
  'POST sift/looked': { added: 1 },
  'GET sift/variants': {
    ...{ negative: { text: 'movie', match: 'phrase' }, place: { kind: 'campaign', id: '1' }, offers: [] },
  },
};

export const showSift = (more: Answers = {}, search = '') =>
  show(<SiftScreen />, { answers: { ...ANSWERS, ...more }, search });

/** The table with the focus, once its rows are there. */
export async function table(user: UserEvent): Promise<HTMLElement> {
  const grid = await screen.findByRole('grid', { name: 'Search terms' });
  await within(grid).findByText('kit');
  await user.click(grid);
  grid.focus();
  return grid;
}
export const inHand = () => screen.getByRole('region', { name: 'In hand' });
