import { beforeAll, afterAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { DuplicatesQuerySchema, DuplicatesViewSchema, HandsOverViewSchema } from '@/contracts/duplicates';
import { draftChanges, removeFromTray } from '@/server/use-cases/tray/draft-changes';
import {
  readDuplicateSheet,
  writeDuplicateSheet,
} from '@/server/use-cases/untangle/duplicates/duplicate-sheet';
import { findDuplicates } from '@/server/use-cases/untangle/duplicates/find-duplicates';
import { openKeywords } from '@/server/use-cases/untangle/duplicates/keyword-figures';
import { viewDuplicates, viewHandOver } from '@/server/use-cases/untangle/duplicates/view-duplicates';
import { aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  const { structure, ...seed } = aSeed();
  const [campaign] = structure.campaigns;
  const [keyword] = structure.keywords;
  const more = (id: string, adGroupId: string, text: string, over: Partial<typeof keyword> = {}) => ({
    ...{ ...keyword!, id, adGroupId, text },
    ...over,
  });
  world = await makeWorld({
    ...seed,
    structure: {
      ...structure,
      campaigns: [
        ...structure.campaigns,
        { ...campaign!, id: 'C3', name: 'North', location: ['GB-N'], labels: ['split'] },
        { ...campaign!, id: 'C4', name: 'South', location: ['GB-S'], labels: ['split'] },
      ],
      adGroups: [
        ...structure.adGroups,
        { id: 'G4', campaignId: 'C3', name: 'Jars', status: 'live' },
        { id: 'G5', campaignId: 'C4', name: 'Jars', status: 'live' },
      ],
      keywords: [
        ...structure.keywords,
        more('K5', 'G2', 'Bee  Hive'),
        more('K6', 'G3', 'hive bees', { match: 'phrase' }),
        more('K7', 'G1', 'bee hive', { match: 'exact', status: 'paused' }),
        more('K8', 'G4', 'honey jar'),
        more('K9', 'G5', 'honey jar'),
      ],
    },
  });
});
afterAll(() => world.close());

type Asked = v.InferInput<typeof DuplicatesQuerySchema>;
const query = (asked: Asked = {}) => v.parse(DuplicatesQuerySchema, { days: '7', ...asked });
async function view(asked: Asked = {}) {
  const answer = await viewDuplicates(world.deps, world.slug, query(asked));
  expect(v.parse(DuplicatesViewSchema, answer)).toEqual(answer);
  return answer;
}
const told = ({ lines }: Awaited<ReturnType<typeof view>>) =>
  lines.map(({ keywords }) =>
    keywords.map(({ text, match, adGroup }) => `${text} (${match}) ${adGroup}`).sort(),
  );
const draft = (...changes: Parameters<typeof draftChanges>[3][number]['change'][]) =>
  draftChanges(
    ...([world.deps, world.slug, world.personId] as const),
    changes.map((change) => ({ change })),
  );

