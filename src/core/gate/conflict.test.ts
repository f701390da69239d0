import { expect, test } from 'vitest';
import { classifyConflict, type Severity } from './conflict';
import type { MatchType } from './negative';

test.each<[MatchType, string, MatchType, string, Severity]>([
  ['exact', 'hive stand', 'broad', 'stand', 'shut out'],
  ['exact', 'hive stand', 'exact', 'hive stand', 'shut out'],
  ['phrase', 'hive stand', 'phrase', 'hive', 'shut out'],
  ['phrase', 'hive stand', 'exact', 'hive stand', 'narrowed'],
  ['broad', 'hive stand', 'broad', 'stand', 'narrowed'],
  ['broad', 'hive stand', 'broad', 'oak', 'none'],
])('%s keyword %j against %s %j: %s', (match, text, negativeMatch, negativeText, severity) => {
  const answer = classifyConflict({
    keyword: { match, text },
    negative: { match: negativeMatch, text: negativeText },
    terms: [],
  });
  expect(answer).toEqual({ severity, stoppedTerms: [] });
});

test('a keyword whose converting terms are stopped is costly, and the terms are named', () => {
  const answer = classifyConflict({
    keyword: { match: 'broad', text: 'hive' },
    negative: { match: 'phrase', text: 'oak' },
    terms: [
      { text: 'oak hive', conversions: 0 },
      { text: 'pine hive', conversions: 3 },
      { text: 'hive oak legs', conversions: 0.5 },
    ],
  });
  expect(answer).toEqual({ severity: 'costly', stoppedTerms: [0, 2] });
});
