import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { mayDo, MEMBER_ROLES, type MemberRole, type Role } from '@/contracts/roles';
import { ROUTES } from '@/contracts/routes';
import { webLog } from '@/server/log';
import { addAccount } from '@/server/use-cases/account/add-account';
import { callRoute, servedRoutes, serveWorld, type Sent, type ServedRoute } from '../support/routes';
import { makeWorld, type World } from '../support/world';

const cookie = vi.hoisted(() => ({ person: '' }));
vi.mock('next/headers', () => ({
  cookies: () => Promise.resolve(new Map([['gatepost-person', { value: cookie.person }]])),
}));

let world: World;
/** Somebody who owns another account. */
let stranger: number;
const [OWNER, OTHER] = [1, 2];
const as = (person: number | '') => void (cookie.person = String(person));
const give = (person: number, role: MemberRole) =>
  world.db('member').where({ person_id: person, account_id: world.accountId }).update({ role });
const ofAccount = servedRoutes.filter(({ name }) => name in ROUTES && !name.includes(' /'));
const routeOf = (name: keyof typeof ROUTES) => servedRoutes.find((one) => one.name === name)!;

/** What nobody may ask with; so that nothing is done where the role suffices. */
async function call(route: ServedRoute, sent: Sent = {}) {
  const answer = await callRoute(route, { ...(route.method !== 'GET' && { body: '[' }), ...sent });
  return { status: answer.status, text: await answer.text() };
}

beforeAll(async () => {
  world = await makeWorld();
  serveWorld(world);
  vi.spyOn(webLog, 'error').mockImplementation(() => undefined);
  const elsewhere = { currency: 'EUR', target: '18', steersBy: 'CPA', person: 'Wren Holloway' } as const;
  await addAccount(world.deps, { name: 'Elsewhere', ...elsewhere }, null);
  stranger = (await world.db('person').where({ name: 'Wren Holloway' }).first('person_id')).person_id;
});
beforeEach(() => world.db('member').update({ role: 'own' }));
afterAll(() => world.close());

describe.each(MEMBER_ROLES)('who has the role “%s”', (role) => {
  test.each(ofAccount)('$name', async (route) => {
    await give(OTHER, role);
    as(OTHER);
    const { status, text } = await call(route);
    const may = mayDo(role, route.contract!.role as Role);
    expect(status === 403, `${status} ${text}`).toBe(!may);
    if (!may)
      expect(text).toMatch(
        /Tobias Finch .*: Maren Oakes|Tobias Finch .*Nothing was changed\. .*by Maren Oakes/,
      );
  });
});

test.each(ofAccount)('an owner of another account is refused $name', async (route) => {
  as(stranger);
  const { status, text } = await call(route);
  expect([status, text]).toEqual([403, expect.stringContaining('Wren Holloway has no role in this account')]);
});

test.each(ofAccount)('where nobody has a role, nobody is let in: $name', async (route) => {
  await world.db('member').update({ role: 'none' });
  as('');
  expect((await call(route)).status).toBe(403);
});

describe('who is nobody that is known', () => {
  test.each(['', '999', 'x', '1e9', '2147483648', "1' or '1'='1"])(
    '“%s” acts as the first who has a role',
    async (person) => {
      cookie.person = person;
      await give(OWNER, 'none');
      await give(OTHER, 'look');
      expect((await call(routeOf('GET account'))).status).toBe(200);
      expect((await call(routeOf('PATCH account'))).text).toContain('Tobias Finch may look');
    },
  );
});

describe('an account', () => {
  const add = (name: string) =>
    call(routeOf('POST /accounts'), {
      body: JSON.stringify({ name, currency: 'EUR', steersBy: 'CPA', target: '18' }),
    });

  test('is added by who owns one, and by nobody else', async () => {
    await give(OTHER, 'send');
    as(OTHER);
    expect(await add('Not mine')).toEqual({ status: 403, text: expect.stringContaining('owns no account') });
    as(stranger);
    expect((await add('One more')).status).toBe(200);
    as(OWNER);
    expect((await call(routeOf('GET account'), { params: { account: 'one-more' } })).status).toBe(403);
  });
});

test('a role that is taken away counts with the next request', async () => {
  const body = JSON.stringify({ kind: 'term', about: 'bee movie', body: 'a film' });
  const note = () => call(routeOf('POST notes'), { body });
  as(OTHER);
  expect((await note()).status).toBe(200);
  as(OWNER);
  const lower = JSON.stringify({ role: 'look' });
  expect(
    (await call(routeOf('PUT people/[person]'), { params: { person: String(OTHER) }, body: lower })).status,
  ).toBe(200);
  as(OTHER);
  expect(await note()).toEqual({ status: 403, text: expect.stringContaining('Tobias Finch may look') });
});
