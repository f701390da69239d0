import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import * as v from 'valibot';
import { TermsQuerySchema, WordsQuerySchema } from '@/contracts/sift';
import { createSnapshots } from '@/server/compute/snapshots';
import { connect } from '@/server/db/connection';
import {
  obstaclesToSharding,
  readCatalogue,
  REFERENCE_TABLES,
  shardingStatements,
  type Catalogue,
} from '@/server/db/sharding';
import type { Deps } from '@/server/use-cases/deps';
import { countOpen } from '@/server/use-cases/account/count-open';
import { describeAccount } from '@/server/use-cases/account/describe-account';
import { checkGate } from '@/server/use-cases/gate/check-gate';
import { viewIntake } from '@/server/use-cases/intake/take-in';
import { viewLedger } from '@/server/use-cases/ledger/view-ledger';
import { viewAccountWide, viewCouldBe } from '@/server/use-cases/lists/view-entries';
import { viewLists, viewListsHealth } from '@/server/use-cases/lists/view-lists';
import { connectAccount } from '@/server/use-cases/set-up';
import { listTerms, listThemes, listWords, plotView } from '@/server/use-cases/sift/sift-terms';
import { viewPass } from '@/server/use-cases/sift/pass/view-pass';
import { viewTerm } from '@/server/use-cases/sift/view-term';
import { draftChanges } from '@/server/use-cases/tray/draft-changes';
import { sendTray } from '@/server/use-cases/tray/send-tray';
import { viewTray } from '@/server/use-cases/tray/view-tray';
import { aSeed } from '../support/seed';
import { makeWorld, type World } from '../support/world';

let world: World;
let apart: Deps;
let nearBy: Deps;
beforeAll(async () => {
  world = await makeWorld();
  await addNeighbour();
  await draftChanges(world.deps, world.slug, world.personId, [
    { change: { kind: 'add negative', text: 'jobs', match: 'phrase', place: { kind: 'account', id: null } } },
  ]);
  await sendTray(world.deps, world.slug, world.personId);
  await world.work();
  apart = await depsThatSeeOneAccount();
  nearBy = { ...world.deps, snapshots: createSnapshots() };
});
afterAll(async () => {
  await apart.db.destroy();
  await seeAllAgain();
  await world.close();
});

/** Another account with the same structure and the same terms, so that what is not asked for by account finds both. */
async function addNeighbour(): Promise<void> {
  const seed = aSeed();
  const account = { ...seed.account, id: 'neighbour', name: 'Neighbour' };
  const seeded = await fetch(`${world.platformUrl}/accounts/neighbour/seed`, {
    ...{ method: 'POST', headers: { 'content-type': 'application/json' } },
    body: JSON.stringify({ ...seed, account }),
  });
  expect(seeded.ok).toBe(true);
  await connectAccount(world.deps, {
    ...{ slug: 'neighbour', name: 'Neighbour', platformAccountId: 'neighbour', currency: 'EUR' },
    ...{ steersBy: 'CPA', targetMicros: 18_000_000, targetAcos: null, productCodePattern: '[A-Z]{2}-\\d{4}' },
  });
  await world.work();
}

/** A connection from which the rows of all other accounts are out of sight, as they are on the machine of one account. */
async function depsThatSeeOneAccount(): Promise<Deps> {
  const { tables } = await readCatalogue(world.db);
  const held = tables.map(({ name }) => name).filter((name) => !REFERENCE_TABLES.includes(name));
  await world.db.raw(`
    do $$ begin create role one_account; exception when duplicate_object then null; end $$;
    grant usage on schema public to one_account;
    grant all on all tables in schema public to one_account`);
  for (const table of held) {
    await world.db.raw(`alter table ?? enable row level security`, [table]);
    await world.db.raw(
      `create policy one_account on ?? to one_account using (account_id = ${world.accountId})`,
      [table],
    );
  }
  const db = connect(`${world.url}?options=${encodeURIComponent('-c role=one_account')}`, 4);
  return { ...world.deps, db, snapshots: createSnapshots() };
}

async function seeAllAgain(): Promise<void> {
  const { rows } = await world.db.raw<{ rows: { table: string }[] }>(
    `select tablename as table from pg_policies where policyname = 'one_account'`,
  );
  for (const { table } of rows) {
    await world.db.raw('drop policy one_account on ??', [table]);
    await world.db.raw('alter table ?? disable row level security', [table]);
  }
  // Roles are the cluster's, and what they may do stays with the tables: other tests would dump it.
  await world.db.raw(`
    do $$ begin
      if exists (select from pg_roles where rolname = 'one_account') then
        drop owned by one_account;
        drop role one_account;
      end if;
    end $$`);
}

