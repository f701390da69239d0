import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import type { ResultsRead, SheetRecipes } from '@/contracts/sheets';
import { aSentState, aTrayView } from '@/screens/testing/builders';
import { show, type Answers } from '@/screens/testing/screen';
import { Tray } from '../tray';

const recipes: SheetRecipes = {
  recipes: [
    {
      ...{ id: 4, name: 'for the agency', words: {}, rowsPerFile: 500 },
      columns: [
        { column: 'Text', heading: 'Negative' },
        { column: 'Match type', heading: 'Kind' },
      ],
    },
  ],
  words: {
    ...{ Do: ['Add the negative'], Status: ['live'], Place: ['campaign'] },
    'Match type': ['exact', 'phrase', 'broad'],
  },
};
const answers = {
  'GET tray': aTrayView({ sent: [aSentState({ state: 'handed over' as const, total: 2 })] }),
  'GET sheet-recipes': recipes,
  'GET tray/sent/[set]/rows': { rows: [{ Change: '21', Text: 'movie', 'Match type': 'phrase' }] },
} satisfies Answers;
const note = async () => within(await screen.findByTestId('sent-note'));

describe('the columns of a sheet', () => {
  test('that were kept once are those of the next sheet', async () => {
    const { user } = show(<Tray />, { answers });
    await user.click((await note()).getByRole('combobox', { name: 'Columns of the sheet' }));
    await user.click(await screen.findByRole('option', { name: 'for the agency' }));
    expect((await note()).getByText('CSV').getAttribute('href')).toBe(
      '/api/web/tray/sent/9/sheet?as=csv&recipe=4',
    );
  });

  test('are chosen, ordered, headed and worded, and seen at once', async () => {
    const { user, asked } = show(<Tray />, {
      answers: {
        ...answers,
        'POST sheet-recipes': { id: 5 },
        'DELETE sheet-recipes/[recipe]': { recipe: recipes.recipes[0]! },
      },
    });
    localStorage.setItem('sheet-recipe-web', '');
    await user.click((await note()).getByRole('button', { name: /as I like them/ }));
    const dialog = within(await screen.findByRole('dialog'));
    const columns = dialog.getAllByRole('checkbox');
    for (const column of columns)
      if (!/Text|Match type/.test(column.getAttribute('aria-label')!)) await user.click(column);
    const heading = dialog.getByRole('textbox', { name: 'Heading of Text' });
    await user.clear(heading);
    await user.type(heading, 'Match type');
    await user.click(dialog.getByRole('button', { name: 'Match type one up' }));
    await user.click(dialog.getByText('Words under Match type'));
    await user.type(dialog.getByRole('textbox', { name: 'Match type: own word for phrase' }), 'in order');
    const kept = dialog.getByRole('button', { name: 'Keep these columns' });
    await user.click(kept);
    expect((await dialog.findByRole('alert')).textContent).toBe('Give the recipe a name.');
    await user.type(dialog.getByRole('textbox', { name: 'Name of the recipe' }), 'mine');
    await user.click(kept);
    expect((await dialog.findByRole('alert')).textContent).toContain('Two columns have the heading');
    await user.clear(heading);
    await user.type(heading, 'Word');
    const preview = within(dialog.getByRole('group', { name: 'First rows' }));
    expect(preview.getAllByRole('cell').map((cell) => cell.textContent)).toEqual(['in order', 'movie']);
    await user.click(kept);
    await waitFor(() => expect(asked('POST sheet-recipes')).toHaveLength(1));
    expect(asked('POST sheet-recipes')[0]!.body).toEqual({
      ...{ name: 'mine', rowsPerFile: null, words: { 'Match type': { phrase: 'in order' } } },
      columns: [
        { column: 'Match type', heading: 'Match type' },
        { column: 'Text', heading: 'Word' },
      ],
    });
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('DELETE sheet-recipes/[recipe]')[0]!.params).toEqual({ recipe: '5' }));
  });
});

describe('a result sheet', () => {
  const said: ResultsRead = {
    ...{ recipe: 'as usual', headings: ['Change', 'Said', 'Why'], resultColumn: 1, reasonColumn: null },
    results: [
      { id: 21, said: 'Stop “movie”', failed: null },
      { id: 22, said: 'Stop “song”', failed: 'list is full' },
    ],
    unclear: [{ line: 4, why: '“maybe” says neither done nor failed' }],
    unnamed: [{ id: 23, said: 'Stop “poem”' }],
  };
  const was = [
    { id: 21, was: 'drafted' as const },
    { id: 22, was: 'drafted' as const },
  ];
  const file = new File(['Change,Said\n21,ok'], 'back.csv', { type: 'text/csv' });

  test('is looked at, its columns can be chosen, and it is stored with an undo', async () => {
    const { user, asked } = show(<Tray />, {
      answers: {
        ...answers,
        'POST tray/sent/[set]/read-results': said,
        'POST tray/sent/[set]/results': { done: 1, failed: 1, waiting: 1, was },
        'DELETE tray/sent/[set]/results': {},
      },
    });
    await user.upload((await note()).getByLabelText('Result sheet'), file);
    const dialog = within(await screen.findByRole('dialog', { name: 'What back.csv says' }));
    expect(await dialog.findByText('list is full')).toBeDefined();
    expect(dialog.getByText(/line 4: “maybe” says neither/)).toBeDefined();
    expect(dialog.getByText('Stop “poem”')).toBeDefined();
    await user.click(dialog.getByRole('combobox', { name: 'Column with the reason' }));
    await user.click(await screen.findByRole('option', { name: 'Why' }));
    await waitFor(() => expect(asked('POST tray/sent/[set]/read-results')).toHaveLength(2));
    expect(asked('POST tray/sent/[set]/read-results')[1]!.query).toEqual({ reason: '2' });
    await user.click(await dialog.findByRole('button', { name: '1 carried out, 1 back in the tray' }));
    await waitFor(() => expect(asked('POST tray/sent/[set]/results')).toHaveLength(1));
    expect(asked('POST tray/sent/[set]/results')[0]!.body).toEqual({
      results: [
        { id: 21, failed: null },
        { id: 22, failed: 'list is full' },
      ],
    });
    await user.click(await screen.findByRole('button', { name: 'Undo' }));
    await waitFor(() => expect(asked('DELETE tray/sent/[set]/results')[0]!.body).toEqual({ was }));
  });
});
