import JSZip from 'jszip';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { USUAL_RECIPE, type Change, type SheetRecipe } from '@/core';
import { writeWorkbook } from '@/server/files/write-workbook';
import { checkGate } from '@/server/use-cases/gate/check-gate';
import { readSmallFile } from '@/server/use-cases/small-file';
import { readResultSheet, storeResults, takeBackResults } from '@/server/use-cases/tray/hand-over/results';
import { sheetOfSet } from '@/server/use-cases/tray/hand-over/sheet-of-set';
import {
  forgetSheetRecipe,
  keepSheetRecipe,
  viewSheetRecipes,
} from '@/server/use-cases/tray/hand-over/sheet-recipes';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { makeOwnWorld, type World } from '../support/world';

/** Sheets for those whose platform is not connected: out by a recipe, back with results, shown by a structure file. */
let world: World;
let campaignId: string;
beforeAll(async () => {
  world = await makeOwnWorld({ name: 'Sheets', currency: 'EUR', steersBy: 'CPA', target: '18' });
  await world.load(
    [
      'Day,Campaign,Ad group,Keyword,Search term,Clicks,Cost,Conversions',
      '2026-11-20,Hives,Starter,bee hive,bee hive movie,30,15.00,0',
      '2026-11-20,Hives,Starter,bee hive,bee hive song,30,15.00,0',
      '2026-11-20,Hives,Starter,bee hive,bee hive kit,30,15.00,4',
    ].join('\n'),
  );
  const row = await world.db('campaign').where({ account_id: world.accountId }).first('campaign_id');
  campaignId = String(row.campaign_id);
});
afterAll(() => world.close());

const stop = (text: string): Change => ({
  ...{ kind: 'add negative', text, match: 'phrase', place: { kind: 'campaign', id: campaignId } },
});
async function handOver(...texts: string[]): Promise<number> {
  const changes = texts.map((text) => ({ change: stop(text) }));
  await draftChanges(world.deps, world.slug, world.personId, changes);
  return sendTray(world.deps, world.slug, world.personId);
}
const sheet = async (setId: number, recipe?: number) =>
  String((await sheetOfSet(world.deps, world.slug, setId, 'csv', recipe)).content).replace('\uFEFF', '');
async function* bytesOf(content: string | Uint8Array) {
  yield typeof content === 'string' ? new TextEncoder().encode(content) : content;
}
const read = async (setId: number, content: string | Uint8Array, chosen = {}) => {
  const file = await readSmallFile(world.deps, { bytes: bytesOf(content), announced: null });
  return readResultSheet(world.deps, world.slug, setId, file, chosen);
};
const store = (setId: number, results: Parameters<typeof storeResults>[4]) =>
  storeResults(world.deps, world.slug, world.personId, setId, results);
const takeBack = (setId: number, was: Parameters<typeof takeBackResults>[4]) =>
  takeBackResults(world.deps, world.slug, world.personId, setId, was);
const keep = (recipe: SheetRecipe) => keepSheetRecipe(world.deps, world.slug, world.personId, recipe);
const tray = () => viewTray(world.deps, world.slug);
const isStopped = async (query: string) =>
  (await checkGate(world.deps, world.slug, query)).stoppers.map((s) => s.state);

const MINE: SheetRecipe = {
  name: 'for the agency',
  columns: [
    { column: 'Do', heading: 'Action' },
    { column: 'Text', heading: 'Negative' },
    { column: 'Campaign', heading: 'Kampagne' },
  ],
  words: { Do: { 'Add the negative': 'ADD' } },
  rowsPerFile: 2,
};

describe('a recipe', () => {
  test('is kept under its name, in place of the one before, and given out again to be kept anew', async () => {
    const { id } = await keep({ ...MINE, rowsPerFile: null });
    expect(await keep(MINE)).toEqual({ id });
    const { recipes, words } = await viewSheetRecipes(world.deps, world.slug);
    expect(recipes).toEqual([{ ...MINE, id }]);
    expect(words.Do).toContain('Pause the keyword');
    const { recipe } = await forgetSheetRecipe(world.deps, world.slug, world.personId, id);
    expect(recipe).toEqual(MINE);
    await expect(forgetSheetRecipe(world.deps, world.slug, world.personId, id)).rejects.toThrow('not there');
  });

  test('that could not be read back, or takes the usual name, is refused', async () => {
    const twice = { ...MINE, columns: [MINE.columns[0]!, { column: 'List' as const, heading: 'action' }] };
    await expect(keep(twice)).rejects.toThrow('Two columns');
    await expect(keep({ ...MINE, name: USUAL_RECIPE.name })).rejects.toThrow('usual sheet stays');
  });

  test('names, orders and words the columns, and splits the sheet', async () => {
    const { id } = await keep(MINE);
    const setId = await handOver('movie', 'song', 'poem');
    const { name, content } = await sheetOfSet(world.deps, world.slug, setId, 'csv', id);
    expect(name).toMatch(/tray \d+\.zip$/);
    const archive = await JSZip.loadAsync(content as Uint8Array);
    const files = Object.keys(archive.files);
    expect(files.map((file) => file.replace(/.*(part.*)/, '$1'))).toEqual([
      'part 1 of 2.csv',
      'part 2 of 2.csv',
    ]);
    const parts = await Promise.all(files.map((file) => archive.file(file)!.async('string')));
    expect(parts[0]!.replace('\uFEFF', '').split('\r\n').slice(0, 2)).toEqual([
      'Action,Negative,Kampagne',
      'ADD,movie,Hives',
    ]);
    expect(parts[1]).toContain('ADD,poem,Hives');
    await expect(sheet(setId, 9_999)).rejects.toThrow('not there');
  });
});

