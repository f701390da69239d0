import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { combineWords, countCombinations, readIdeaLines, type WordColumn } from './index';

describe('a messy list', () => {
  const texts = (pasted: string) => readIdeaLines(pasted).ideas.map(({ text }) => text);

  test.each([
    ['1. potter salary', ['potter salary']],
    ['2) "potter salary"', ['potter salary']],
    ['• potter salary,', ['potter salary']],
    ['- [potter salary]', ['potter salary']],
    ['“potter salary”', ['potter salary']],
    ['potter salary.', ['potter salary']],
    ['potter salary (2,900)', ['potter salary']],
    ['potter salary – people who look for work', ['potter salary']],
    ['potter salary → jobs', ['potter salary']],
    ['potter jobs, potter salary; kiln jobs', ['potter jobs', 'potter salary', 'kiln jobs']],
    ['Do it yourself: kiln plans, brick kiln', ['kiln plans', 'brick kiln']],
    ['As you said: repairs', ['repairs']],
    ['second-hand kiln', ['second hand kiln']],
    ['kiln 1,000 c', ['kiln 1 000 c']],
    ['St. Ives pottery', ['st ives pottery']],
  ])('%s', (line, expected) => {
    expect(texts(line)).toEqual(expected);
  });

  test('tells what was cleaned, what it is about, what is refused and what stands twice', () => {
    const read = readIdeaLines(
      [
        'Here are some words that you may want to exclude from your campaigns.',
        '**Jobs and careers**',
        '1. kiln jobs',
        'potter salary',
        '## Learning',
        'KILN JOBS',
        '???',
        'a '.repeat(12),
      ].join('\r\n'),
    );
    expect(read.ideas).toEqual([
      { text: 'kiln jobs', line: 3, topic: 'Jobs and careers' },
      { text: 'potter salary', line: 4, topic: 'Jobs and careers' },
    ]);
    expect(read.topics).toEqual([
      { line: 2, topic: 'Jobs and careers' },
      { line: 5, topic: 'Learning' },
    ]);
    expect(read.cleaned).toEqual([
      { line: 3, raw: '1. kiln jobs', became: ['kiln jobs'] },
      { line: 6, raw: 'KILN JOBS', became: ['kiln jobs'] },
    ]);
    expect(read.refused.map(({ line }) => line)).toEqual([1, 7, 8]);
    expect(read.twice).toEqual([{ line: 6, text: 'kiln jobs', sameAs: 3 }]);
  });

  test('a table is read by its header', () => {
    expect(texts('Match type\tKeyword\tVolume\nbroad\tkiln, small\t90\n\t\t\nbroad\tkiln jobs\t10')).toEqual([
      'kiln small',
      'kiln jobs',
    ]);
  });

  test('every line is accounted for, whatever it holds', () => {
    const line = fc.oneof(
      fc.string(),
      fc.constantFrom('1. kiln', '- a, b', 'Jobs:', '"kiln"', '…', '((', 'kiln (', 'x – y', '\t', '[x] kiln'),
    );
    fc.assert(
      fc.property(fc.array(line, { maxLength: 20 }), (lines) => {
        const pasted = lines.map((one) => one.replaceAll(/[\r\n]/gu, ' '));
        const read = readIdeaLines(pasted.join('\n'));
        const told = new Set(
          [read.ideas, read.topics, read.refused, read.twice].flatMap((all) => all.map((one) => one.line)),
        );
        for (const [i, one] of pasted.entries()) {
          const isHeader = !told.has(i + 1) && read.ideas.every((idea) => idea.line > i + 1);
          if (one.replace(/^\uFEFF/u, '').trim() !== '' && !isHeader) expect(told).toContain(i + 1);
        }
        expect(new Set(read.ideas.map(({ text }) => text)).size).toBe(read.ideas.length);
      }),
    );
  });
});

describe('combinations', () => {
  const columns: WordColumn[] = [
    { words: ['cheap', 'used'], mayBeLeftOut: true },
    { words: ['Kiln'], mayBeLeftOut: false },
    { words: ['near me', ' '], mayBeLeftOut: true },
  ];

  test('take a word of each column, in order or in any', () => {
    expect([...combineWords(columns, { anyOrder: false })]).toEqual([
      'cheap kiln near me',
      'cheap kiln',
      'used kiln near me',
      'used kiln',
      'kiln near me',
      'kiln',
    ]);
    const any = [...combineWords(columns, { anyOrder: true })];
    expect(any).toContain('near me kiln cheap');
    expect(any).toHaveLength(2 * 6 + 2 * 2 + 2 + 1);
  });

  test('are as many as is said before, and each is made once', () => {
    const column = fc.record({
      words: fc.uniqueArray(fc.constantFrom('a', 'b', 'c', ''), { maxLength: 3 }),
      mayBeLeftOut: fc.boolean(),
    });
    // Words of different columns differ, so that no two combinations are the same text.
    const distinct = fc
      .array(column, { maxLength: 4 })
      .map((all) => all.map((of, i) => ({ ...of, words: of.words.map((word) => word && word + String(i)) })));
    fc.assert(
      fc.property(distinct, fc.boolean(), (of, anyOrder) => {
        const made = [...combineWords(of, { anyOrder })];
        expect(made).toHaveLength(countCombinations(of, { anyOrder }));
        expect(new Set(made).size).toBe(made.length);
      }),
    );
  });

  test('the same text from several columns is made once', () => {
    const twice = [
      { words: ['kiln'], mayBeLeftOut: true },
      { words: ['kiln'], mayBeLeftOut: true },
    ];
    expect([...combineWords(twice, { anyOrder: true })]).toEqual(['kiln kiln', 'kiln']);
    expect(countCombinations(twice, { anyOrder: true })).toBe(4);
  });
});
