import * as v from 'valibot';
import { beforeEach, afterEach, describe, expect, test } from 'vitest';
import { CandidatesQuerySchema } from '@/contracts/candidates';
import { GroupsQuerySchema } from '@/contracts/groups';
import { RemaindersQuerySchema, type Gather, type WeighSchema } from '@/contracts/research';
import { loadIdeas } from '@/server/repositories/research/ideas';
import { findSheet } from '@/server/repositories/research/sheets';
import { listSources } from '@/server/repositories/research/sources';
import { viewCandidates } from '@/server/use-cases/research/candidates';
import { loadMirror } from '@/server/repositories/structure/structure';
import { checkKeywords } from '@/server/use-cases/research/check-keywords';
import { decideIdeas } from '@/server/use-cases/research/decide-ideas';
import { gather } from '@/server/use-cases/research/gather/gather';
import { moveIdeas, viewGroups } from '@/server/use-cases/research/groups';
import { sayLocation, viewLocations } from '@/server/use-cases/research/locations';
import { addPack, dropPack, packFile, viewPacks } from '@/server/use-cases/research/packs';
import {
  changeSheet,
  dropSheet,
  makeSheet,
  takeSheetBack,
  takeSourceOut,
  viewSheets,
} from '@/server/use-cases/research/sheets';
import { viewHolding, viewRemainders } from '@/server/use-cases/research/view-remainders';
import { weighNegatives } from '@/server/use-cases/research/weigh-negatives';
import { listTerms } from '@/server/use-cases/sift/sift-terms';
import { TermsQuerySchema } from '@/contracts/sift';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { aQuery, aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

let world: World;
let sheetId: number;
beforeEach(async () => {
  world = await makeWorld();
  ({ sheetId } = await makeSheet(world.deps, world.slug, world.personId, 'Spring hives'));
});
afterEach(() => world.close());

const into = (asked: Gather) => gather(world.deps, world.slug, world.personId, sheetId, asked);
const paste = (...texts: string[]) => into({ kind: 'paste', text: texts.join('\n') });
const texts = async () => (await loadIdeas(world.db, world.accountId, sheetId)).map(({ key }) => key);
const ACCOUNT = { kind: 'account', id: null } as const;
const FILTERS = { state: 'open', searches: 0, typed: '', holds: 'none' } as const;
const decide = (remainders: string[], verdict: 'kept' | 'dropped' | null) =>
  decideIdeas(world.deps, world.slug, world.personId, sheetId, {
    ...{ keys: [], holding: { remainders, filters: FILTERS }, verdict },
  });
const stems = (...given: string[]) => changeSheet(world.deps, world.slug, sheetId, { stems: given });

describe('negatives that are weighed', () => {
  const weigh = (asked: Partial<v.InferOutput<typeof WeighSchema>>) =>
    weighNegatives(world.deps, world.slug, sheetId, {
      ...{ texts: ['movie'], withForms: false, match: 'phrase', place: ACCOUNT, ...asked },
    });

  test('tell the ideas that they would stop, what ran in the account, and what must stay open', async () => {
    await paste('hive movie', 'bee movie download', 'bee hive kit');
    const { negatives } = await weigh({});
    expect(negatives).toMatchObject([
      {
        text: 'movie',
        isForm: false,
        ideas: 2,
        kept: 0,
        weight: { terms: 2, conversions: 0 },
        refusal: null,
      },
    ]);
    const kit = await weigh({ texts: ['kit'] });
    expect(kit.protected).toEqual({ count: 1, first: ['bee hive kit'] });
    const hive = await weigh({ texts: ['hive'] });
    expect(hive.keywords.map(({ severity }) => severity)).toContain('shut out');
    expect((await weigh({ texts: ['…'] })).negatives[0]!.refusal).toMatch(/needs a word/);
  });

  test('come with the other forms that occur in the sheet or the account, and say which ideas are kept', async () => {
    await paste('hive movies', 'bee movies', 'hive film');
    await decideIdeas(world.deps, world.slug, world.personId, sheetId, {
      ...{ keys: ['bee movies'], verdict: 'kept' },
    });
    const { negatives } = await weigh({ withForms: true });
    expect(negatives.map(({ text, isForm, ideas, kept }) => [text, isForm, ideas, kept])).toEqual([
      ['movie', false, 0, 0],
      ['movies', true, 1, 1],
    ]);
  });
});

describe('what is decided on a remainder', () => {
  test('is decided on all ideas that hold it under the filters, and can be set back', async () => {
    await paste('bee diploma', 'hive diplomas', 'bee kit', 'diploma of a bee keeper');
    await stems('bee', 'hive', 'keeper');
    const { was } = await decide(['diploma', 'kit'], 'dropped');
    expect(was.flatMap(({ keys }) => keys).sort()).toHaveLength(4);
    for (const one of was) await decideIdeas(world.deps, world.slug, world.personId, sheetId, one);
    const page = await viewRemainders(world.deps, world.slug, sheetId, v.parse(RemaindersQuerySchema, {}));
    expect(page.counts).toMatchObject({ open: 4, dropped: 0 });
  });

  test('of a word that is no remainder, all ideas that hold the word', async () => {
    await paste('bee near me', 'hive near me', 'bee kit');
    await stems('bee', 'hive');
    const { ideas } = await viewHolding(world.deps, world.slug, sheetId, { ...FILTERS, remainder: 'near' });
    expect(ideas.map(({ key }) => key)).toEqual(['bee near me', 'hive near me']);
    expect(ideas[0]!.words).toEqual([
      { text: 'bee', isChosen: false },
      { text: 'near', isChosen: true },
      { text: 'me', isChosen: false },
    ]);
  });
});

describe('groups', () => {
  const view = (over: Record<string, string> = {}) =>
    viewGroups(world.deps, world.slug, sheetId, v.parse(GroupsQuerySchema, { smallest: '2', ...over }));
  const told = async (over?: Record<string, string>) => {
    const { groups, left } = await view(over);
    return {
      groups: groups.map(({ name, isProposed, ideas }) => [name, isProposed, ideas.map(({ text }) => text)]),
      left: left.map(({ text }) => text),
    };
  };
  const move = (keys: string[], to: string | null) =>
    moveIdeas(world.deps, world.slug, sheetId, [{ keys, to }]);

  beforeEach(async () => {
    await paste(
      'oak kit',
      'oak kits large',
      'cedar suit',
      'pine suits',
      'tin smoker',
      'glass jar',
      'zinc lid',
    );
  });

  test('are proposed, taken, and what is left is grouped again', async () => {
    expect(await told()).toEqual({
      groups: [
        ['oak kit', true, ['oak kit', 'oak kits large']],
        ['suit', true, ['cedar suit', 'pine suits']],
      ],
      left: ['glass jar', 'tin smoker', 'zinc lid'],
    });
    await move(['cedar suit', 'pine suits', 'tin smoker'], 'Wear');
    expect((await told()).groups).toContainEqual(['Wear', false, ['cedar suit', 'pine suits', 'tin smoker']]);
    expect((await told()).left).toEqual(['glass jar', 'zinc lid']);
  });

  test('are named, merged and parted by moves, and each move can be taken back', async () => {
    await move(['oak kit', 'oak kits large'], 'Kits');
    const before = await told();
    const { back } = await moveIdeas(world.deps, world.slug, sheetId, [
      { keys: ['oak kit', 'oak kits large'], to: 'Wood' },
      { keys: ['oak kit', 'glass jar', 'not there'], to: 'Jars' },
    ]);
    expect((await told()).groups.slice(0, 2)).toEqual([
      ['Jars', false, ['glass jar', 'oak kit']],
      ['Wood', false, ['oak kits large']],
    ]);
    await moveIdeas(world.deps, world.slug, sheetId, back);
    expect(await told()).toEqual(before);
  });

  test('leave out what is stopped or dropped, and fold what is struck out', async () => {
    await decideIdeas(world.deps, world.slug, world.personId, sheetId, {
      ...{ keys: ['zinc lid'], verdict: 'dropped' },
    });
    await paste('oak kit leeds');
    await changeSheet(world.deps, world.slug, sheetId, { struck: ['leeds'] });
    const { groups, left } = await view();
    expect(groups[0]).toMatchObject({
      name: 'oak kit',
      ideas: [{ text: 'oak kit', keys: ['oak kit', 'oak kit leeds'] }, { text: 'oak kits large' }],
    });
    expect(left.map(({ text }) => text)).not.toContain('zinc lid');
  });

  test('of a sheet that is gone are refused', async () => {
    await dropSheet(world.deps, world.slug, world.personId, sheetId);
    await expect(move(['oak kit'], 'Kits')).rejects.toThrow(/no such research sheet.*Nothing was changed/);
  });
});

test('new keywords that would be stopped where they are to stand are told before they are made', async () => {
  const check = (campaign: string | null) =>
    checkKeywords(world.deps, world.slug, { campaignId: campaign, texts: ['bee salary', 'bee kit'] });
  const { campaigns } = await loadMirror(world.db, world.accountId);
  const id = (name: string) => campaigns.find((one) => one.name === name)!.id;
  expect(await check(null)).toEqual({ count: 0, first: [] });
  expect(await check(id('Hives'))).toEqual({ count: 0, first: [] });
  expect(await check(id('Courses'))).toEqual({
    ...{ count: 1, first: [{ text: 'bee salary', by: '“salary” (broad) in list Work' }] },
  });
  await draftChanges(world.deps, world.slug, world.personId, [
    {
      change: { kind: 'add negative', text: 'kit', match: 'phrase', place: ACCOUNT },
      forcedBecause: 'a test',
    },
  ]);
  expect((await check(null)).first).toEqual([{ text: 'bee kit', by: '“kit” (phrase) in the whole account' }]);
});

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
    await expect(into({ kind: 'pack', pack: key })).rejects.toThrow(/not there any more/);
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
    viewCandidates(world.deps, world.slug, sheetId, v.parse(CandidatesQuerySchema, over));

  beforeEach(async () => {
    await paste('bee hive movie trailer', 'hive jar');
    await into({ kind: 'pack', pack: (await add()).key });
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
    const page = await viewRemainders(world.deps, world.slug, sheetId, v.parse(RemaindersQuerySchema, {}));
    expect(page).toMatchObject({ counts: { open: 2 }, candidates: 3 });
  });

  test('go when the tray stops them, when they are decided on, and when their source is taken out', async () => {
    await draftChanges(world.deps, world.slug, world.personId, [
      { change: { kind: 'add negative', text: 'movie', match: 'phrase', place: ACCOUNT } },
    ]);
    expect((await view()).candidates.map(({ text }) => text)).toEqual(['cinema', 'movies', 'kit']);
    expect((await view()).stopped).toBe(1);
    await decideIdeas(world.deps, world.slug, world.personId, sheetId, {
      ...{ keys: ['kit'], verdict: 'dropped' },
    });
    expect((await view()).total).toBe(2);
    const source = (await listSources(world.db, world.accountId, sheetId)).find(
      ({ kind }) => kind === 'pack',
    )!;
    const turn = (isOut: boolean) =>
      takeSourceOut(world.deps, world.slug, world.personId, sheetId, { source: source.id, isOut });
    await turn(true);
    expect((await view()).total).toBe(0);
    expect(await texts()).toEqual(['bee hive movie trailer', 'hive jar']);
    await turn(false);
    expect((await view()).total).toBe(2);
  });
});

