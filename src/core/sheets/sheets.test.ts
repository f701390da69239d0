import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { SHEET_COLUMNS } from '.';
import {
  faultOfRecipe,
  layRow,
  readResults,
  USUAL_RECIPE,
  type GivenOut,
  type SheetCells,
  type SheetRecipe,
  type SheetResults,
} from '.';

const stop = (id: number, text: string, campaign = 'Hives'): GivenOut => ({
  id,
  cells: {
    ...{ Change: String(id), Do: 'Add the negative', Status: 'live', Place: 'campaign', Campaign: campaign },
    ...{ Text: text, 'Match type': 'exact', State: 'to do' },
  },
});
const given = [stop(1, 'movie'), stop(2, 'song'), stop(3, 'song', 'Stands')];

const recipeOf = (columns: SheetRecipe['columns'], words: SheetRecipe['words'] = {}): SheetRecipe => ({
  ...{ name: 'mine', columns, words, rowsPerFile: null },
});
const asHeaded = (...headings: [(typeof SHEET_COLUMNS)[number], string][]) =>
  headings.map(([column, heading]) => ({ column, heading }));

function read(table: string[][], recipes = [USUAL_RECIPE], of = given, chosen = {}): SheetResults {
  const answer = readResults(table, of, recipes, chosen);
  if ('error' in answer) throw new Error(answer.error);
  return answer;
}

describe('a recipe', () => {
  test('puts columns in its order, under its headings and in its words', () => {
    const mine = recipeOf(asHeaded(['Match type', 'Kind'], ['Text', 'Word'], ['Bid', 'Bid']), {
      'Match type': { exact: 'only this' },
    });
    expect(layRow(given[0]!.cells, mine)).toEqual(['only this', 'movie', null]);
  });

  test.each([
    [recipeOf([]), 'Choose at least one column'],
    [recipeOf(asHeaded(['Text', ' '])), 'needs a heading'],
    [recipeOf(asHeaded(['Text', 'Word'], ['List', 'word '])), 'Two columns have the heading'],
    [recipeOf(asHeaded(['Text', 'Word']), { Do: { a: 'x', b: 'X' } }), 'could not tell them apart'],
    [USUAL_RECIPE, undefined],
  ])('%# says what is wrong with it', (recipe, fault) => {
    if (fault === undefined) expect(faultOfRecipe(recipe)).toBeUndefined();
    else expect(faultOfRecipe(recipe)).toContain(fault);
  });

  test('knows no words of columns by the names of objects', () => {
    expect(layRow({ Do: 'constructor' }, recipeOf(asHeaded(['Do', 'Do'])))).toEqual(['constructor']);
  });
});