describe('a result sheet', () => {
  test('says nothing until it is stored; then what was carried out is in force, and what failed is drafted again', async () => {
    const setId = (await tray()).sent[0]!.setId;
    const back = [
      'Action;Negative;Kampagne;Status',
      'ADD;movie;Hives;added',
      'ADD;song;Hives;Error: too long',
    ];
    const said = await read(setId, back.join('\n'));
    expect(said).toMatchObject({ recipe: 'for the agency', unclear: [] });
    expect(said.results.map(({ failed }) => failed)).toEqual([null, 'Error: too long']);
    expect(said.unnamed).toHaveLength(1);
    expect(await isStopped('bee hive movie')).toEqual(['in the tray']);

    const stored = await store(setId, said.results);
    expect(stored).toMatchObject({ done: 1, failed: 1, waiting: 1 });
    expect(await isStopped('bee hive movie')).toEqual(['said to be done']);
    const view = await tray();
    expect(
      view.changes.map(({ change, failedBefore }) => ['text' in change && change.text, failedBefore]),
    ).toEqual([['song', 'Error: too long']]);
    expect(view.sent[0]).toMatchObject({ state: 'handed over', failed: [{ reason: 'Error: too long' }] });
    const { lines } = await viewLedger(world.deps, world.slug);
    expect(lines.slice(0, 2).map(({ who, change }) => [who, change?.state])).toEqual([
      [expect.any(String), 'refused'],
      [expect.any(String), 'said'],
    ]);
    await expect(store(setId, [{ id: 1_000_000, failed: null }])).rejects.toThrow('no result any more');

    // Taken back while the rest waits, it is as before; and stored once more.
    await takeBack(setId, stored.was);
    expect((await tray()).changes).toEqual([]);
    expect((await tray()).sent[0]).toMatchObject({ state: 'handed over', failed: [], answered: 0 });
    await expect(takeBack(setId, stored.was)).rejects.toThrow('Something else');
    await store(setId, said.results);
  });

  test('a workbook is read like text, the rest of the tray closes it, and all of it can be taken back', async () => {
    const setId = (await tray()).sent[0]!.setId;
    const rows = [['ADD', 'poem', 'Hives', 'done']];
    const header = ['Action', 'Negative', 'Kampagne', 'Result'];
    const said = await read(setId, await writeWorkbook([{ name: 'back', header, rows }]));
    const { was, ...stored } = await store(setId, said.results);
    expect(stored).toEqual({ done: 1, failed: 0, waiting: 0 });
    expect((await tray()).sent[0]).toMatchObject({ state: 'said to be done' });

    await takeBack(setId, was);
    expect((await tray()).sent[0]).toMatchObject({ state: 'handed over', answered: 2, total: 3 });
    expect(await isStopped('bee hive movie')).toEqual(['said to be done']);
  });

  test('a structure file then shows what of it is so', async () => {
    const setId = (await tray()).sent[0]!.setId;
    const said = await read(setId, (await sheet(setId)).replace(/to do\r\n/, 'done\r\n'));
    expect(said.unnamed).toHaveLength(1); // what is said to be done already, and nobody touched
    expect(await store(setId, said.results)).toMatchObject({ done: 1, waiting: 0 });
    await world.load('Campaign,Ad group,Keyword,Match type,Level\nHives,,movie,phrase,negative campaign');
    const [sent] = (await tray()).sent;
    // “poem” was said to be done, and the file does not name it.
    expect(sent).toMatchObject({ state: 'partly failed', confirmed: 1, total: 3, lost: 1 });
    const again = (await tray()).changes.map(({ id }) => id);
    await removeFromTray(world.deps, world.slug, again);
  });

  test.each([
    ['', 'empty'],
    ['Day,Clicks\n2026-11-20,3', 'headings'],
    [Uint8Array.of(0x25, 0x50, 0x44, 0x46, 0, 1, 2, 0), 'Nothing was taken'],
  ])('a file that is none is refused, and nothing is stored: %#', async (content, said) => {
    const setId = (await tray()).sent[0]!.setId;
    await expect(read(setId, content)).rejects.toThrow(said);
  });

  test('where every change failed, the tray is closed and all of it is drafted again', async () => {
    const setId = await handOver('ballad');
    const said = await read(setId, (await sheet(setId)).replace('to do', 'refused'));
    const { was, ...stored } = await store(setId, said.results);
    expect(stored).toEqual({ done: 0, failed: 1, waiting: 0 });
    const view = await tray();
    expect(view.changes).toHaveLength(1);
    expect(view.sent).toMatchObject([{ setId, state: 'partly failed' }]);

    await takeBack(setId, was); // the tray is open again
    expect((await tray()).changes).toEqual([]);
    expect((await tray()).sent.find((sent) => sent.setId === setId)).toMatchObject({ state: 'handed over' });
  });
});
