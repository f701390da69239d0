import * as v from 'valibot';
import { beforeEach, afterEach, describe, expect, test } from 'vitest';
import { CandidatesQuerySchema } from '@/contracts/candidates';
import { RemaindersQuerySchema } from '@/contracts/research';
import { listSources } from '@/server/repositories/research/sources';
import { viewCandidates } from '@/server/use-cases/research/candidates';
import { decideIdeas } from '@/server/use-cases/research/decide-ideas';
import { sayLocation, viewLocations } from '@/server/use-cases/research/locations';
import { addPack, dropPack, packFile, viewPacks } from '@/server/use-cases/research/packs';
import { takeSourceOut } from '@/server/use-cases/research/sheets';
import { viewRemainders } from '@/server/use-cases/research/view-remainders';
import { listTerms } from '@/server/use-cases/sift/sift-terms';
import { TermsQuerySchema } from '@/contracts/sift';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { aQuery, aSeed } from '../support/seed';
import { ACCOUNT, makeSheetWorld, type SheetWorld } from '../support/research-sheet';

let world: SheetWorld;
beforeEach(async () => {
  world = await makeSheetWorld();
});
afterEach(() => world.close());

const PACK = {
  ...{
    gatepost: 'starter pack',
    version: 1,
    name: 'Films',
    about: 'Who watches',
    language: 'en',
    match: 'phrase',
  },
  entries: [{ text: 'movie', variants: ['movies'] }, { text: 'kit' }, { text: 'cinema' }],
};
const add = (pack: object = PACK) =>
  addPack(world.deps, world.slug, world.personId, JSON.stringify(pack, null, 2));

describe('starter packs', () => {
  test('ship, are added for all on the account, replaced by name, saved as files and taken out', async () => {
    const shipped = (await viewPacks(world.deps, world.slug)).packs;
    expect(shipped.length).toBeGreaterThanOrEqual(12);
    const { key } = await add();
    await add({ ...PACK, entries: [{ text: 'movie' }] });
    expect((await viewPacks(world.deps, world.slug)).packs[0]).toEqual({
      ...{ key, name: 'Films', about: 'Who watches', entries: 1, texts: 1, addedBy: 'Maren Oakes' },
    });
    const { content } = await packFile(world.deps, world.slug, key);
    expect(JSON.parse(content)).toMatchObject({ gatepost: 'starter pack', entries: [{ text: 'movie' }] });
    await dropPack(world.deps, world.slug, world.personId, key);
    expect((await viewPacks(world.deps, world.slug)).packs).toEqual(shipped);
    await expect(world.into({ kind: 'pack', pack: key })).rejects.toThrow(/not there any more/);
    await expect(dropPack(world.deps, world.slug, world.personId, shipped[0]!.key)).rejects.toThrow(/ships/);
  });

  test('a file that is none is refused with its line, and nothing is added', async () => {
    await expect(add({ ...PACK, entries: [{ text: '' }] })).rejects.toThrow(
      /^Line \d+: entries\.0\.text: An entry needs a text\. Mend it there; nothing was added\.$/,
    );
    expect((await viewPacks(world.deps, world.slug)).packs.some(({ name }) => name === 'Films')).toBe(false);
  });
});

