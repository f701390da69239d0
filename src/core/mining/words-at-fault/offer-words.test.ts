import { describe, expect, test } from 'vitest';
import type { WordAtFault } from './judge-ngrams';
import { offerWords, withoutParts, type OfferQuestion } from './offer-words';

describe('what is offered', () => {
  const judged = (ngram: string, probability: number, expected = 5): WordAtFault => ({
    ...{ ngram, probability, expected, terms: 3, clicks: 90, conversions: 0 },
  });
  const words = [
    judged('jobs', 0.97),
    judged('hive jobs', 0.9),
    judged('how to', 0.85),
    judged('to', 0.6),
    judged('rare', 0.9, 0.4),
    judged('to build', 0.81),
    judged('to build a', 0.95),
  ];

  const offer = (over: Partial<OfferQuestion> = {}) =>
    offerWords({
      ...{ words, level: 0.8, brandWords: [], mayStand: () => true, termsAround: () => [] },
      ...{ keywordsStoppedBy: () => [], protectedBy: () => [] },
      ...over,
    });
  const offered = (over?: Partial<OfferQuestion>) => offer(over).offered.map(({ word }) => word.ngram);

  test('the shortest that reach the level, with at least one conversion expected', () => {
    expect(offered()).toEqual(['jobs', 'how to', 'to build']);
    expect(offered({ level: 0.5 })).toEqual(['jobs', 'to']);
    expect(offer().offered[0]!.negatives).toEqual([{ text: 'jobs', match: 'phrase' }]);
  });

  test('what holds a brand word, or would stop a live keyword, is not; and it is said why', () => {
    const stopped = ({ text }: { text: string }) => (text === 'how to' ? ['how to keep bees'] : []);
    const { offered: rest, barred } = offer({ brandWords: ['jobs'], keywordsStoppedBy: stopped });
    expect(rest.map(({ word }) => word.ngram)).toEqual(['to build']);
    expect(barred.map(({ word, by, names }) => [word.ngram, by, names])).toEqual([
      ['jobs', 'brand word', ['jobs']],
      ['how to', 'live keyword', ['how to keep bees']],
    ]);
  });

  test('around a protected term, longer negatives that hold the word and leave the term open', () => {
    const [jobs] = offer({
      protectedBy: ({ text }) => (text === 'jobs' ? ['bee jobs'] : []),
      termsAround: () => [
        { text: 'bee jobs', clicks: 9 },
        { text: 'hive jobs near', clicks: 5 },
        { text: 'old hive jobs', clicks: 4 },
        { text: 'jobs', clicks: 1 },
      ],
    }).offered;
    expect(jobs!.leavesOpen).toEqual(['bee jobs']);
    expect(jobs!.negatives).toEqual([
      { text: 'jobs', match: 'exact' },
      { text: 'hive jobs', match: 'phrase' },
    ]);
  });

  test('what only protected terms hold is barred by them', () => {
    const { offered: none, barred } = offer({
      words: [words[0]!],
      protectedBy: () => ['bee jobs'],
      termsAround: () => [{ text: 'bee jobs', clicks: 9 }],
    });
    expect(none).toEqual([]);
    expect(barred).toEqual([{ word: words[0], by: 'protected term', names: ['bee jobs'] }]);
  });

  test('in a list of all, those stand aside of which a part reaches the level', () => {
    expect(withoutParts(words, 0.8).map(({ ngram }) => ngram)).toEqual([
      'jobs',
      'how to',
      'to',
      'rare',
      'to build',
    ]);
  });
});
