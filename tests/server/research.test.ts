import * as v from 'valibot';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { Brief, SourceFaults, Vocabulary } from '@/contracts/ideas';
import { RemaindersQuerySchema, type Gather } from '@/contracts/research';
import { loadVerdicts } from '@/server/repositories/research/ideas';
import { findSheet } from '@/server/repositories/research/sheets';
import { listSources } from '@/server/repositories/research/sources';
import { changeSheet, dropSheet, makeSheet, viewSheets } from '@/server/use-cases/research/sheets';
import { decideIdeas } from '@/server/use-cases/research/decide-ideas';
import { viewRemainders } from '@/server/use-cases/research/view-remainders';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { makeSheetWorld, type SheetWorld } from '../support/research-sheet';

let world: SheetWorld;
beforeEach(async () => {
  world = await makeSheetWorld();
  const phrase = (text: string, volume: number) => ({ text, volume, openingBidMicros: 400_000, means: [] });
  const many = Array.from({ length: 450 }, (_, i) => phrase(`queen cage ${i}`, i));
  const vocabulary: Vocabulary = {
    phrases: [phrase('bee hive', 9_000), phrase('bee hive diploma', 90), phrase('hive poster', 300), ...many],
    locations: ['United Kingdom'],
  };
  await put('/vocabulary', vocabulary);
});
afterEach(() => world.close());

const put = (path: string, body: object) =>
  fetch(world.ideasUrl + path, { method: 'PUT', body: JSON.stringify(body) });
const fault = (...faults: SourceFaults['faults']) => put('/faults', { faults });
const asking = (stem: string, most = 1_000): Gather => ({
  ...{ kind: 'ideas', stems: [stem], location: null, language: 'en', from: 'most related', most },
});

describe('ideas of a source', () => {
  test('come page by page with their figures; the stems are those of the sheet', async () => {
    expect(await world.into(asking('queen cage'))).toMatchObject({ given: 450, added: 450, missing: null });
    expect(await world.into(asking('hive'))).toMatchObject({ given: 3, added: 3 });
    const hive = (await world.ideas()).find(({ key }) => key === 'bee hive')!;
    expect(hive).toMatchObject({ openingBidMicros: 400_000, relatedness: 0.5 });
    expect(hive.volume ?? hive.volumeFrom).not.toBeNull();
    expect((await findSheet(world.db, world.accountId, world.sheetId))!.stems).toEqual([
      'queen cage',
      'hive',
    ]);
  });

  test('are asked for again after a pause, and what came before a source went away is kept', async () => {
    await fault({ fault: 'asks to slow down', times: 1 }, { fault: 'fails', times: 1 });
    expect(await world.into(asking('hive'))).toMatchObject({ given: 3, missing: null });
    await fault({ fault: 'fails', times: 20 });
    await expect(world.into(asking('queen cage'))).rejects.toThrow(/answered 500.*Nothing was gathered/);
    expect(await world.texts()).toHaveLength(3);
  });

  test('completions fold with what is there, and it is known where each came from', async () => {
    await world.into(asking('hive'));
    expect(await world.into({ kind: 'completions', stem: 'bee hive', withLetters: true })).toMatchObject({
      ...{ given: 2, added: 0, title: 'completions of bee hive, a – z' },
    });
    const [first, second] = await listSources(world.db, world.accountId, world.sheetId);
    expect(first).toMatchObject({ kind: 'ideas', title: 'ideas of hive', given: 3, added: 3 });
    expect((await world.ideas()).map(({ key, sources }) => [key, sources])).toEqual([
      ['bee hive', [first!.id, second!.id]],
      ['bee hive diploma', [first!.id, second!.id]],
      ['hive poster', [first!.id]],
    ]);
    expect((await world.ideas())[0]).toMatchObject({ openingBidMicros: 400_000 }); // a completion knows no figures
  });

  test('a location or a language that is not known is refused with the source’s own words', async () => {
    const elsewhere: Gather = { ...asking('hive'), location: 'Atlantis' } as Gather;
    await expect(world.into(elsewhere)).rejects.toThrow(/Atlantis is not known here.*Nothing was gathered/);
  });
});