const terms = v.parse(TermsQuerySchema, {});
const filters = v.parse(WordsQuerySchema, {});
/** What the screens ask for. */
const QUESTIONS: Record<string, (deps: Deps) => Promise<unknown>> = {
  'the account': (deps) => describeAccount(deps, world.slug),
  'what waits': (deps) => countOpen(deps, world.slug),
  files: (deps) => viewIntake(deps, world.slug),
  terms: (deps) => listTerms(deps, world.slug, terms),
  words: (deps) => listWords(deps, world.slug, filters),
  themes: (deps) => listThemes(deps, world.slug, terms),
  plot: (deps) => plotView(deps, world.slug, terms),
  pass: (deps) => viewPass(deps, world.slug, terms),
  'a term': async (deps) => {
    const { lines } = await listTerms(deps, world.slug, terms);
    return viewTerm(deps, world.slug, { term: lines[0]!.id });
  },
  lists: (deps) => viewLists(deps, world.slug),
  'the health of lists': (deps) => viewListsHealth(deps, world.slug),
  'what could be lists': (deps) => viewCouldBe(deps, world.slug),
  'account-wide negatives': (deps) => viewAccountWide(deps, world.slug),
  tray: (deps) => viewTray(deps, world.slug),
  gate: (deps) => checkGate(deps, world.slug, 'bee hive jobs'),
  ledger: (deps) => viewLedger(deps, world.slug),
};

describe('an account needs nothing that belongs to another', () => {
  test.each(Object.entries(QUESTIONS))(
    '%s: the same where the rows of others are out of sight',
    async (_, ask) => {
      const seen = await world.db('term_day').countDistinct('account_id as n').first();
      expect(Number(seen!.n)).toBe(2);
      expect(await ask(apart)).toEqual(await ask(nearBy));
    },
  );

  test('a decision', async () => {
    expect(await apart.db('term_day').distinct('account_id')).toEqual([{ account_id: world.accountId }]);
    const drafted = await draftChanges(apart, world.slug, world.personId, [
      {
        change: {
          kind: 'add negative',
          text: 'movie',
          match: 'phrase',
          place: { kind: 'account', id: null },
        },
      },
    ]);
    expect(drafted[0]!.outcome).toBe('drafted');
    expect(await viewTray(apart, world.slug)).toEqual(await viewTray(nearBy, world.slug));
  });
});

describe('the tables can be spread over machines by account', () => {
  test('every table, key, unique index and foreign key leads with the account', async () => {
    const catalogue = await readCatalogue(world.db);
    expect(catalogue.tables.length).toBeGreaterThan(30);
    expect(catalogue.keys.length).toBeGreaterThan(60);
    expect(obstaclesToSharding(catalogue)).toEqual([]);
  });

  test('what does not is named', () => {
    const key = {
      table: 'note',
      name: 'note_key',
      kind: 'unique' as const,
      columns: ['body'],
      refersTo: null,
    };
    const catalogue: Catalogue = {
      tables: [
        { name: 'account', columns: ['account_id'] },
        { name: 'note', columns: ['body', 'account_id'] },
      ],
      keys: [
        key,
        { ...key, name: 'note_by', kind: 'foreign', columns: ['person_id'], refersTo: 'person' },
        { ...key, name: 'note_of', kind: 'foreign', columns: ['term_id'], refersTo: 'term' },
        { ...key, table: 'account', name: 'account_last', kind: 'foreign', columns: ['n'], refersTo: 'note' },
      ],
    };
    expect(obstaclesToSharding(catalogue)).toEqual([
      'note does not begin with account_id',
      'note_key of note does not lead with account_id',
      'note_of of note does not lead with account_id',
      'account_last leads from account to note, which is spread',
    ]);
  });

  test('the statements are made from the catalogue, in an order in which they can be run', async () => {
    const statements = shardingStatements(await readCatalogue(world.db));
    expect(statements.slice(0, 3)).toEqual([
      `select create_reference_table('account');`,
      `select create_reference_table('person');`,
      expect.stringMatching(/^select create_distributed_table\('\w+', 'account_id'\);$/),
    ]);
    expect(statements).toContainEqual(expect.stringMatching(/'term_day', 'account_id', colocate_with/));
    expect(statements.some((statement) => /term_day_\d|knex|job_process|sign_in/.test(statement))).toBe(
      false,
    );
  });
});
