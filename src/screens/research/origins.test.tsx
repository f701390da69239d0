import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, test } from 'vitest';
import { choose, Decline } from '../testing/screen';
import { showResearch } from './testing';

const told = (over: object = {}) => ({
  ...{ sourceId: 9, title: 'pasted lines', given: 3, added: 2, missing: null, lines: null, ...over },
});

describe('a sheet', () => {
  test('has stems and struck texts that are added and taken out, each with its undo', async () => {
    const { user, asked } = showResearch({ 'PATCH research/[sheet]': {} });
    const patches = () => asked('PATCH research/[sheet]').map(({ body }) => body);
    await user.click(await screen.findByRole('button', { name: 'Make kit a stem; 9 ideas hold it' }));
    await waitFor(() => expect(patches()).toEqual([{ stems: ['bee hive', 'kit'] }]));
    await user.type(screen.getByRole('textbox', { name: 'Strike a text out' }), 'leeds{Enter}');
    await waitFor(() => expect(patches().at(-1)).toEqual({ struck: ['yorkshire', 'leeds'] }));
    await user.click(screen.getByRole('button', { name: 'Take out the stem bee hive' }));
    await waitFor(() => expect(patches().at(-1)).toEqual({ stems: [] }));
    await user.click(screen.getAllByRole('button', { name: 'Undo' })[0]!);
    await waitFor(() => expect(patches().at(-1)).toEqual({ stems: ['bee hive'] }));
  });

  test('is named otherwise, and thrown away with an undo', async () => {
    const { user, asked } = showResearch({
      ...{ 'PATCH research/[sheet]': {}, 'DELETE research/[sheet]': {}, 'POST research/[sheet]/back': {} },
    });
    const name = await screen.findByLabelText('Name of this sheet');
    await user.clear(name);
    await user.type(name, 'Summer{Enter}');
    await waitFor(() => expect(asked('PATCH research/[sheet]')[0]!.body).toEqual({ name: 'Summer' }));
    await user.click(screen.getByRole('button', { name: 'Throw it away' }));
    await screen.findByText('Spring hives thrown away');
    await user.click(screen.getAllByRole('button', { name: 'Undo' })[0]!);
    await waitFor(() => expect(asked('POST research/[sheet]/back')).toHaveLength(1));
  });

  test('a source is looked at alone, and taken out', async () => {
    const { user, asked, search } = showResearch({ 'PATCH research/[sheet]/sources': {} });
    await user.click(await screen.findByRole('button', { name: /^starter pack Jobs/ }));
    await waitFor(() => expect(search().get('shown')).toBe('candidates'));
    await user.click(screen.getByRole('button', { name: 'Take ideas of bee hive out of the sheet' }));
    await waitFor(() =>
      expect(asked('PATCH research/[sheet]/sources')[0]!.body).toEqual({ source: 7, isOut: true }),
    );
  });
});

