import { afterAll, beforeAll, beforeEach, expect, test, vi } from 'vitest';
import { ROUTES } from '@/contracts/routes';
import { addAccount } from '@/server/use-cases/account/add-account';
import { callRoute, OWN, servedRoutes, serveWorld } from '../support/routes';
import { signInsOf } from '../support/sign-ins';
import { makeWorld, type World } from '../support/world';

const browser = vi.hoisted(() => ({ cookie: '' }));
vi.mock('next/headers', () => ({
  headers: () => Promise.resolve(new Headers({ cookie: browser.cookie })),
  cookies: () => Promise.resolve(new Map([['gatepost-person', { value: '1' }]])),
}));

let world: World;
const MAREN = { email: 'maren@larkfell.example', password: 'seven hives in a row' };
const WREN = { email: 'wren@larkfell.example', password: 'a wren in the rafters' };
const all = servedRoutes.filter(({ name }) => name in ROUTES);
const closed = all.filter(({ contract }) => contract!.role !== 'anybody');
const ofAccount = closed.filter(({ name }) => !name.includes(' /'));

/** What nobody may ask with, so that nothing is done where the role suffices. */
async function call(route: (typeof all)[number], cookie = '') {
  browser.cookie = cookie;
  const answer = await callRoute(route, {
    ...(route.method !== 'GET' && { body: '[' }),
    headers: { ...OWN, cookie },
  });
  return { status: answer.status, text: await answer.text() };
}
/** @returns what the browser sends from then on */
async function signIn(body: object): Promise<string> {
  const route = all.find(({ name }) => name === 'POST /sign-in')!;
  const answer = await callRoute(route, { body: JSON.stringify(body) });
  expect(answer.status).toBe(200);
  const set = answer.headers.getSetCookie();
  for (const one of set) expect(one).toMatch(/HttpOnly.*SameSite=Lax/i);
  return set.map((one) => one.slice(0, one.indexOf(';'))).join('; ');
}

beforeAll(async () => {
  world = await makeWorld();
  const signIns = signInsOf(world);
  serveWorld(world, signIns);
  const elsewhere = { currency: 'EUR', target: '18', steersBy: 'CPA', person: 'Wren Holloway' } as const;
  await addAccount(world.deps, { name: 'Elsewhere', ...elsewhere }, null);
  const { person_id: wren } = await world.db('person').where({ name: 'Wren Holloway' }).first('person_id');
  await signIns.add({ personId: 1, name: 'Maren Oakes', ...MAREN });
  await signIns.add({ personId: wren, name: 'Wren Holloway', ...WREN });
});
beforeEach(() => vi.stubEnv('GATEPOST_OPEN', ''));
afterAll(() => world.close());

test.each(closed)('who has not signed in gets nothing by $name, whatever person is chosen', async (route) => {
  for (const cookie of ['', 'gatepost-person=1', 'gatepost.session_token=made.up'])
    expect(await call(route, cookie)).toEqual({
      status: 401,
      text: expect.stringContaining('Sign in first'),
    });
});

test('who has signed in acts as who he or she is, by role', async () => {
  const [maren, wren] = [await signIn(MAREN), await signIn(WREN)];
  for (const route of ofAccount) {
    expect((await call(route, wren)).text, route.name).toContain('Wren Holloway has no role in this account');
    expect([401, 403], route.name).not.toContain((await call(route, maren)).status);
  }
});

test('a session ends by signing out, here or everywhere', async () => {
  const routeOf = (wanted: string) => all.find(({ name }) => name === wanted)!;
  const [first, second, third] = [await signIn(MAREN), await signIn(MAREN), await signIn(MAREN)];
  const isIn = async (cookie: string) => (await call(routeOf('GET pulse'), cookie)).status === 200;
  await call(routeOf('POST /sign-out'), first);
  expect([await isIn(first), await isIn(second), await isIn(third)]).toEqual([false, true, true]);
  await call(routeOf('POST /sign-out/everywhere'), second);
  expect([await isIn(second), await isIn(third)]).toEqual([false, false]);
});

test('nothing that is told holds a password, a token or what signs it', async () => {
  const route = all.find(({ name }) => name === 'POST /sign-in')!;
  const answer = await callRoute(route, { body: JSON.stringify(MAREN) });
  expect(await answer.text()).toBe('{"is":"signed in"}');
});

test.each(all.filter(({ method }) => method !== 'GET'))(
  'a write by $name is taken from no other page, whoever has signed in',
  async (route) => {
    const cookie = await signedIn();
    for (const origin of [undefined, 'null', 'http://elsewhere.example', 'http://127.0.0.1:9']) {
      browser.cookie = cookie;
      const { origin: _, ...own } = OWN;
      const headers = { ...own, cookie, ...(origin !== undefined && { origin }) };
      const answer = await callRoute(route, { body: '{}', headers });
      expect([answer.status, await answer.text()], origin).toEqual([
        403,
        expect.stringContaining('Gate Post’s own pages only'),
      ]);
    }
  },
);

let cookieOfMaren: string | undefined;
const signedIn = async () => (cookieOfMaren ??= await signIn(MAREN));