describe('a result sheet', () => {
  test('says what was carried out, what not and why, and what it leaves out', () => {
    const answer = read([
      ['Change', 'Text', 'Result', 'Reason'],
      ['1', 'movie', 'OK', ''],
      ['2', 'song', 'Failed', 'list is full'],
    ]);
    expect(answer.results).toEqual([
      { id: 1, failed: null },
      { id: 2, failed: 'list is full' },
    ]);
    expect(answer).toMatchObject({ recipe: 'as usual', unclear: [], unnamed: [3] });
  });

  test('without the number of a change it goes by the cells, and by own headings and words', () => {
    const mine = recipeOf(asHeaded(['Campaign', 'Kampagne'], ['Text', 'Wort'], ['Match type', 'Art']), {
      'Match type': { exact: 'genau' },
    });
    const answer = read(
      [['Kampagne', 'Wort', 'Art', 'Fehler'], ['Stands', 'Song', 'GENAU', ''], []],
      [USUAL_RECIPE, mine],
      given,
      { reason: 3 },
    );
    expect(answer).toMatchObject({ recipe: 'mine', results: [{ id: 3, failed: null }], unnamed: [1, 2] });
  });

  test('what may be about two changes, or about none, is not guessed', () => {
    const mine = recipeOf(asHeaded(['Text', 'Word']));
    const answer = read(
      [
        ['Word', 'Result'],
        ['song', 'ok'],
        ['other', 'ok'],
      ],
      [mine],
    );
    expect(answer.results).toEqual([]);
    expect(answer.unclear).toEqual([
      { line: 2, why: expect.stringContaining('2 changes of this tray have these cells') },
      { line: 3, why: 'no change of this tray has these cells' },
    ]);
  });

  test('a number whose other cells are those of another change is not believed', () => {
    const { results, unclear } = read([
      ['Change', 'Text', 'Result'],
      ['1', 'song', 'ok'],
      ['9', 'song', 'ok'],
    ]);
    expect(results).toEqual([]);
    expect(unclear.map(({ why }) => why)).toEqual([
      'change 1 has another text in this tray',
      'no change 9 of this tray waits for a result',
    ]);
  });

  test('rows that contradict each other say nothing', () => {
    const answer = read([
      ['Change', 'Result'],
      ['1', 'ok'],
      ['2', 'ok'],
      ['1', 'failed'],
    ]);
    expect(answer.results).toEqual([{ id: 2, failed: null }]);
    expect(answer.unclear).toEqual([{ line: 4, why: 'line 2 says otherwise of the same change' }]);
  });

  test('a result that says neither is told; what nobody touched goes on waiting', () => {
    const answer = read([
      ['Change', 'State'],
      ['1', 'to do'],
      ['2', 'pending'],
      ['3', 'done'],
    ]);
    expect(answer).toMatchObject({ results: [{ id: 3, failed: null }], unnamed: [1, 2] });
    expect(answer.unclear).toEqual([{ line: 3, why: '“pending” says neither done nor failed' }]);
  });

  test.each([
    ['OK', true],
    ['Added', true],
    ['✓', true],
    ['No errors', true],
    ['not found', false],
    ['Error 17', false],
    ['0', false],
  ])('“%s” is understood', (word, isDone) => {
    const [result] = read([
      ['Change', 'Result'],
      ['1', word],
    ]).results;
    expect(result).toEqual({ id: 1, failed: isDone ? null : word });
  });

  test('lines above the header, other columns and marks against formulas are passed over', () => {
    const formula = stop(4, '-hive');
    const answer = read(
      [['Made on Monday'], [], ['Shop', 'Text', 'Result'], ['x', "'-hive", 'ok']],
      undefined,
      [formula],
    );
    expect(answer.results).toEqual([{ id: 4, failed: null }]);
  });

  test('a number that a sheet program wrote otherwise is the same number', () => {
    const bid: GivenOut = { id: 5, cells: { Do: 'Set the bid', Keyword: 'hive', Bid: '0.50' } };
    expect(
      read(
        [
          ['Keyword', 'Bid', 'Result'],
          ['hive', '0,5', 'ok'],
        ],
        undefined,
        [bid],
      ).results,
    ).toHaveLength(1);
  });

  test.each([[[]], [[['a', 'b']]], [[['']]]])('a table without the headings is refused: %j', (table) => {
    expect(readResults(table, given, [USUAL_RECIPE])).toMatchObject({
      error: expect.stringContaining('headings'),
    });
  });

  test('a sheet with no result says nothing of any change', () => {
    const answer = read([
      ['Change', 'Text'],
      ['1', 'movie'],
    ]);
    expect(answer).toMatchObject({ resultColumn: null, results: [], unnamed: [1, 2, 3] });
  });
});

/** Cells as they may stand anywhere, with what spreadsheets take for formulas or numbers. */
const cell = fc.oneof(
  fc.string({ maxLength: 8 }),
  fc.constantFrom('=1+1', "'x", '-hive', '0.50', '1e3', 'constructor', '__proto__', 'to do'),
);
const changesArb = fc
  .array(fc.record({ Text: cell, Campaign: cell, Do: fc.constantFrom('Add the negative', 'Set the bid') }), {
    ...{ minLength: 1, maxLength: 12 },
  })
  .map((all) =>
    all.map((cells, id): GivenOut => ({ id, cells: { ...cells, Change: String(id) } as SheetCells })),
  );
const recipeArb = fc
  .shuffledSubarray(['Text', 'Campaign', 'Do', 'Why'] as const, { minLength: 0 })
  .map((columns) =>
    recipeOf(asHeaded(['Change', 'No.'], ...columns.map((c) => [c, `our ${c}`] as [typeof c, string]))),
  );

test('property: whatever the recipe, a sheet that is given out and filled in reads back as it was filled in', () => {
  fc.assert(
    fc.property(changesArb, recipeArb, fc.infiniteStream(fc.boolean()), (changes, recipe, outcomes) => {
      const failed = new Map(changes.map(({ id }) => [id, outcomes.next().value ? 'full' : null]));
      const table = [
        [...recipe.columns.map(({ heading }) => heading), 'Result', 'Reason'],
        ...changes.map(({ id, cells }) => [
          ...layRow(cells, recipe).map((one) => one ?? ''),
          ...(failed.get(id) === null ? ['done', ''] : ['failed', 'full']),
        ]),
      ];
      const { results, unclear, unnamed } = read(table, [recipe], changes);
      expect(new Map(results.map(({ id, failed: why }) => [id, why]))).toEqual(failed);
      expect([...unclear, ...unnamed]).toEqual([]);
    }),
  );
});

test('property: a sheet without numbers never gives a change the result of another', () => {
  const mine = recipeOf(asHeaded(['Text', 'Word'], ['Campaign', 'Where']));
  fc.assert(
    fc.property(changesArb, (changes) => {
      for (const { id, cells } of changes) {
        const table = [
          ['Word', 'Where', 'Result'],
          [...layRow(cells, mine).map((one) => one ?? ''), 'done'],
        ];
        const { results } = read(table, [mine], changes);
        expect(results.every((one) => one.id === id)).toBe(true);
      }
    }),
  );
});