describe('candidates', () => {
  const view = (over: Record<string, string> = {}) =>
    viewCandidates(world.deps, world.slug, world.sheetId, v.parse(CandidatesQuerySchema, over));

  beforeEach(async () => {
    await world.paste('bee hive movie trailer', 'hive jar');
    await world.into({ kind: 'pack', pack: (await add()).key });
  });

  test('are no ideas: each is checked against the account, and what hits something comes last', async () => {
    const { candidates, total, stopped } = await view();
    expect([total, stopped]).toEqual([3, 0]);
    expect(candidates.map(({ text, forms, ideas, weight }) => [text, forms, ideas, weight.terms])).toEqual([
      ['movie', ['movie', 'movies'], 1, 2],
      ['cinema', ['cinema'], 0, 0],
      ['kit', ['kit'], 0, 1],
    ]);
    expect(candidates[0]!.keywords).toEqual([]);
    expect(candidates[2]!.protected).toEqual({ count: 1, first: ['bee hive kit'] });
    const page = await viewRemainders(
      world.deps,
      world.slug,
      world.sheetId,
      v.parse(RemaindersQuerySchema, {}),
    );
    expect(page).toMatchObject({ counts: { open: 2 }, candidates: 3 });
  });

  test('go when the tray stops them, when they are decided on, and when their source is taken out', async () => {
    await draftChanges(world.deps, world.slug, world.personId, [
      { change: { kind: 'add negative', text: 'movie', match: 'phrase', place: ACCOUNT } },
    ]);
    expect((await view()).candidates.map(({ text }) => text)).toEqual(['cinema', 'movies', 'kit']);
    expect((await view()).stopped).toBe(1);
    await decideIdeas(world.deps, world.slug, world.personId, world.sheetId, {
      ...{ keys: ['kit'], verdict: 'dropped' },
    });
    expect((await view()).total).toBe(2);
    const source = (await listSources(world.db, world.accountId, world.sheetId)).find(
      ({ kind }) => kind === 'pack',
    )!;
    const turn = (isOut: boolean) =>
      takeSourceOut(world.deps, world.slug, world.personId, world.sheetId, { source: source.id, isOut });
    await turn(true);
    expect((await view()).total).toBe(0);
    expect(await world.texts()).toEqual(['bee hive movie trailer', 'hive jar']);
    await turn(false);
    expect((await view()).total).toBe(2);
  });
});

describe('places', () => {
  const say = (text: string, said: 'served' | 'no location' | null) =>
    sayLocation(world.deps, world.slug, world.personId, { text, said });
  const named = async () =>
    (await viewLocations(world.deps, world.slug, world.sheetId)).named.map(({ name, kind, ideas }) => [
      name,
      kind,
      ideas,
    ]);

  beforeEach(async () => {
    await world.paste(
      'hive australia',
      'bee kit australia',
      'hive leeds',
      'hive reading',
      'hive new york',
      'hive uk',
    );
  });

  test('that are not served are named once it is said what is; an ordinary word is asked about', async () => {
    expect(await named()).toEqual([]);
    await say('Ireland', 'served');
    expect(await named()).toEqual([
      ['australia', 'not served', 2],
      ['leeds', 'not served', 1],
      ['new york', 'not served', 1],
      ['reading', 'perhaps', 1],
      ['uk', 'not served', 1],
    ]);
    await say('United Kingdom', 'served');
    expect(await named()).toEqual([
      ['australia', 'not served', 2],
      ['new york', 'not served', 1],
    ]);
    expect(await say('united kingdom', null)).toEqual({ text: 'united kingdom', was: 'served' });
    await say('reading', 'no location');
    expect((await named()).map(([name]) => name)).toEqual(['australia', 'leeds', 'new york', 'uk']);
  });

  test('that nobody knows are refused with a remedy', async () => {
    await expect(say('Larkfell-on-Sea', 'served')).rejects.toThrow(
      /No country, region or larger city.*Nothing was changed/,
    );
  });

  test('are marked in remainders and in Sift', async () => {
    await say('United Kingdom', 'served');
    const query = v.parse(RemaindersQuerySchema, { typed: 'australia', holds: 'any' });
    const { lines } = await viewRemainders(world.deps, world.slug, world.sheetId, query);
    expect(lines.find(({ text }) => text === 'hive australia')).toMatchObject({ location: 'not served' });
    await world.close();
    const seed = aSeed();
    world = await makeSheetWorld({ ...seed, queries: [...seed.queries, aQuery('bee hive australia')] });
    await say('United Kingdom', 'served');
    const terms = await listTerms(world.deps, world.slug, v.parse(TermsQuerySchema, { trait: 'not served' }));
    expect(terms.lines.map(({ raw, locations }) => [raw, locations])).toEqual([
      ['bee hive australia', [{ name: 'australia', kind: 'not served' }]],
    ]);
  });
});
