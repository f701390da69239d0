import { afterAll, afterEach, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { DuplicatesQuerySchema, type SameKeyword } from '@/contracts/duplicates';
import { changeSettings } from '@/server/use-cases/account/change-settings';
import { viewAccount } from '@/server/use-cases/account/view-account';
import { askToTakeBack } from '@/server/use-cases/intake/take-back-load';
import { viewIntake } from '@/server/use-cases/intake/take-in';
import {
  readDuplicateSheet,
  writeDuplicateSheet,
} from '@/server/use-cases/untangle/duplicates/duplicate-sheet';
import { viewDuplicates } from '@/server/use-cases/untangle/duplicates/view-duplicates';
import { aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

const HEADER =
  'Day,Campaign,Ad group,Keyword,Match type,Bid,Impression share,Quality,Impressions,Clicks,Cost,Conversions,Leads';
/** Of “bee hive”, which stands in two ad groups. */
const row = (adGroup: string, cells: string, day = '2026-11-16') =>
  `${day},Hives,${adGroup},bee hive,broad,${cells}`;
const first = [
  HEADER,
  row('Starter', '0.70,50 %,7,100,40,20.00,2,0', '2026-11-15'),
  row('Starter', '0.75,25 %,8,300,60,30.00,1,4'),
  row('Stands', '0.60,,6,90,50,25.00,5,1'),
  // The days in between reach over half of the window.
  row('Stands', ',,,10,1,0.10,0,', '2026-11-18'),
].join('\n');

let world: World;
beforeAll(async () => {
  const { structure, ...seed } = aSeed();
  const [keyword] = structure.keywords;
  const inBoth = structure.adGroups.slice(0, 2).map(({ id }, i) => ({
    ...{ ...keyword!, id: `K9${i}`, adGroupId: id, text: 'bee hive', match: 'broad' as const },
  }));
  const others = structure.keywords.filter(({ text, match }) => text !== 'bee hive' || match !== 'broad');
  world = await makeWorld({ ...seed, structure: { ...structure, keywords: [...others, ...inBoth] } });
});
afterAll(() => world.close());
afterEach(async () => {
  for (const { id, state, kind } of (await viewIntake(world.deps, world.slug)).files)
    if (kind === 'keywords' && state === 'loaded') await takeBack(id);
  await changeSettings(world.deps, world.slug, world.personId, { conversionKinds: [] });
});

async function takeBack(id: number) {
  await askToTakeBack(world.deps, world.slug, id, world.personId);
  await world.work();
}
const query = v.parse(DuplicatesQuerySchema, { days: '7', besides: 'paused' });
async function view() {
  const { report, lines } = await viewDuplicates(world.deps, world.slug, query);
  const hive = lines.find(({ keywords }) => keywords[0]!.text === 'bee hive')!;
  const of = (adGroup: string): SameKeyword => hive.keywords.find((one) => one.adGroup === adGroup)!;
  return { report, hive, starter: of('Starter'), stands: of('Stands') };
}
const outcomeOf = async (id: number) =>
  (await viewIntake(world.deps, world.slug)).files.find((file) => file.id === id)!.outcome;

describe('a keyword report', () => {
  test('gives keywords that stand twice their figures', async () => {
    expect((await view()).report).toBeNull();
    const id = await world.load(first);
    expect(await outcomeOf(id)).toMatchObject({ rows: 4, added: 4, replaced: 0, rejected: 0 });
    const { report, hive, starter, stands } = await view();
    expect(report).toEqual({ from: '2026-11-15', to: '2026-11-18' });
    expect(starter).toMatchObject({
      ...{ clicks: 100, costMicros: 50_000_000, conversions: 3, quality: 8 },
      otherConversions: { Leads: 4 },
    });
    // 400 impressions of 100 / 0.5 + 300 / 0.25 that could have been had
    expect(starter.impressionShare).toBeCloseTo(400 / 1_400, 12);
    expect(stands).toMatchObject({ clicks: 51, conversions: 5, quality: 6, impressionShare: null });
    expect(hive.keywords[0]).toEqual(stands);
  });

  test('the account says which kinds of conversion count', async () => {
    await world.load(first);
    expect((await viewAccount(world.deps, world.slug, world.personId)).kindsThere).toEqual(['Leads']);
    const { said } = await changeSettings(world.deps, world.slug, world.personId, {
      conversionKinds: ['Leads'],
    });
    expect(said).toEqual(['Conversions of keywords: Leads (before: as their report counts them)']);
    const { starter, stands, hive } = await view();
    expect([starter.conversions, stands.conversions]).toEqual([4, 1]);
    expect(hive.keywords[0]!.adGroup).toBe('Starter');
  });

  test('the later load holds for the same keyword and day; taken back, the earlier one holds again', async () => {
    const early = await world.load(first);
    const late = await world.load(
      [HEADER, row('Starter', '0.80,,9,300,70,35.00,6,', '2026-11-16')].join('\n'),
    );
    expect(await outcomeOf(late)).toMatchObject({ added: 0, replaced: 1 });
    expect((await view()).starter).toMatchObject({ clicks: 110, conversions: 8, otherConversions: {} });
    await expect(takeBack(early)).rejects.toThrow(/later and replaced rows of this one/);
    await takeBack(late);
    expect((await view()).starter).toMatchObject({ clicks: 100, conversions: 3, quality: 8 });
    await takeBack(early);
    expect((await view()).report).toBeNull();
    expect(await world.db('keyword_day').count().first()).toEqual({ count: 0 });
  });

  test('a file of a period takes the place of its days', async () => {
    await world.load(first);
    const period = { from: '2026-11-10', to: '2026-11-17' };
    const id = await world.load(
      'Campaign,Ad group,Keyword,Match type,Bid,Clicks,Cost,Conversions\nHives,Starter,bee hive,broad,0.9,55,11.00,1\n',
      { period },
    );
    expect(await outcomeOf(id)).toMatchObject({ added: 0, replaced: 2, days: period });
    const { report, starter, stands } = await view();
    expect(report).toEqual({ from: '2026-11-10', to: '2026-11-18' });
    expect([starter.clicks, stands.clicks]).toEqual([55, 51]);
  });

  test('that reaches over too few days leaves the figures of search terms', async () => {
    await world.load([HEADER, row('Starter', '0.70,,7,100,40,20.00,2,0')].join('\n'));
    expect((await view()).report).toBeNull();
  });

  test('names keywords that the account lacked, and refuses rows without a keyword', async () => {
    const id = await world.load(
      [HEADER, row('Starter', '0.70,,7,1,1,0.10,0,'), '2026-11-16,Never seen,New,,broad,,,,1,1,0.1,0,'].join(
        '\n',
      ),
    );
    expect(await outcomeOf(id)).toMatchObject({ rows: 1, rejected: 1 });
    expect(await world.db('rejected_row').where({ report_file_id: id }).first('category', 'line')).toEqual({
      ...{ category: 'no keyword', line: 3 },
    });
    await world.load(`${HEADER}\n2026-11-16,Hives,Starter,cedar hive,exact,0.2,,,1,1,0.10,0,\n`);
    expect(await world.db('keyword').where({ text: 'cedar hive' }).first('match', 'status')).toEqual({
      ...{ match: 'exact', status: 'unknown' },
    });
  });

  test('its figures stand in the sheet of duplicates, which reads back', async () => {
    await world.load(first);
    const { content } = await writeDuplicateSheet(world.deps, world.slug, 'csv', query);
    const lines = String(content).split('\r\n');
    expect(lines[0]).toContain('conversions,impression share,quality,');
    expect(lines.find((line) => line.includes('Hives,Starter,bee hive'))).toContain(',3,28.6 %,8,');
    const read = await readDuplicateSheet(world.deps, world.slug, { text: String(content) });
    expect(read.unclear).toEqual([]);
  });
});
