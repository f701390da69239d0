import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compileGate, MATCH_TYPES, stops, type NegativeText } from '../gate';
import { proposeMends, type MendsQuestion } from './mends';

const LIST = { kind: 'list', id: '7' } as const;
const ask = (over: Partial<MendsQuestion>) =>
  proposeMends({
    negative: { text: 'free', match: 'phrase', place: LIST },
    passing: ['free standing hive'],
    others: [{ text: 'free hive plans', costMicros: 5 }],
    ...{ open: [], keywordId: 'k1', campaignId: 'c1' },
    ...over,
  });
const remove = { kind: 'remove negative', text: 'free', match: 'phrase', place: LIST };

describe('the mends of a conflict', () => {
  test('are longer ones in its place, its list taken down, nothing in its place, or the keyword paused', () => {
    expect(ask({})).toEqual([
      {
        how: 'longer',
        changes: [{ kind: 'add negative', text: 'free hive', match: 'phrase', place: LIST }, remove],
      },
      { how: 'taken down', changes: [{ kind: 'take down list', listId: '7', campaignId: 'c1' }] },
      { how: 'removed', changes: [remove] },
      { how: 'paused', changes: [{ kind: 'pause keyword', keywordId: 'k1' }] },
    ]);
  });

  test('leave out what is not there: a keyword, a campaign of its own, other terms', () => {
    expect(ask({ keywordId: null, campaignId: null, others: [] }).map(({ how }) => how)).toEqual(['removed']);
  });

  test('offer a narrower match type only where it lets all pass', () => {
    const question = {
      negative: { text: 'hive plans', match: 'broad', place: LIST } as const,
      others: [{ text: 'hive plans pdf', costMicros: 3 }],
    };
    const hows = (...passing: string[]) => ask({ ...question, passing }).map(({ how }) => how);
    expect(hows('plans of a hive')).toContain('narrower');
    expect(hows('plans of a hive', 'my hive plans')).not.toContain('narrower');
  });

  test('need something that has to pass', () => {
    expect(() => ask({ passing: [] })).toThrow(/needs a text/);
    expect(() => ask({ passing: ['hive'] })).toThrow(/does not stop/);
  });

  test('never stop what has to pass, nor what must stay open, nor anything that the negative did not stop', () => {
    const text = fc
      .array(fc.constantFrom('free', 'hive', 'plans', 'kit'), { minLength: 1, maxLength: 4 })
      .map((of) => of.join(' '));
    const asked = fc.record({
      ...{ negative: text, match: fc.constantFrom(...MATCH_TYPES) },
      ...{
        texts: fc.uniqueArray(text, { minLength: 2, maxLength: 8 }),
        open: fc.array(text, { maxLength: 3 }),
      },
    });
    fc.assert(
      fc.property(asked, text, ({ negative, match, texts, open }, any) => {
        const placed = { text: negative, match, place: LIST };
        const stopped = texts.filter((one) => stops(placed, one));
        const passing = stopped.filter((_, i) => i % 2 === 0);
        const others = stopped.filter((_, i) => i % 2 === 1).map((one) => ({ text: one, costMicros: 2 }));
        fc.pre(passing.length > 0);
        for (const { how, changes } of ask({ negative: placed, passing, others, open })) {
          const put = changes.flatMap((change): NegativeText[] =>
            change.kind === 'add negative' ? [change] : [],
          );
          const gate = compileGate(put);
          expect(passing.filter((one) => gate.isStopped(one))).toEqual([]);
          if (how === 'longer') expect(open.filter((one) => gate.isStopped(one))).toEqual([]);
          if (gate.isStopped(any)) expect(stops(placed, any)).toBe(true);
        }
      }),
    );
  });
});
