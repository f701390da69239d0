import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createServer } from 'node:net';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { createSignIns, type SignIns } from '@/server/sign-in/sign-ins';
import { readCompany } from '@/server/sign-in/read-company';
import { addMember } from '@/server/use-cases/account/people';
import { comeFromCompany, goToCompany } from '@/server/use-cases/sign-in/company';
import { makeLink, takeLink } from '@/server/use-cases/sign-in/links';
import { COMPANY_CLIENT, startCompany, type Colleague } from '@/standins/company/server';
import { signInsOf } from '../support/sign-ins';
import { makeWorld, type World } from '../support/world';

const ORIGIN = 'http://127.0.0.1:4180';
const COLLEAGUES: Colleague[] = [
  { email: 'petra@larkfell.example', name: 'Petra Holm' },
  { email: 'maren@larkfell.example', name: 'Maren Oakes' },
  { email: 'stranger@larkfell.example', name: 'Who Else' },
  { email: 'unsure@larkfell.example', name: 'Not Verified', isVerified: false },
];
let world: World;
let company: Server;
let signIns: SignIns;
let petra: number;
const deps = () => ({ ...world.deps, signIns });

/** A port that nobody listens on. */
async function freePort(): Promise<number> {
  const probe = createServer();
  await new Promise<void>((done) => void probe.listen(0, '127.0.0.1', done));
  const { port } = probe.address() as AddressInfo;
  await new Promise((done) => void probe.close(done));
  return port;
}

beforeAll(async () => {
  world = await makeWorld();
  const port = await freePort();
  company = startCompany(port, `${ORIGIN}/api/auth/callback/company`, COLLEAGUES);
  signIns = createSignIns({
    ...{ databaseUrl: world.url, secret: 'of the tests alone '.repeat(3), isSecure: false },
    company: {
      ...{ name: 'Larkfell', issuer: `http://127.0.0.1:${port}` },
      ...{ clientId: COMPANY_CLIENT.id, clientSecret: COMPANY_CLIENT.secret },
    },
  });
  ({ id: petra } = await addMember(world.deps, world.slug, 1, { name: 'Petra Holm', role: 'prepare' }));
  const { token } = await makeLink(world.deps, world.slug, 1, petra);
  await takeLink(deps(), { token, email: 'petra@larkfell.example', password: null });
});
afterAll(async () => {
  company.close();
  company.closeAllConnections();
  await world.close();
});

/** A browser that follows, keeps cookies by host, and fills the forms of the stand-in's pages. */
async function walk(as: string, forged?: (back: URL) => void) {
  const jar = new Map<string, string>();
  const keep = (cookies: string[]) => {
    for (const cookie of cookies) {
      const [, name, value] = /^([^=]+)=([^;]*)/.exec(cookie)!;
      jar.set(name!, value!);
    }
  };
  const cookie = () => [...jar].map(([name, value]) => `${name}=${value}`).join('; ');
  const begun = await goToCompany(deps(), ORIGIN, new Headers());
  keep(begun.cookies);
  let at = new URL(begun.address);
  for (let steps = 0; at.origin !== ORIGIN; steps++) {
    if (steps > 12) throw new Error(`the stand-in leads nowhere, but to ${at.href}`);
    let answer = await fetch(at, { redirect: 'manual', headers: { cookie: cookie() } });
    keep(answer.headers.getSetCookie());
    if (answer.status === 200) {
      const page = await answer.text();
      const action = new URL(/action="([^"]+)"/.exec(page)![1]!, at);
      const prompt = /name="prompt" value="([^"]+)"/.exec(page)![1]!;
      answer = await fetch(action, {
        ...{ method: 'POST', redirect: 'manual' },
        headers: { cookie: cookie(), 'content-type': 'application/x-www-form-urlencoded' },
        body: new URLSearchParams({ prompt, login: as, password: 'any' }),
      });
      keep(answer.headers.getSetCookie());
    }
    at = new URL(answer.headers.get('location')!, at);
  }
  forged?.(at);
  const request = new Request(at, { headers: { cookie: cookie() } });
  const set = await comeFromCompany(deps(), ORIGIN, request);
  if (!set) return null;
  keep(set);
  return signIns.whoIs(new Headers({ cookie: cookie() }));
}

