import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import type { SignIns } from '@/server/sign-in/sign-ins';
import { makeLinkOf, takeLink } from '@/server/use-cases/sign-in/links';
import { giveCode, signIn } from '@/server/use-cases/sign-in/sign-in';
import {
  changePassword,
  confirmFactor,
  dropFactor,
  endSession,
  prepareFactor,
  viewSignIns,
  viewYou,
} from '@/server/use-cases/sign-in/you';
import { codeOf } from '../support/totp';
import { signInsOf } from '../support/sign-ins';
import { makeWorld, type World } from '../support/world';

let world: World;
let signIns: SignIns;
const MAREN = { email: 'maren@larkfell.example', password: 'seven hives in a row' };
const deps = () => ({ ...world.deps, signIns });

/** A browser: it keeps the cookies that it is told to keep. */
function aBrowser(agent = 'Mozilla/5.0 (X11; Linux x86_64) Firefox/140.0') {
  const kept = new Map<string, string>();
  return {
    headers: () =>
      new Headers({
        'user-agent': agent,
        cookie: [...kept].map(([name, value]) => `${name}=${value}`).join('; '),
      }),
    keep(cookies: string[]) {
      for (const cookie of cookies) {
        const [, name, value] = /^([^=]+)=([^;]*)/.exec(cookie)!;
        if (/max-age=0/i.test(cookie)) kept.delete(name!);
        else kept.set(name!, value!);
      }
    },
  };
}
type Browser = ReturnType<typeof aBrowser>;
async function go(browser: Browser, asked = MAREN) {
  const signed = await signIn(deps(), asked, browser.headers());
  browser.keep(signed.cookies);
  return signed.is;
}
const isIn = async (browser: Browser) => (await signIns.whoIs(browser.headers())) !== null;

beforeAll(async () => {
  world = await makeWorld();
  signIns = signInsOf(world);
  await signIns.add({ personId: 1, name: 'Maren Oakes', ...MAREN });
});
beforeEach(() => vi.stubEnv('GATEPOST_OPEN', ''));
afterAll(() => world.close());

describe('sessions', () => {
  test('stand with browser and time, and can be ended one by one', async () => {
    const [here, there] = [aBrowser(), aBrowser('Mozilla/5.0 (Windows NT 10.0) Chrome/140.0')];
    await go(here);
    await go(there);
    const you = await viewYou(deps(), 1, here.headers());
    expect(you).toMatchObject({ name: 'Maren Oakes', signsIn: { email: MAREN.email, hasFactor: false } });
    const other = you.signsIn!.sessions.find((one) => !one.isThis)!;
    expect(other.browser).toContain('Windows');
    await endSession(deps(), 1, other.id, here.headers());
    expect([await isIn(here), await isIn(there)]).toEqual([true, false]);
    expect(JSON.stringify(you)).not.toMatch(/token|secret|argon/i);
  });

  test('of somebody else can not be ended', async () => {
    await signIns.add({
      personId: 2,
      name: 'Tobias Finch',
      email: 'tobias@larkfell.example',
      password: 'a swarm in May',
    });
    const [maren, tobias] = [aBrowser(), aBrowser()];
    await go(maren);
    await go(tobias, { email: 'tobias@larkfell.example', password: 'a swarm in May' });
    const own = (await viewYou(deps(), 2, tobias.headers())).signsIn!.sessions;
    await endSession(deps(), 1, own[0]!.id, maren.headers());
    expect(await isIn(tobias)).toBe(true);
  });
});

test('another password is set by who knows the one before; other sessions end', async () => {
  const [here, there] = [aBrowser(), aBrowser()];
  await go(here);
  await go(there);
  const next = 'nine hives in a row';
  await expect(changePassword(deps(), 1, { current: 'wrong', next }, here.headers())).rejects.toThrow(
    'This is not your password',
  );
  here.keep(await changePassword(deps(), 1, { current: MAREN.password, next }, here.headers()));
  expect([await isIn(here), await isIn(there)]).toEqual([true, false]);
  await expect(go(aBrowser())).rejects.toThrow(/belong together/);
  here.keep(await changePassword(deps(), 1, { current: next, next: MAREN.password }, here.headers()));
});

