import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import { viewExports } from '@/server/use-cases/account/exports';
import { callRoute, servedRoutes, serveWorld } from '../support/routes';
import { makeWorld, type World } from '../support/world';

const TOBIAS = '2';
vi.mock('next/headers', () => ({
  cookies: () => Promise.resolve(new Map([['gatepost-person', { value: TOBIAS }]])),
}));

let world: World;
const saved = async () => (await viewExports(world.deps, world.slug)).lines;
const note = (name: string) =>
  callRoute(
    servedRoutes.find((one) => one.name === 'POST exports')!,
    { body: JSON.stringify({ name }) },
  );

beforeAll(async () => {
  world = await makeWorld();
  serveWorld(world);
  await world.db('member').where({ person_id: TOBIAS }).update({ role: 'look' });
});
afterAll(() => world.close());

test('every file that the server gives of an account is noted, with who saves it and under which name', async () => {
  const names: string[] = [];
  for (const route of servedRoutes.filter(
    ({ name, contract }) => contract?.answer === 'file' && !name.includes(' /'),
  )) {
    const answer = await callRoute(route, {});
    if (answer.status !== 200) continue; // of a thing that is not there
    const [, name] = /filename\*=UTF-8''(.+)$/.exec(answer.headers.get('content-disposition')!)!;
    names.unshift(decodeURIComponent(name!));
  }
  expect(names).toContain('tray.csv');
  expect(names.length).toBeGreaterThan(2);
  const lines = await saved();
  expect(lines.map(({ name }) => name)).toEqual(names);
  expect(new Set(lines.map(({ by }) => by))).toEqual(new Set(['Tobias Finch']));
});

test('what the browser makes is noted by whoever may look, and nothing without a name', async () => {
  expect((await note('terms remaining.xlsx')).status).toBe(200);
  const [first, ...others] = await saved();
  expect(first).toMatchObject({ name: 'terms remaining.xlsx', by: 'Tobias Finch' });
  for (const name of ['', '  ', 'x'.repeat(301)]) expect((await note(name)).status).toBe(400);
  expect(await saved()).toEqual([first, ...others]);
});
