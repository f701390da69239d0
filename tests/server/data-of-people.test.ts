import { afterEach, beforeEach, expect, test } from 'vitest';
import { addAccount } from '@/server/use-cases/account/add-account';
import { forgetPerson, saveMemberData, savePersonData } from '@/server/use-cases/account/data-of-people';
import { noteExport } from '@/server/use-cases/account/exports';
import { addMember, setRole } from '@/server/use-cases/account/people';
import { viewAccount } from '@/server/use-cases/account/view-account';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { makeLink } from '@/server/use-cases/sign-in/links';
import { writeNote } from '@/server/use-cases/sift/remember';
import { deleteOldLogs } from '@/server/repositories/account/person-data';
import { insertSignInEvent } from '@/server/repositories/sign-in/events';
import { signInsOf } from '../support/sign-ins';
import { makeWorld, type World } from '../support/world';

const [MAREN, TOBIAS] = [1, 2];
const PETRA = { email: 'petra@larkfell.example', password: 'smoke calms the bees' };
let world: World;
let petra: number;

beforeEach(async () => {
  world = await makeWorld();
  const { deps, slug } = world;
  ({ id: petra } = await addMember(deps, slug, MAREN, { name: 'Petra Holm', role: 'own' }));
  await signInsOf(world).add({ personId: petra, name: 'Petra Holm', ...PETRA });
  await makeLink(deps, slug, MAREN, petra);
  await insertSignInEvent(deps.db, {
    what: 'signed in',
    personId: petra,
    email: PETRA.email,
    at: new Date(),
  });
  await writeNote(deps, slug, petra, { kind: 'term', about: 'bee movie', body: 'a film' });
  await writeNote(deps, slug, MAREN, {
    kind: 'term',
    about: 'bee movie',
    body: 'ask petra holm; not Petra Holmes',
  });
  await noteExport(deps, slug, petra, 'terms.csv');
});
afterEach(() => world.close());

const forget = (of: number, name: string, by = MAREN) =>
  forgetPerson(world.deps, world.slug, by, { of, name });
/** Everything that the database holds, as one text. */
async function everything(): Promise<string> {
  const { rows } = await world.db.raw<{ rows: { name: string }[] }>(
    `select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'`,
  );
  const tables = await Promise.all(rows.map(({ name }) => world.db(name).select()));
  return JSON.stringify(tables);
}

test('what is stored of a person is one file, without secrets', async () => {
  const { name, content } = await savePersonData(world.deps, petra);
  expect(name).toMatch(/^Petra Holm in Gate Post, \d{4}-\d\d-\d\d\.json$/);
  expect(JSON.parse(content)).toMatchObject({
    person: [{ number: petra, name: 'Petra Holm' }],
    'sign in': [{ email: PETRA.email, 'second factor': false }],
    'sign-ins': [{ what: 'was given a link' }, { what: 'signed in' }],
    roles: [{ role: 'own' }],
    ledger: [{ what: 'Note on “bee movie”: a film' }],
    notes: [{ about: 'bee movie', text: 'a film' }],
    'saved files': [{ file: 'terms.csv' }],
  });
  expect(content).not.toMatch(/argon|token|digest|secret/i);
});

test('of a person who is removed nothing is left but a number, and what was decided', async () => {
  await forget(petra, ' petra holm ');
  const all = await everything();
  for (const gone of [/Petra Holm(?!es)/i, /petra@larkfell/]) expect(all).not.toMatch(gone);
  expect(all).toContain(`ask Person ${petra}; not Petra Holmes`);
  const { lines } = await viewLedger(world.deps, world.slug, {});
  expect(lines.map(({ who, what }) => `${who}: ${what}`)).toEqual(
    expect.arrayContaining([
      `Maren Oakes: Remove Person ${petra}`,
      `Person ${petra}: Note on “bee movie”: a film`,
      `Maren Oakes: Person ${petra} owns the account`,
    ]),
  );
  expect(await signInsOf(world).whoHas(PETRA.email)).toBeNull();
  expect((await viewAccount(world.deps, world.slug, MAREN)).people.map(({ id }) => id)).toEqual([
    MAREN,
    TOBIAS,
  ]);
  await expect(forget(petra, `Person ${petra}`)).rejects.toThrow('no role here');
});

test('the ledger is still only ever added to', async () => {
  await forget(petra, 'Petra Holm');
  await expect(world.db('ledger_entry').update({ what: 'nothing' })).rejects.toThrow('only ever added to');
});

test('a name is typed again, as it stands', async () => {
  await expect(forget(petra, 'Petra')).rejects.toThrow('Type the name as it stands here: Petra Holm');
  expect(await everything()).toContain('Petra Holm');
});

test('it takes an owner of every account of the person, and somebody still owns each', async () => {
  const other = { currency: 'EUR', target: '18', steersBy: 'CPA' } as const;
  await addAccount(world.deps, { name: 'Elsewhere', ...other }, petra);
  await expect(forget(petra, 'Petra Holm')).rejects.toThrow('an account that is not yours');
  await expect(saveMemberData(world.deps, world.slug, MAREN, petra)).rejects.toThrow('not yours');
  await expect(forget(petra, 'Petra Holm', petra)).rejects.toThrow('Nobody would own the account');
  await setRole(world.deps, 'elsewhere', petra, { person: petra, role: 'own' });
  await addMember(world.deps, 'elsewhere', petra, { name: 'Maren Oakes', role: 'own' });
  await forget(petra, 'Petra Holm');
});

test.each(["O'Brien (the 2nd)", 'Ana.*', 'back\\slash', '[x]'])(
  'a name such as %s is removed too',
  async (name) => {
    const { id } = await addMember(world.deps, world.slug, MAREN, { name, role: 'look' });
    await forget(id, name);
    const texts: string[] = await world.db('ledger_entry').pluck('what');
    expect(texts).toContain(`Person ${id} may look`);
  },
);

test('what is over of signing in goes, and nothing else', async () => {
  const signIns = signInsOf(world);
  await signIns.signIn(PETRA, new Headers());
  await signIns.signIn(PETRA, new Headers());
  const [kept, over] = await world.db('sign_in_session').pluck('id');
  await world.db('sign_in_session').where({ id: over }).update({ expires_at: '2020-01-01' });
  const failure = (email: string, last_at: string) =>
    world.db('sign_in_failure').insert({ email, tries: 3, last_at });
  await failure('long@ago.example', '2020-01-01');
  await failure('just@now.example', new Date().toISOString());
  await deleteOldLogs(world.db);
  expect(await world.db('sign_in_session').pluck('id')).toEqual([kept]);
  expect(await world.db('sign_in_failure').pluck('email')).toEqual(['just@now.example']);
  expect(await world.db('sign_in_link').count({ n: '*' }).first()).toEqual({ n: 1 });
});

test('logs are kept for as long as the account says', async () => {
  const ago = (days: number) => world.db.raw(`now() - interval '1 day' * ${days}`);
  await world.db('account').update({ log_days: 30 });
  await world.db('export').update({ at: ago(29) });
  await world.db('sign_in_event').update({ at: ago(29) });
  expect(await deleteOldLogs(world.db)).toBe(0);
  await world.db('export').update({ at: ago(31) });
  await world
    .db('sign_in_event')
    .where({ what: 'signed in' })
    .update({ at: ago(31) });
  expect(await deleteOldLogs(world.db)).toBe(2);
  expect(await world.db('sign_in_event').pluck('what')).toEqual(['was given a link']);
});