describe('ideas of one’s own', () => {
  test('a paste is cleaned, and told how', async () => {
    const { lines, ...said } = await world.into({
      kind: 'paste',
      text: '1. Bee jobs\n???\nbee jobs\nhive plans, hive pdf',
    });
    expect(said).toMatchObject({ given: 3, added: 3, title: 'pasted lines' });
    expect(lines!.firstRefused.map(({ line }) => line)).toEqual([2]);
    expect(lines).toMatchObject({ refused: 1, twice: 1, cleaned: 2 });
    expect(await world.texts()).toEqual(['bee jobs', 'hive pdf', 'hive plans']);
  });

  test('a brief is answered, and the answer cleaned like a paste', async () => {
    const brief: Brief = {
      sells: 'hives, smokers',
      ...{ buyers: '', serves: '', doesNot: 'repairs', never: '', more: '' },
      ...{ topics: ['free', 'media'], most: 50 },
    };
    const first = await world.into({ kind: 'brief', brief, round: 0 });
    expect(first.title).toBe('brief about free and media');
    expect(await world.texts()).toEqual(expect.arrayContaining(['free', 'movie', 'repairs', 'hives']));
    const second = await world.into({ kind: 'brief', brief, round: 1 });
    expect(second.added).toBe(second.given);
    await fault({ fault: 'hangs up', times: 9 });
    await expect(world.into({ kind: 'brief', brief, round: 2 })).rejects.toThrow(/can not be reached/);
  });

  test('combinations are counted before they are made', async () => {
    const column = (...words: string[]) => ({ words, mayBeLeftOut: false });
    await world.into({
      kind: 'combinations',
      columns: [column('bee', 'wasp'), column('trap')],
      anyOrder: true,
    });
    expect(await world.texts()).toEqual(['bee trap', 'trap bee', 'trap wasp', 'wasp trap']);
    const large = column(...Array.from({ length: 200 }, (_, i) => `w${i}`));
    await expect(
      world.into({ kind: 'combinations', columns: [large, large], anyOrder: false }),
    ).rejects.toThrow(/40,000 combinations; at most 20,000/);
    await expect(
      world.into({ kind: 'combinations', columns: [column(' ')], anyOrder: false }),
    ).rejects.toThrow(/no word/);
  });

  test('live keywords, and a file that Intake loaded', async () => {
    const { given } = await world.into({ kind: 'keywords' });
    expect(given).toBeGreaterThan(0);
    const file = await world.load('Keyword,Avg. monthly searches\nhive radio,"1,300"\nhive wallpaper,90\n');
    expect(await world.into({ kind: 'file', file })).toMatchObject({
      given: 2,
      added: 2,
      title: 'file report.csv',
    });
    expect((await world.ideas()).find(({ key }) => key === 'hive radio')).toMatchObject({ volume: 1_300 });
    await expect(world.into({ kind: 'file', file: 999 })).rejects.toThrow(/no keyword ideas/);
  });
});

describe('a sheet', () => {
  test('is found by everyone on the account, and its name is its own', async () => {
    await expect(makeSheet(world.deps, world.slug, 2, 'Spring hives')).rejects.toThrow(/There is a sheet/);
    await makeSheet(world.deps, world.slug, 2, 'Autumn');
    const { sheets } = await viewSheets(world.deps, world.slug);
    expect(sheets.map(({ name, madeBy }) => [name, madeBy])).toEqual([
      ['Autumn', 'Tobias Finch'],
      ['Spring hives', 'Maren Oakes'],
    ]);
  });

  test('each change raises its version, so that others see it; what was decided can be set back', async () => {
    await world.into({ kind: 'paste', text: 'a\nb\nc' });
    const version = async () => (await findSheet(world.db, world.accountId, world.sheetId))!.version;
    const decide = (keys: string[], verdict: 'kept' | 'dropped' | null) =>
      decideIdeas(world.deps, world.slug, world.personId, world.sheetId, { keys, verdict });
    const before = await version();
    expect(await decide(['a'], 'kept')).toEqual({ was: [{ verdict: null, keys: ['a'] }] });
    expect(await version()).toBe(before + 1);
    const { was } = await decide(['a', 'b', 'not there'], 'dropped');
    expect(was).toEqual([
      { verdict: null, keys: ['b'] },
      { verdict: 'kept', keys: ['a'] },
    ]);
    for (const { keys, verdict } of was) await decide(keys, verdict);
    expect([...(await loadVerdicts(world.db, world.accountId, world.sheetId))]).toEqual([['a', 'kept']]);
    const settled = await version();
    expect(await decide(['a'], 'kept')).toEqual({ was: [] });
    expect(await version()).toBe(settled);
    await changeSheet(world.deps, world.slug, world.sheetId, { stems: ['a'], struck: ['b'] });
    expect(await findSheet(world.db, world.accountId, world.sheetId)).toMatchObject({
      stems: ['a'],
      struck: ['b'],
    });
  });

  test('that is thrown away is not there any more', async () => {
    await world.into({ kind: 'paste', text: 'a\nb' });
    await dropSheet(world.deps, world.slug, world.personId, world.sheetId);
    expect((await viewSheets(world.deps, world.slug)).sheets).toEqual([]);
    await expect(world.into({ kind: 'paste', text: 'c' })).rejects.toThrow(/no such sheet/);
  });
});