describe('a second factor', () => {
  let uri: string;
  let spareCodes: string[];

  test('counts once a code of it was given', async () => {
    const browser = aBrowser();
    await go(browser);
    await expect(prepareFactor(deps(), 1, 'wrong', browser.headers())).rejects.toThrow('not your password');
    ({ uri, spareCodes } = await prepareFactor(deps(), 1, MAREN.password, browser.headers()));
    expect(await go(aBrowser())).toBe('signed in');
    await expect(confirmFactor(deps(), 1, wrongCode(), browser.headers())).rejects.toThrow('not the code');
    browser.keep(await confirmFactor(deps(), 1, codeOf(uri), browser.headers()));
    expect((await viewYou(deps(), 1, browser.headers())).signsIn).toMatchObject({ hasFactor: true });
  });

  test('is asked for after the password, and nobody is in before', async () => {
    const browser = aBrowser();
    expect(await go(browser)).toBe('asked for a code');
    expect(await isIn(browser)).toBe(false);
    await expect(giveCode(deps(), wrongCode(), browser.headers())).rejects.toThrow('not the code');
    browser.keep((await giveCode(deps(), codeOf(uri), browser.headers())).cookies);
    expect(await isIn(browser)).toBe(true);
  });

  test('may be lost: a spare code counts once in its place', async () => {
    const give = async () => {
      const browser = aBrowser();
      await go(browser);
      browser.keep((await giveCode(deps(), spareCodes[0]!, browser.headers())).cookies);
      return browser;
    };
    expect(await isIn(await give())).toBe(true);
    await expect(give()).rejects.toThrow('not the code');
  });

  test('can not be tried without end', async () => {
    const browser = aBrowser();
    await go(browser);
    for (let i = 0; i < 12; i++) await giveCode(deps(), wrongCode(), browser.headers()).catch(() => null);
    await expect(giveCode(deps(), codeOf(uri), browser.headers())).rejects.toThrow('not the code');
    await world.db('sign_in_factor').update({ failed_verification_count: 0, locked_until: null });
  });

  test('that was lost goes with a password that is set by a link', async () => {
    const { token } = await makeLinkOf(world.deps, 1, null);
    await takeLink(deps(), { token, ...MAREN });
    expect(await go(aBrowser())).toBe('signed in');
    expect(await world.db('sign_in_factor').select()).toEqual([]);
    const browser = aBrowser();
    await go(browser);
    ({ uri, spareCodes } = await prepareFactor(deps(), 1, MAREN.password, browser.headers()));
    await confirmFactor(deps(), 1, codeOf(uri), browser.headers());
  });

  test('is kept enciphered, and can be taken away with the password', async () => {
    const kept = JSON.stringify(await world.db('sign_in_factor').select());
    expect(kept).not.toContain(new URL(uri).searchParams.get('secret'));
    expect(kept).not.toContain(spareCodes[1]);
    const browser = aBrowser();
    await go(browser);
    browser.keep((await giveCode(deps(), spareCodes[1]!, browser.headers())).cookies);
    await expect(dropFactor(deps(), 1, 'wrong', browser.headers())).rejects.toThrow('not your password');
    browser.keep(await dropFactor(deps(), 1, MAREN.password, browser.headers()));
    expect(await go(aBrowser())).toBe('signed in');
  });

  /** Six digits that are not the code of this minute. */
  function wrongCode(): string {
    const right = [-1, 0, 1].map((n) => codeOf(uri, Date.now() + n * 30_000));
    return ['000000', '111111', '222222', '333333'].find((code) => !right.includes(code))!;
  }
});

test('what happened stands in one’s own log, and in that of the account', async () => {
  const browser = aBrowser();
  await signIn(deps(), { ...MAREN, password: 'wrong' }, browser.headers()).catch(() => null);
  await go(browser);
  const own = (await viewYou(deps(), 1, browser.headers())).events;
  expect(own.slice(0, 2).map(({ what }) => what)).toEqual(['signed in', 'tried in vain']);
  const { lines } = await viewSignIns(deps(), world.slug);
  expect(new Set(lines.map(({ who }) => who))).toEqual(new Set(['Maren Oakes', 'Tobias Finch']));
  expect(lines.map(({ what }) => what)).toContain('set up a second factor');
});

test('where nobody signs in, there is nothing to set', async () => {
  vi.stubEnv('GATEPOST_OPEN', '1');
  const headers = new Headers();
  expect(await viewYou(deps(), 1, headers)).toEqual({ name: 'Maren Oakes', signsIn: null, events: [] });
  await expect(prepareFactor(deps(), 1, MAREN.password, headers)).rejects.toThrow('Nobody signs in here');
});