describe('duplicate keywords', () => {
  test('are counted on each rung; those of campaigns that never meet are set aside, with what keeps them apart', async () => {
    const answer = await view();
    expect(answer.rungs).toEqual({
      ...{ 'text and match type': 1, text: 1, 'words in any order': 1, 'other forms': 1 },
    });
    expect(told(answer)).toEqual([['Bee  Hive (broad) Stands', 'bee hive (broad) Starter']]);
    expect(answer.apart).toEqual({
      pairs: 1,
      splits: {
        ...{ count: 1 },
        first: [{ text: 'honey jar', by: ['location'], parts: [['North'], ['South']] }],
      },
    });
    expect(told(await view({ alike: 'other forms' }))).toEqual([
      ['Bee  Hive (broad) Stands', 'bee hive (broad) Starter', 'hive bees (phrase) Weekend'],
    ]);
    expect(told(await view({ near: 'ad group', alike: 'other forms' }))).toEqual([]);
  });

  test('what is paused comes in where it is asked, and never as the one that stays', async () => {
    const [line] = (await view({ alike: 'text', near: 'ad group', besides: 'paused' })).lines;
    expect(line!.keywords.map(({ status }) => status)).toEqual(['live', 'paused']);
    expect((await view({ alike: 'text', near: 'ad group' })).lines).toEqual([]);
  });

  test('are looked for in the campaigns that are chosen by name or label', async () => {
    expect((await view({ campaigns: 'SPLIT' })).apart.pairs).toBe(1);
    expect((await view({ campaigns: 'nor' })).apart.pairs).toBe(0);
    expect((await view({ campaigns: 'hives' })).lines).toHaveLength(1);
  });

  test('have the figures of their terms, and the answer is clear from the chosen probability on', async () => {
    const { lines, clear, days } = await view({ sure: '50' });
    expect(days).toBe(7);
    const [stays, other] = lines[0]!.keywords;
    expect(stays!.clicks + other!.clicks).toBeGreaterThan(100);
    expect(stays!.expectedMicros).toBeLessThan(other!.expectedMicros!);
    expect(lines[0]!.sure).toBeGreaterThan(0);
    expect(clear).toBe(lines.filter(({ sure }) => sure >= 0.5).length);
    expect(lines[0]!.isClear).toBe(lines[0]!.sure >= 0.5);
  });

  test('say what each would take over, and what its match type and negatives keep from it', async () => {
    const { keywords } = (await view({ alike: 'other forms' })).lines[0]!;
    const ids = keywords.map(({ id }) => id);
    const answer = await viewHandOver(world.deps, world.slug, { keywords: ids, days: 7 });
    expect(v.parse(HandsOverViewSchema, answer)).toEqual(answer);
    const phrase = answer.keywords[keywords.findIndex(({ match }) => match === 'phrase')]!;
    expect(phrase.others.terms).toBeGreaterThan(0);
    expect(phrase.takesOver.terms).toBe(0);
    expect(phrase.outOfReach.count).toBe(phrase.others.terms);
    const stands = (await view()).lines[0]!.keywords.find(({ adGroup }) => adGroup === 'Stands')!;
    const { ad_group_id: adGroupId } = await world.db('ad_group').where({ name: 'Stands' }).first();
    const place = { kind: 'adGroup', id: String(adGroupId) } as const;
    await draft({ kind: 'add negative', text: 'plans', match: 'phrase', place });
    const now = (await viewHandOver(world.deps, world.slug, { keywords: ids, days: 7 })).keywords;
    expect(now.find(({ id }) => id === stands.id)!.stopped.first).toContain('free bee hive plans');
  });

  test('a group goes when the tray pauses or removes all but one, and comes back with the undo', async () => {
    const [line] = (await view()).lines;
    const { id, text, match } = line!.keywords[1]!;
    const outcomes = await draft({ kind: 'pause keyword', keywordId: id });
    const after = await view();
    expect([after.lines, after.inTray]).toEqual([[], 1]);
    await removeFromTray(
      world.deps,
      world.slug,
      outcomes.flatMap((one) => (one.outcome === 'drafted' ? one.changeId : [])),
    );
    expect((await view()).inTray).toBe(0);
    const { campaign, adGroup, bidMicros } = line!.keywords[1]!;
    await draft({ kind: 'remove keyword', campaign, adGroup, text, match, bidMicros: bidMicros! });
    expect((await view()).lines).toEqual([]);
    expect(told(await view({ besides: 'removed' }))).toHaveLength(1);
  });
});

test('what the tray says of keywords alone is looked at again', async () => {
  const find = async () =>
    findDuplicates(await openKeywords(world.deps, world.slug, 7), query({ alike: 'other forms' }));
  const back = (outcomes: Awaited<ReturnType<typeof draft>>) =>
    removeFromTray(
      world.deps,
      world.slug,
      outcomes.flatMap((one) => (one.outcome === 'drafted' ? one.changeId : [])),
    );
  const before = await find();
  const place = { kind: 'account', id: null } as const;
  const stopped = await draft({ kind: 'add negative', text: 'wax', match: 'phrase', place });
  expect(await find()).toBe(before);
  const paused = await draft({ kind: 'pause keyword', keywordId: before.groups[0]!.keywords[1]!.id });
  expect(await find()).not.toBe(before);
  await back([...stopped, ...paused]);
  expect(await find()).toBe(before);
});

