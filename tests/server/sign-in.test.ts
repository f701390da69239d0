import { addDays, addSeconds, differenceInDays } from 'date-fns';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { createSignIns, type SignedIn, type SignIns } from '@/server/sign-in/sign-ins';
import { addAccount } from '@/server/use-cases/account/add-account';
import { addMember } from '@/server/use-cases/account/people';
import { makeLink, takeLink } from '@/server/use-cases/sign-in/links';
import { signIn } from '@/server/use-cases/sign-in/sign-in';
import { waitAfter } from '@/server/use-cases/sign-in/wait';
import { signInsOf } from '../support/sign-ins';
import { makeWorld, type World } from '../support/world';

let world: World;
let signIns: SignIns;
const MAREN = { email: 'maren@larkfell.example', password: 'seven hives in a row' };
const none = () => new Headers();
/** What a browser sends after it was told to keep cookies. */
const keeping = (cookies: string[]) =>
  new Headers({ cookie: cookies.map((one) => one.slice(0, one.indexOf(';'))).join('; ') });
const cookiesOf = (signed: SignedIn | null) => signed!.cookies;

beforeAll(async () => {
  world = await makeWorld();
  signIns = signInsOf(world);
  await signIns.add({ personId: 1, name: 'Maren Oakes', ...MAREN });
});
afterAll(() => world.close());

test('who signs in is known by the cookie, which no script reads and no other page sends', async () => {
  const signed = await signIns.signIn(MAREN, none());
  expect(signed).toMatchObject({ is: 'signed in', personId: 1 });
  const cookies = cookiesOf(signed);
  for (const cookie of cookies) expect(cookie).toMatch(/HttpOnly.*SameSite=Lax/i);
  expect(await signIns.whoIs(keeping(cookies))).toBe(1);
  expect(await signIns.whoIs(none())).toBeNull();
  await signIns.signOut(keeping(cookies));
  expect(await signIns.whoIs(keeping(cookies))).toBeNull();
});

test('behind TLS the cookies never go without it', async () => {
  const secret = 'of the tests alone '.repeat(3);
  const behindTls = createSignIns({ databaseUrl: world.url, secret, isSecure: true });
  for (const cookie of cookiesOf(await behindTls.signIn(MAREN, none()))) expect(cookie).toMatch(/; Secure/i);
});

test.each([
  [{ ...MAREN, password: 'eight hives in a row' }],
  [{ ...MAREN, email: 'nobody@larkfell.example' }],
  [{ email: '', password: '' }],
  [{ email: "' or 1=1 --", password: 'x'.repeat(500) }],
])('%o does not sign in', async (asked) => {
  expect(await signIns.signIn(asked, none())).toBeNull();
});

test('another password ends every session, and so does signing out everywhere', async () => {
  const first = cookiesOf(await signIns.signIn(MAREN, none()));
  await signIns.setPassword(1, 'nine hives in a row');
  expect(await signIns.whoIs(keeping(first))).toBeNull();
  expect(await signIns.signIn(MAREN, none())).toBeNull();
  const again = cookiesOf(await signIns.signIn({ ...MAREN, password: 'nine hives in a row' }, none()));
  await signIns.signOutEverywhere(1);
  expect(await signIns.whoIs(keeping(again))).toBeNull();
});

test('the password is kept as argon2, and nothing else of it', async () => {
  const [{ password }] = await world.db('sign_in_account').select('password');
  expect(password).toMatch(/^\$argon2id\$/);
});

