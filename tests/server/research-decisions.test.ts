import * as v from 'valibot';
import { beforeEach, afterEach, describe, expect, test } from 'vitest';
import { GroupsQuerySchema } from '@/contracts/groups';
import { RemaindersQuerySchema, type WeighSchema } from '@/contracts/research';
import { findSheet } from '@/server/repositories/research/sheets';
import { loadMirror } from '@/server/repositories/structure/structure';
import { checkKeywords } from '@/server/use-cases/research/check-keywords';
import { decideIdeas } from '@/server/use-cases/research/decide-ideas';
import { moveIdeas, viewGroups } from '@/server/use-cases/research/groups';
import {
  changeSheet,
  dropSheet,
  makeSheet,
  takeSheetBack,
  viewSheets,
} from '@/server/use-cases/research/sheets';
import { viewHolding, viewRemainders } from '@/server/use-cases/research/view-remainders';
import { weighNegatives } from '@/server/use-cases/research/weigh-negatives';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { ACCOUNT, makeSheetWorld, type SheetWorld } from '../support/research-sheet';

let world: SheetWorld;
beforeEach(async () => {
  world = await makeSheetWorld();
});
afterEach(() => world.close());

const FILTERS = { state: 'open', searches: 0, typed: '', holds: 'none' } as const;
const decide = (remainders: string[], verdict: 'kept' | 'dropped' | null) =>
  decideIdeas(world.deps, world.slug, world.personId, world.sheetId, {
    ...{ keys: [], holding: { remainders, filters: FILTERS }, verdict },
  });
const stems = (...given: string[]) => changeSheet(world.deps, world.slug, world.sheetId, { stems: given });

describe('negatives that are weighed', () => {
  const weigh = (asked: Partial<v.InferOutput<typeof WeighSchema>>) =>
    weighNegatives(world.deps, world.slug, world.sheetId, {
      ...{ texts: ['movie'], withForms: false, match: 'phrase', place: ACCOUNT, ...asked },
    });

  test('tell the ideas that they would stop, what ran in the account, and what must stay open', async () => {
    await world.paste('hive movie', 'bee movie download', 'bee hive kit');
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
    await world.paste('hive movies', 'bee movies', 'hive film');
    await decideIdeas(world.deps, world.slug, world.personId, world.sheetId, {
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
    await world.paste('bee diploma', 'hive diplomas', 'bee kit', 'diploma of a bee keeper');
    await stems('bee', 'hive', 'keeper');
    const { was } = await decide(['diploma', 'kit'], 'dropped');
    expect(was.flatMap(({ keys }) => keys).sort()).toHaveLength(4);
    for (const one of was) await decideIdeas(world.deps, world.slug, world.personId, world.sheetId, one);
    const page = await viewRemainders(
      world.deps,
      world.slug,
      world.sheetId,
      v.parse(RemaindersQuerySchema, {}),
    );
    expect(page.counts).toMatchObject({ open: 4, dropped: 0 });
  });

  test('of a word that is no remainder, all ideas that hold the word', async () => {
    await world.paste('bee near me', 'hive near me', 'bee kit');
    await stems('bee', 'hive');
    const { count, first: ideas } = await viewHolding(world.deps, world.slug, world.sheetId, {
      ...{ ...FILTERS, remainder: 'near', most: 20 },
    });
    expect(count).toBe(2);
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
    viewGroups(world.deps, world.slug, world.sheetId, v.parse(GroupsQuerySchema, { smallest: '2', ...over }));
  const told = async (over?: Record<string, string>) => {
    const { groups, left } = await view(over);
    return {
      groups: groups.map(({ name, isProposed, ideas }) => [name, isProposed, ideas.map(({ text }) => text)]),
      left: left.map(({ text }) => text),
    };
  };
  const move = (keys: string[], to: string | null) =>
    moveIdeas(world.deps, world.slug, world.sheetId, [{ keys, to }]);

  beforeEach(async () => {
    await world.paste(
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
    const { back } = await moveIdeas(world.deps, world.slug, world.sheetId, [
      { keys: ['oak kit', 'oak kits large'], to: 'Wood' },
      { keys: ['oak kit', 'glass jar', 'not there'], to: 'Jars' },
    ]);
    expect((await told()).groups.slice(0, 2)).toEqual([
      ['Jars', false, ['glass jar', 'oak kit']],
      ['Wood', false, ['oak kits large']],
    ]);
    await moveIdeas(world.deps, world.slug, world.sheetId, back);
    expect(await told()).toEqual(before);
  });

  test('leave out what is stopped or dropped, and fold what is struck out', async () => {
    await decideIdeas(world.deps, world.slug, world.personId, world.sheetId, {
      ...{ keys: ['zinc lid'], verdict: 'dropped' },
    });
    await world.paste('oak kit leeds');
    await changeSheet(world.deps, world.slug, world.sheetId, { struck: ['leeds'] });
    const { groups, left } = await view();
    expect(groups[0]).toMatchObject({
      name: 'oak kit',
      ideas: [{ text: 'oak kit', keys: ['oak kit', 'oak kit leeds'] }, { text: 'oak kits large' }],
    });
    expect(left.map(({ text }) => text)).not.toContain('zinc lid');
  });

  test('of a sheet that is gone are refused', async () => {
    await dropSheet(world.deps, world.slug, world.personId, world.sheetId);
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

describe('a sheet', () => {
  test('that was thrown away is taken back with its ideas, unless another has its name by now', async () => {
    await world.paste('oak kit');
    await dropSheet(world.deps, world.slug, world.personId, world.sheetId);
    expect((await viewSheets(world.deps, world.slug)).sheets).toEqual([]);
    const { sheetId: other } = await makeSheet(world.deps, world.slug, world.personId, 'Spring hives');
    const back = () => takeSheetBack(world.deps, world.slug, world.personId, world.sheetId);
    await expect(back()).rejects.toThrow(/Another sheet has its name/);
    await changeSheet(world.deps, world.slug, other, { name: 'Summer' });
    await back();
    expect(await world.texts()).toEqual(['oak kit']);
    await expect(changeSheet(world.deps, world.slug, other, { name: 'Spring hives' })).rejects.toThrow(
      /There is a sheet Spring hives already/,
    );
    expect((await findSheet(world.db, world.accountId, other))!.name).toBe('Summer');
  });
});
