import type { Knex } from 'knex';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { down, up } from '@/server/db/migrations/009-facts-by-account';
import * as ofOnesOwn from '@/server/db/migrations/010-accounts-of-ones-own';
import * as structureAgain from '@/server/db/migrations/011-structure-again';
import * as words from '@/server/db/migrations/012-one-word-a-thing';
import * as members from '@/server/db/migrations/030-members';
import { undoEntry } from '@/server/use-cases/ledger/undo-entry';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { tagWords, viewSavedViews, viewWordTags } from '@/server/use-cases/sift/remember';
import { makeWorld, type World } from '../support/world';

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world.close());

const facts = (db: Knex) =>
  db('term_day').orderBy(['account_id', 'day', 'ad_group_id', 'keyword_id', 'term_id']).select();
const terms = (db: Knex) => db('term').orderBy(['account_id', 'term_id']).select();

const isParted = async (db: Knex) => {
  const { rows } = await db.raw<{ rows: { parted: boolean }[] }>(
    `select bool_and(relkind = 'p') as parted from pg_class where oid in ('term'::regclass, 'term_day'::regclass)`,
  );
  return rows[0]!.parted;
};

test('facts and terms are the same after they have moved out of their parts and into parts again', async () => {
  const trx = await world.db.transaction();
  try {
    const before = { facts: await facts(trx), terms: await terms(trx) };
    expect(before.facts.length).toBeGreaterThan(50);
    await down(trx);
    expect(await isParted(trx)).toBe(false);
    expect({ facts: await facts(trx), terms: await terms(trx) }).toEqual(before);
    // A term may be added without saying its number, which goes on after the last one.
    const [{ account_id }] = before.terms;
    const [added] = await trx('term')
      .insert({ account_id, key: 'quite new', raw: 'quite new', kind: 'query' })
      .returning('term_id');
    expect(added.term_id).toBe(Math.max(...before.terms.map((t) => t.term_id as number)) + 1);
    await trx('term').where({ key: 'quite new' }).delete();
    await up(trx);
    expect(await isParted(trx)).toBe(true);
    expect({ facts: await facts(trx), terms: await terms(trx) }).toEqual(before);
    await expect(trx('term_day').insert(before.facts[0])).rejects.toThrow(/duplicate key/);
  } finally {
    await trx.rollback();
  }
});

test('an account without a platform whose tray was stuck has it handed over, and can go back', async () => {
  const trx = await world.db.transaction();
  try {
    await members.down(trx);
    await ofOnesOwn.down(trx);
    const [own] = await trx('account')
      .insert({ slug: 'own', name: 'Own', platform_account_id: 'own', currency: 'EUR', steers_by: 'CPA' })
      .returning('account_id');
    const { account_id } = own;
    await trx('change_set').insert({ account_id, state: 'sending', trouble: 'The platform answered 404' });
    await ofOnesOwn.up(trx);
    expect(await trx('account').where({ account_id }).first('platform_account_id', 'limits')).toMatchObject({
      platform_account_id: null,
      limits: { listNegatives: 4_000 },
    });
    expect(await trx('change_set').where({ account_id }).first('state', 'trouble')).toEqual({
      state: 'handed over',
      trouble: null,
    });
    // The account of the platform stays connected.
    expect(await trx('account').where({ slug: world.slug }).first('platform_account_id')).toEqual({
      platform_account_id: world.slug,
    });
    await ofOnesOwn.down(trx);
    expect(await trx('change_set').where({ account_id }).first('state')).toEqual({ state: 'sending' });
  } finally {
    await trx.rollback();
  }
});

test('of a structure file that came twice only the last load counts as one when that is not allowed again', async () => {
  const trx = await world.db.transaction();
  try {
    const load = { account_id: world.accountId, name: 'structure.csv', source: 'file', digest: 'same' };
    const rest = { size_bytes: 1, stored_as: 'x', state: 'loaded', kind: 'structure' };
    await trx('report_file').insert([
      { ...load, ...rest },
      { ...load, ...rest },
    ]);
    await structureAgain.down(trx);
    const states = () =>
      trx('report_file').where({ digest: 'same' }).orderBy('report_file_id').pluck('state');
    expect(await states()).toEqual(['taken back', 'loaded']);
    await structureAgain.up(trx);
    await trx('report_file').where({ digest: 'same' }).update({ state: 'loaded' });
    await trx('report_file').insert({ ...load, ...rest, digest: 'report', kind: 'search terms' });
    await expect(
      trx('report_file').insert({ ...load, ...rest, digest: 'report', kind: 'search terms' }),
    ).rejects.toThrow(/report_file_loaded_once/);
  } finally {
    await trx.rollback();
  }
});

test('what was marked before tags were called so is a tag, and its entry in the ledger can still be undone', async () => {
  await tagWords(world.deps, world.slug, world.personId, { text: 'movie', tag: 'location' });
  const trx = await world.db.transaction();
  await words.down(trx);
  expect(await trx('word_mark').select('text', 'mark')).toEqual([{ text: 'movie', mark: 'place' }]);
  const old = await trx('ledger_entry').where({ about: 'mark' }).first('undo');
  expect(old.undo).toEqual({ do: 'mark words', text: 'movie', mark: null });
  await trx('saved_view').insert({
    ...{ account_id: world.accountId, name: 'Towns', search: 'view=kept&trait=place&text=a' },
    person_id: world.personId,
  });
  await words.up(trx);
  await trx.commit();
  expect(await viewWordTags(world.deps, world.slug)).toMatchObject({
    tags: [{ text: 'movie', tag: 'location' }],
  });
  expect((await viewSavedViews(world.deps, world.slug)).views[0]!.search).toBe(
    'view=kept&trait=location&text=a',
  );
  const [entry] = (await viewLedger(world.deps, world.slug)).lines;
  await undoEntry(world.deps, world.slug, world.personId, entry!.id);
  expect(await viewWordTags(world.deps, world.slug)).toEqual({ tags: [] });
});

test('who was retired has no role, everybody else owns, and a retirement can still be taken back', async () => {
  const trx = await world.db.transaction();
  try {
    await members.down(trx);
    const [maren, tobias] = (await trx('person').orderBy('person_id').pluck('person_id')) as number[];
    await trx('person').where({ person_id: tobias }).update({ retired_at: new Date() });
    const undo = { do: 'retire person', person: tobias, isRetired: false };
    const said = { account_id: world.accountId, actor: 'person', person_id: maren, about: 'setting' };
    await trx('ledger_entry').insert({ ...said, what: 'Retire Tobias Finch', undo });
    await members.up(trx);
    const roles = () => trx('member').orderBy('person_id').select('person_id', 'role');
    const were = [
      { person_id: maren, role: 'own' },
      { person_id: tobias, role: 'none' },
    ];
    expect(await roles()).toEqual(were);
    const undoOf = async () =>
      (await trx('ledger_entry').where({ what: 'Retire Tobias Finch' }).first()).undo;
    expect(await undoOf()).toEqual({ do: 'set role', person: tobias, role: 'own' });
    await members.down(trx);
    expect(await undoOf()).toEqual(undo);
    await members.up(trx);
    expect(await roles()).toEqual(were);
  } finally {
    await trx.rollback();
  }
});