describe('remainders', () => {
  const view = (over: Record<string, string> = {}) =>
    viewRemainders(world.deps, world.slug, world.sheetId, v.parse(RemaindersQuerySchema, over));
  const told = async (over?: Record<string, string>) =>
    (await view(over)).lines.map(({ text, ideas: count }) => [text, count]);
  const stop = (text: string) =>
    draftChanges(world.deps, world.slug, world.personId, [
      {
        change: { kind: 'add negative', text, match: 'phrase', place: { kind: 'account', id: null } },
        forcedBecause: 'a test',
      },
    ]);

  beforeEach(async () => {
    await world.into({
      kind: 'paste',
      text: 'bee hive diploma\ndiplomas of bee keepers\nbee hive near me\nbees\nhive wallpaper\nwallpapers bee',
    });
    await changeSheet(world.deps, world.slug, world.sheetId, {
      stems: ['bee', 'hive', 'keeper'],
      struck: ['of'],
    });
  });

  test('stand for all ideas that hold them, in whatever forms', async () => {
    const page = await view();
    expect(page).toMatchObject({ total: 3, bare: 1, counts: { open: 6, stopped: 0 } });
    expect(page.lines.map(({ text, forms, ideas: count }) => [text, forms, count])).toEqual([
      ['diploma', ['diploma', 'diplomas'], 2],
      ['wallpaper', ['wallpaper', 'wallpapers'], 2],
      ['near me', ['near me'], 1],
    ]);
  });

  test('go as ideas are kept, dropped or stopped by the tray, and what is in force is counted apart', async () => {
    await decideIdeas(world.deps, world.slug, world.personId, world.sheetId, {
      ...{ keys: ['bee hive near me'], verdict: 'kept' },
    });
    await stop('wallpaper');
    expect(await told()).toEqual([
      ['diploma', 2],
      ['wallpaper', 1],
    ]);
    expect((await view()).counts).toMatchObject({ open: 4, kept: 1, stopped: 1, 'stopped already': 0 });
    expect(await told({ state: 'stopped' })).toEqual([['wallpaper', 1]]);
    await sendTray(world.deps, world.slug, world.personId);
    await world.work();
    expect((await view()).counts).toMatchObject({ stopped: 0, 'stopped already': 1 });
  });

  test('typed words shrink the sheet, and turned round show what would go', async () => {
    expect(await told({ typed: 'diploma, near me' })).toEqual([
      ['wallpaper', 2],
      ['diploma', 1],
    ]);
    expect(await told({ typed: 'diploma, near me', holds: 'any' })).toEqual([
      ['diploma', 1],
      ['near me', 1],
    ]);
  });

  test('are sorted by searches, by the least related, and filtered by source', async () => {
    await world.into(asking('hive'));
    const [, source] = await listSources(world.db, world.accountId, world.sheetId);
    expect(await told({ sort: 'searches', source: String(source!.id) })).toEqual([
      ['poster', 1],
      ['diploma', 1],
    ]);
    expect((await view({ searches: '100', sort: 'searches' })).lines.map(({ text }) => text)).toEqual([
      'poster',
    ]);
    expect((await told({ sort: 'least related' }))[0]).toEqual(['diploma', 2]);
  });
});
