import { access, readdir } from 'node:fs/promises';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { clearFiles } from '@/server/use-cases/intake/clear-files';
import { fetchReport } from '@/server/use-cases/intake/fetch-report';
import { readUpload } from '@/server/use-cases/intake/read-upload';
import { askToTakeBack } from '@/server/use-cases/intake/take-back-load';
import { askForLoad, pathOf, refusedSheet, viewIntake } from '@/server/use-cases/intake/take-in';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());
beforeEach(() => world.db('account').update({ file_days: 90 }));

const header = 'Day,Campaign,Ad group,Search term,Clicks,Cost\n';
const report = (day: string) =>
  `${header}${day},Hives,Starter,bee film,3,4.10\n${day},Hives,Starter,wrong,x,1\n`;
const age = (id: number, days: number) =>
  world
    .db('report_file')
    .where({ report_file_id: id })
    .update({
      created_at: world.db.raw(`now() - ? * interval '1 day'`, [days]),
    });
const isThere = async (id: number) => {
  const { stored_as: storedAs } = await world
    .db('report_file')
    .where({ report_file_id: id })
    .first('stored_as');
  return access(pathOf(world.deps, { storedAs })).then(
    () => true,
    () => false,
  );
};
const clicks = async () => (await world.db('term_day').sum('clicks as clicks').first())!.clicks as number;

test('the bytes of a file go when the account keeps them no longer; what was loaded of it stays, and its way back', async () => {
  const before = await clicks();
  const [old, young] = [await world.load(report('2026-11-18')), await world.load(report('2026-11-19'))];
  await age(old, 91);
  await age(young, 89);
  await clearFiles(world.deps);
  expect([await isThere(old), await isThere(young)]).toEqual([false, true]);
  expect(await clicks()).toBe(before + 6);
  const { files } = await viewIntake(world.deps, world.slug);
  expect(files.filter(({ isGone }) => isGone).map(({ id }) => id)).toEqual([old]);

  const sheet = await refusedSheet(world.deps, world.slug, old);
  expect(sheet).toContain('wrong');
  expect(sheet).toContain('bad number');
  await expect(readUpload(world.deps, world.slug, old, null)).rejects.toThrow(/removed after 90 days.*again/);
  await askToTakeBack(world.deps, world.slug, old, world.personId);
  await world.work();
  expect(await clicks()).toBe(before + 3);
  await expect(askForLoad(world.deps, world.slug, old, null)).rejects.toThrow('removed after 90 days');
  await world.db('account').update({ file_days: 30 });
  await clearFiles(world.deps);
  expect(await isThere(young)).toBe(false);
});

test('what is about to be loaded or read is left', async () => {
  const [id] = await world.bring(report('2026-11-17'));
  await age(id!, 400);
  await askForLoad(world.deps, world.slug, id!, {});
  await clearFiles(world.deps);
  expect(await isThere(id!)).toBe(true);
  await world.work();
  await clearFiles(world.deps);
  expect(await isThere(id!)).toBe(false);
});

test('a fetch that brings nothing new leaves no file', async () => {
  await fetchReport(world.deps, world.slug, world.personId);
  await world.work();
  const before = { files: await readdir(world.deps.files), rows: await world.db('report_file').select() };
  expect(await fetchReport(world.deps, world.slug, world.personId)).toBeNull();
  expect(await readdir(world.deps.files)).toEqual(before.files);
  expect(await world.db('report_file').select()).toEqual(before.rows);
});