describe('places', () => {
  const say = (text: string, said: 'served' | 'no location' | null) =>
    sayLocation(world.deps, world.slug, world.personId, { text, said });
  const named = async () =>
    (await viewLocations(world.deps, world.slug, sheetId)).named.map(({ name, kind, ideas }) => [
      name,
      kind,
      ideas,
    ]);

  beforeEach(async () => {
    await paste(
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
    const { lines } = await viewRemainders(world.deps, world.slug, sheetId, query);
    expect(lines.find(({ text }) => text === 'hive australia')).toMatchObject({ location: 'not served' });
    await world.close();
    const seed = aSeed();
    world = await makeWorld({ ...seed, queries: [...seed.queries, aQuery('bee hive australia')] });
    await say('United Kingdom', 'served');
    const terms = await listTerms(world.deps, world.slug, v.parse(TermsQuerySchema, { trait: 'not served' }));
    expect(terms.lines.map(({ raw, locations }) => [raw, locations])).toEqual([
      ['bee hive australia', [{ name: 'australia', kind: 'not served' }]],
    ]);
  });
});

describe('a sheet', () => {
  test('that was thrown away is taken back with its ideas, unless another has its name by now', async () => {
    await paste('oak kit');
    await dropSheet(world.deps, world.slug, world.personId, sheetId);
    expect((await viewSheets(world.deps, world.slug)).sheets).toEqual([]);
    const { sheetId: other } = await makeSheet(world.deps, world.slug, world.personId, 'Spring hives');
    const back = () => takeSheetBack(world.deps, world.slug, world.personId, sheetId);
    await expect(back()).rejects.toThrow(/Another sheet has its name/);
    await changeSheet(world.deps, world.slug, other, { name: 'Summer' });
    await back();
    expect(await texts()).toEqual(['oak kit']);
    await expect(changeSheet(world.deps, world.slug, other, { name: 'Spring hives' })).rejects.toThrow(
      /There is a sheet Spring hives already/,
    );
    expect((await findSheet(world.db, world.accountId, other))!.name).toBe('Summer');
  });
});