describe('tries in vain', () => {
  const wrong = { email: 'tobias@larkfell.example', password: 'not this one' };
  let now = new Date('2026-11-20T09:00:00Z');
  const deps = () => ({ db: world.db, clock: { now: () => now }, signIns });
  const later = (seconds: number) => (now = addSeconds(now, seconds));

  test.each([
    [0, 0],
    [2, 0],
    [3, 5],
    [4, 10],
    [10, 640],
    [11, 900],
    [1_000, 900],
  ])('after %i of them one waits %i seconds', (tries, wait) => expect(waitAfter(tries)).toBe(wait));

  test('are waited for by address, whether or not somebody has it, and forgotten once one signs in', async () => {
    const right = { email: wrong.email, password: 'a swarm in the pear tree' };
    await signIns.add({ personId: 2, name: 'Tobias Finch', ...right });
    for (const email of [wrong.email, 'nobody@larkfell.example']) {
      const asked = { ...wrong, email };
      for (let i = 0; i < 3; i++)
        await expect(signIn(deps(), asked, none())).rejects.toThrow(/belong together/);
      await expect(signIn(deps(), asked, none())).rejects.toThrow('Try again in 5 seconds');
      await expect(signIn(deps(), { ...right, email }, none())).rejects.toThrow('Try again in 5 seconds');
    }
    later(5);
    expect(await signIn(deps(), right, none())).toMatchObject({ is: 'signed in', personId: 2 });
    await expect(signIn(deps(), wrong, none())).rejects.toThrow(/belong together/);
    expect(await signIn(deps(), right, none())).toMatchObject({ is: 'signed in' });
  });

  test('that come at once count one by one', async () => {
    const asked = { ...wrong, email: 'many@larkfell.example' };
    const said = await Promise.all(
      Array.from({ length: 12 }, () => signIn(deps(), asked, none()).catch((error: Error) => error.message)),
    );
    expect(said.filter((one) => /belong together/.test(String(one)))).toHaveLength(3);
  });

  test('stand in the log with what else happened', async () => {
    const what = await world
      .db('sign_in_event')
      .where({ email: wrong.email })
      .orderBy('sign_in_event_id')
      .pluck('what');
    expect(what).toEqual([...Array(3).fill('tried in vain'), 'signed in', 'tried in vain', 'signed in']);
  });
});

describe('a link', () => {
  const deps = () => ({ ...world.deps, signIns });
  const [ILSE, password] = ['ilse@larkfell.example', 'smoke calms the bees'];
  const take = (token: string, more = {}) => takeLink(deps(), { token, email: ILSE, password, ...more });
  let ilse: number;

  test('lets a person of the account set address and password, once', async () => {
    const asked = { name: 'Ilse Brandow', role: 'prepare' as const };
    ({ id: ilse } = await addMember(world.deps, world.slug, 1, asked));
    const { token, endsAt } = await makeLink(deps(), world.slug, 1, ilse);
    expect(differenceInDays(endsAt, new Date())).toBe(6);
    await expect(take(`${token}x`)).rejects.toThrow(/leads nowhere/);
    await expect(take(token, { email: MAREN.email })).rejects.toThrow(/Somebody else signs in/);
    await take(token);
    await expect(take(token)).rejects.toThrow(/leads nowhere/);
    expect(await signIns.signIn({ email: ILSE, password }, none())).toMatchObject({ personId: ilse });
  });

  test('sets the password anew, for the same address only; a later link ends the one before', async () => {
    const first = await makeLink(deps(), world.slug, 1, ilse);
    const { token } = await makeLink(deps(), world.slug, 1, ilse);
    await expect(take(first.token)).rejects.toThrow(/leads nowhere/);
    await expect(take(token, { email: 'other@larkfell.example' })).rejects.toThrow(/for another address/);
    await take(token, { password: 'a queen on every frame' });
    expect(await signIns.signIn({ email: ILSE, password }, none())).toBeNull();
  });

  test('ends after a week', async () => {
    const { token } = await makeLink(deps(), world.slug, 1, ilse);
    const clock = { now: () => addDays(new Date(), 8) };
    await expect(takeLink({ ...deps(), clock }, { token, email: ILSE, password })).rejects.toThrow(
      /leads nowhere/,
    );
  });

  test('is not made for who has a role in an account of others, nor for who has none here', async () => {
    const other = { currency: 'EUR', target: '18', steersBy: 'CPA', person: 'Wren Holloway' } as const;
    const { slug } = await addAccount(world.deps, { name: 'Elsewhere', ...other }, null);
    const wren = (await world.db('person').where({ name: 'Wren Holloway' }).first('person_id')).person_id;
    await addMember(world.deps, slug, wren, { name: 'Ilse Brandow', role: 'look' });
    await expect(makeLink(deps(), world.slug, 1, ilse)).rejects.toThrow(
      /not yours.*gatepost link "Ilse Brandow"/,
    );
    await expect(makeLink(deps(), world.slug, 1, wren)).rejects.toThrow(/no role here/);
  });

  test('is nowhere in the database', async () => {
    const { token } = await makeLink(deps(), world.slug, 1, 1);
    const links = await world.db('sign_in_link').select();
    expect(JSON.stringify(links)).not.toContain(token);
  });
});