describe('gathering', () => {
  const open = async (more = {}) => {
    const shown = showResearch({
      'GET research/source/faults': { faults: [] },
      'GET research/source': { locations: ['United Kingdom'], languages: ['en'] },
      'GET research/packs': {
        packs: [
          { key: 'own:1', name: 'Ours', about: '', entries: 1, texts: 2, addedBy: 'Ilse Brandow' },
          { key: 'shipped:Jobs', name: 'Jobs', about: 'Work', entries: 90, texts: 200, addedBy: null },
        ],
      },
      'POST research/[sheet]/gather': told(),
      ...more,
    });
    await shown.user.click(await screen.findByRole('button', { name: 'Gather more' }));
    const dialog = await screen.findByRole('dialog');
    const to = (name: string) => shown.user.click(within(dialog).getByRole('tab', { name }));
    const gathered = () => shown.asked('POST research/[sheet]/gather').map(({ body }) => body);
    return { ...shown, dialog, to, gathered };
  };

  test('asks the idea source for stems, from either end, and for completions', async () => {
    const { user, dialog, gathered } = await open();
    await user.click(await within(dialog).findByRole('button', { name: 'Gather' }));
    await waitFor(() =>
      expect(gathered()[0]).toMatchObject({ kind: 'ideas', stems: ['bee hive'], location: 'United Kingdom' }),
    );
    await user.click(await within(dialog).findByRole('button', { name: /Completions of bee hive/ }));
    await waitFor(() =>
      expect(gathered()[1]).toEqual({ kind: 'completions', stem: 'bee hive', withLetters: true }),
    );
    await user.clear(within(dialog).getByLabelText(/Stems, parted by commas/));
    await user.click(await within(dialog).findByRole('button', { name: 'Gather' }));
    expect(await within(dialog).findByText('A stem is needed.')).toBeDefined();
  });

  test('a fault of the stand-in is switched on, and counts down', async () => {
    const { user, dialog, asked } = await open({
      'PUT research/source/faults': { faults: [{ fault: 'fails', times: 3 }] },
    });
    const fault = await within(dialog).findByLabelText(/What goes wrong on the stand-in/);
    await choose(user, fault, 'fails');
    await waitFor(() =>
      expect(asked('PUT research/source/faults')[0]!.body).toEqual({
        faults: [{ fault: 'fails', times: 3 }],
      }),
    );
    expect(await within(dialog).findByText(/3 ×/)).toBeDefined();
  });

  test('shows how a paste was cleaned, and what is missing of an answer', async () => {
    const lines = {
      ...{ cleaned: 1, refused: 1, twice: 1 },
      firstCleaned: [{ line: 1, raw: '1. bee hive', became: ['bee hive'] }],
      firstRefused: [{ line: 3, raw: 'Here is your list.', reason: 'a sentence' }],
    };
    const { user, dialog, to } = await open({
      'POST research/[sheet]/gather': told({ lines, missing: 'The rest is missing.' }),
    });
    await to('Paste');
    await user.type(within(dialog).getByRole('textbox'), 'bee hive');
    await user.click(within(dialog).getByRole('button', { name: 'Gather' }));
    expect(await within(dialog).findByText(/1 line cleaned, 1 said twice, 1 refused/)).toBeDefined();
    expect(within(dialog).getByText('The rest is missing.')).toBeDefined();
  });

  test('a brief says what it needs, and goes on with more of these', async () => {
    const { user, dialog, to, gathered } = await open();
    await to('Brief');
    await user.click(within(dialog).getByRole('button', { name: 'Gather' }));
    expect(await within(dialog).findByText('Say what is sold.')).toBeDefined();
    await user.type(within(dialog).getByLabelText(/What it sells/), 'hives');
    await user.click(within(dialog).getByRole('button', { name: 'More of these' }));
    await waitFor(() =>
      expect(gathered()[0]).toMatchObject({ kind: 'brief', round: 1, brief: { most: 200 } }),
    );
    expect(await within(dialog).findByText(/They wait among the candidates/)).toBeDefined();
  });

  test('packs are gathered, added as files and taken out; a file that is none says its line', async () => {
    const { user, dialog, to, gathered, asked } = await open({
      'DELETE research/packs': {},
      'POST research/packs': () => {
        throw new Decline('Line 3: entries: The pack holds no entry. Mend it there; nothing was added.');
      },
    });
    await to('Starter packs');
    await user.click(await within(dialog).findByRole('button', { name: 'Gather Jobs' }));
    await waitFor(() => expect(gathered()[0]).toEqual({ kind: 'pack', pack: 'shipped:Jobs' }));
    await user.click(within(dialog).getByRole('button', { name: 'Take the pack Ours out' }));
    await waitFor(() => expect(asked('DELETE research/packs')[0]!.body).toEqual({ pack: 'own:1' }));
    await user.upload(
      within(dialog).getByLabelText('File of a pack'),
      new File(['{}'], 'mine.json', { type: 'application/json' }),
    );
    expect(await within(dialog).findByText(/^Line 3/)).toBeDefined();
  });

  test('combinations are counted before they are made; files come by Intake', async () => {
    const { user, dialog, to } = await open({
      'GET intake': { ...{ files: [], daysThere: [], fetchesDaily: false, largestFile: 1, recipes: [] } },
    });
    await to('Combinations');
    const [one, two] = within(dialog).getAllByRole('textbox');
    await user.type(one!, 'oak, pine');
    await user.type(two!, 'kit, hive, jar');
    expect(await within(dialog).findByText(/6/)).toBeDefined();
    await to('File');
    expect(
      (await within(dialog).findByRole('link', { name: 'Bring it to Intake' })).getAttribute('href'),
    ).toBe('/web/intake');
  });
});