describe('signing in by the company', () => {
  test('lets in who was invited to, without a password of ours', async () => {
    expect(await walk('petra@larkfell.example')).toBe(petra);
    expect(await walk('petra@larkfell.example')).toBe(petra);
    const accounts = await world.db('sign_in_account').select('provider_id', 'account_id', 'password');
    expect(accounts).toEqual([
      { provider_id: 'company', account_id: 'petra@larkfell.example', password: null },
    ]);
  });

  test('lets in who has a password too, as the same person', async () => {
    await signIns.add({
      ...{ personId: 1, name: 'Maren Oakes', email: 'maren@larkfell.example' },
      password: 'seven hives in a row',
    });
    expect(await walk('maren@larkfell.example')).toBe(1);
  });

  test('knows nobody who was not invited, nor an address that the company has not verified', async () => {
    await signIns.add({
      ...{ personId: 2, name: 'Tobias Finch', email: 'unsure@larkfell.example' },
      password: 'a swarm in May, or two',
    });
    expect(await walk('stranger@larkfell.example')).toBeNull();
    expect(await walk('unsure@larkfell.example')).toBeNull();
    expect(await world.db('sign_in').pluck('email')).not.toContain('stranger@larkfell.example');
  });

  test.each([
    ['another state', (back: URL) => back.searchParams.set('state', 'made-up')],
    ['no state', (back: URL) => back.searchParams.delete('state')],
    ['another code', (back: URL) => back.searchParams.set('code', 'made-up')],
    ['no code', (back: URL) => back.searchParams.delete('code')],
  ])('does not believe %s', async (_, forge) => {
    expect(await walk('petra@larkfell.example', forge)).toBeNull();
  });

  test('stands in the log', async () => {
    const what = await world.db('sign_in_event').where({ person_id: petra }).pluck('what');
    expect(what).toEqual(expect.arrayContaining(['signs in by the company', 'signed in by the company']));
  });
});

describe('where there is no company', () => {
  const without = () => ({ ...world.deps, signIns: signInsOf(world) });

  test('nobody goes there, and a link needs a password', async () => {
    await expect(goToCompany(without(), ORIGIN, new Headers())).rejects.toThrow('There is no company');
    const { token } = await makeLink(world.deps, world.slug, 1, petra);
    const asked = { token, email: 'petra@larkfell.example', password: null };
    await expect(takeLink(without(), asked)).rejects.toThrow('Give a password');
  });

  test('it takes all four settings', () => {
    const all = {
      ...{ GATEPOST_COMPANY: 'Larkfell', GATEPOST_COMPANY_ISSUER: 'https://id.larkfell.example' },
      ...{ GATEPOST_COMPANY_ID: 'gate-post', GATEPOST_COMPANY_SECRET: 'x', NODE_ENV: 'test' as const },
    };
    expect(readCompany(all)).toMatchObject({ name: 'Larkfell', clientId: 'gate-post' });
    expect(readCompany({ ...all, GATEPOST_COMPANY_SECRET: undefined })).toBeUndefined();
  });
});

test('a company that does not answer is said, and nothing else breaks', async () => {
  const silent = createSignIns({
    ...{ databaseUrl: world.url, secret: 'of the tests alone '.repeat(3), isSecure: false },
    company: { name: 'Larkfell', issuer: 'http://127.0.0.1:9', clientId: 'x', clientSecret: 'y' },
  });
  await expect(goToCompany({ ...world.deps, signIns: silent }, ORIGIN, new Headers())).rejects.toThrow(
    'Larkfell does not answer',
  );
  expect(await silent.whoHas('petra@larkfell.example')).toBe(petra);
});