describe('the sheet of duplicates', () => {
  const sheet = async (asked: Asked = {}) => {
    const { content } = await writeDuplicateSheet(world.deps, world.slug, 'csv', query(asked));
    return (content as string)
      .trim()
      .split(/\r?\n/)
      .map((line) => line.split(','));
  };
  const read = (rows: string[][]) =>
    readDuplicateSheet(world.deps, world.slug, { text: rows.map((row) => row.join(',')).join('\n') });
  const decide = (rows: string[][], ...decisions: string[]) =>
    rows.map((row, i) => row.with(row.length - 3, i === 0 ? row.at(-3)! : (decisions[i - 1] ?? '')));

  test('comes back as changes of the tray, each row held against the account', async () => {
    const rows = await sheet({ alike: 'other forms' });
    expect(rows[0]!.slice(-3)).toEqual(['decision', 'reason', 'keyword number']);
    expect(rows.length).toBeGreaterThan(2);
    const ids = rows.slice(1).map((row) => row.at(-1)!);
    const answer = await read(decide(rows, 'keep', 'Pause'));
    expect(answer.changes.map(({ change }) => change)).toEqual([
      { kind: 'pause keyword', keywordId: ids[1] },
    ]);
    expect([answer.kept, answer.unclear]).toEqual([1, []]);
    // It is looked at again when it is put in the tray, and when it is sent.
    const key = ids.toSorted((a, b) => Number(a) - Number(b)).join('-');
    expect(answer.changes[0]!.knot).toEqual({ kind: 'duplicate', key });
    const drafted = await draftChanges(world.deps, world.slug, world.personId, answer.changes);
    expect(drafted.map(({ outcome }) => outcome)).toEqual(['drafted']);
    await removeFromTray(
      world.deps,
      world.slug,
      drafted.flatMap((one) => (one.outcome === 'drafted' ? one.changeId : [])),
    );
    const removed = await read(decide(rows, 'keep', 'remove'));
    expect(removed.changes[0]!.change).toMatchObject({ kind: 'remove keyword', bidMicros: 700_000 });
  });

  test('rows that do not fit are named with their line, and the others are read', async () => {
    const rows = await sheet({ alike: 'other forms' });
    const [stays, goes] = rows.slice(1) as [string[], string[]];
    const answer = await read([
      rows[0]!,
      decide([rows[0]!, stays], 'stop')[1]!,
      decide([rows[0]!, goes.with(1, 'Elsewhere')], 'pause')[1]!,
      decide([rows[0]!, goes.with(-1, '99999')], 'pause')[1]!,
      rows[0]!.map(() => ''),
      decide([rows[0]!, goes], 'pause')[1]!,
    ]);
    expect(answer.changes).toEqual([]);
    expect(answer.unclear.map(({ line, why }) => [line, why.slice(0, 22)])).toEqual([
      [2, '“stop” is no decision;'],
      [3, expect.stringMatching(/^number \d+ is/)],
      [4, 'there is no keyword wi'],
      [6, 'nothing of group 1 wou'],
    ]);
    await expect(read([['group', 'keyword']])).rejects.toThrow('The first row lacks “campaign”');
  });

  test('is written as a workbook, too', async () => {
    const { name, content } = await writeDuplicateSheet(world.deps, world.slug, 'xlsx', query());
    expect(name).toBe(`${world.slug} duplicate keywords.xlsx`);
    expect((content as Uint8Array).slice(0, 2)).toEqual(Uint8Array.of(0x50, 0x4b));
  });
});
