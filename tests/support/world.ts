import { mkdtemp, rm } from 'node:fs/promises';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Knex } from 'knex';
import type { ReadDecisions } from '@/core';
import { createHooks } from '@/server/alerts/hooks';
import { systemClock } from '@/server/clock';
import { createSnapshots } from '@/server/compute/snapshots';
import { connect } from '@/server/db/connection';
import { readerHere } from '@/server/files/reader/file-reader';
import { enqueue } from '@/server/jobs/queue';
import { createHttpIdeaSource } from '@/server/ideas/http-idea-source';
import { createHttpPlatform } from '@/server/platform/http-platform';
import { addPeople, connectAccount } from '@/server/use-cases/set-up';
import type { Deps } from '@/server/use-cases/deps';
import { loadReport } from '@/server/use-cases/intake/load-report';
import { readWholeReport } from '@/server/use-cases/intake/read-upload';
import { takeBackLoad } from '@/server/use-cases/intake/take-back-load';
import { workOnSet } from '@/server/use-cases/tray/work-on-set';
import { connectStandin } from '@/standins/ad-platform/database';
import { createPlatformServer } from '@/standins/ad-platform/server';
import { createIdeaSource } from '@/standins/idea-source/server';
import type { NewAccountRequest } from '@/contracts/account';
import type { SeedRequest } from '@/contracts/platform';
import { addAccount } from '@/server/use-cases/account/add-account';
import { aSeed } from './seed';

/** A small world of its own for one test file: database, stand-in platform, one account. */
export type World = {
  deps: Deps;
  db: Knex;
  url: string;
  slug: string;
  accountId: number;
  personId: number;
  platformUrl: string;
  /** of the stand-in idea source, which knows nothing until it is seeded */
  ideasUrl: string;
  /** does what the job process would do, until nothing is left to do */
  work(): Promise<void>;
  /** brings a file, and does not load it; an archive comes apart */
  bring(content: string | Uint8Array, name?: string): Promise<number[]>;
  /** brings a file and loads it */
  load(content: string | Uint8Array, decisions?: ReadDecisions): Promise<number>;
  stopPlatform(): Promise<void>;
  startPlatform(): Promise<void>;
  close(): Promise<void>;
};

/** How long a platform is waited for, and how long a slow one takes. */
const PATIENCE_MS = 3_000;
const SLOW_MS = PATIENCE_MS + 500;

export async function makeWorld(seed: SeedRequest = aSeed()): Promise<World> {
  const url = process.env.GATEPOST_TEST_DATABASE_URL;
  if (!url) throw new Error('the server tests need their database; see tests/support/database.setup.ts');
  const db = connect(url);
  await emptyAll(db);
  const standin = connectStandin(url);
  let server: Server = createPlatformServer(standin, SLOW_MS);
  const port = await listen(server, 0);
  const platformUrl = `http://127.0.0.1:${port}`;
  const data = await mkdtemp(path.join(tmpdir(), 'gatepost-test-'));
  const files = path.join(data, 'files');
  const source = createIdeaSource(path.join(data, 'ideas.json'), SLOW_MS);
  const ideasUrl = `http://127.0.0.1:${await listen(source, 0)}`;
  const deps: Deps = {
    db,
    clock: systemClock,
    platform: createHttpPlatform(platformUrl, PATIENCE_MS),
    ideas: createHttpIdeaSource(ideasUrl, PATIENCE_MS),
    mail: null,
    hooks: createHooks(PATIENCE_MS),
    address: 'http://gatepost.test',
    snapshots: createSnapshots(),
    enqueue,
    files,
    reader: readerHere,
  };
  await seedPlatform(platformUrl, seed);
  await addPeople(deps, ['Maren Oakes', 'Tobias Finch']);
  const slug = seed.account.id;
  await connectAccount(deps, {
    slug,
    name: seed.account.name,
    platformAccountId: slug,
    currency: 'EUR',
    steersBy: 'CPA',
    targetMicros: 18_000_000,
    targetAcos: null,
    productCodePattern: '[A-Z]{2}-\\d{4}',
  });
  const { account_id: accountId } = await db('account').where({ slug }).first('account_id');
  const { person_id: personId } = await db('person').where({ name: 'Maren Oakes' }).first('person_id');

  const world: World = {
    ...{ deps, db, url, slug, accountId, personId, platformUrl, ideasUrl },
    async work() {
      for (;;) {
        const files = await db('report_file')
          .whereIn('state', ['waiting', 'loading', 'taking back'])
          .select('account_id', 'report_file_id', 'state');
        const readings = await db('whole_reading')
          .whereNull('reading')
          .select('account_id', 'report_file_id');
        const sending = await db('change_set')
          .where({ state: 'sending' })
          .whereRaw('(send_at is null or send_at <= now())')
          .select('account_id', 'change_set_id');
        if (files.length + readings.length + sending.length === 0) return;
        for (const row of files) {
          if (row.state === 'taking back')
            await takeBackLoad(deps, row.account_id, row.report_file_id, personId);
          else await loadReport(deps, row.account_id, row.report_file_id);
        }
        for (const row of readings) await readWholeReport(deps, row.account_id, row.report_file_id);
        for (const row of sending) await workOnSet(deps, row.account_id, row.change_set_id);
      }
    },
    async bring(content, name = 'report.csv') {
      const { takeIn } = await import('@/server/use-cases/intake/take-in');
      async function* bytes() {
        yield Buffer.from(content as string);
      }
      const files = await takeIn(deps, world.slug, { name, source: 'file', personId }, bytes());
      return files.map((file) => file.id);
    },
    async load(csv, options = {}) {
      const { askForLoad } = await import('@/server/use-cases/intake/take-in');
      const [id] = await world.bring(csv);
      await askForLoad(deps, world.slug, id!, options);
      await world.work();
      return id!;
    },
    stopPlatform: () =>
      new Promise((resolve) => void (server.close(() => resolve()), server.closeAllConnections())),
    async startPlatform() {
      server = createPlatformServer(standin, SLOW_MS);
      await listen(server, port);
    },
    async close() {
      await world.stopPlatform();
      source.close();
      source.closeAllConnections();
      await standin.destroy();
      await db.destroy();
      await rm(data, { recursive: true });
    },
  };
  await world.work();
  return world;
}

/** The same with an account of one's own instead, which knows no platform and holds nothing yet. */
export async function makeOwnWorld(account: NewAccountRequest): Promise<World> {
  const world = await makeWorld();
  const { slug } = await addAccount(world.deps, account);
  const { account_id: accountId } = await world.db('account').where({ slug }).first('account_id');
  return Object.assign(world, { slug, accountId });
}

/** Makes an account on a stand-in. */
export async function seedPlatform(platformUrl: string, seed: SeedRequest): Promise<void> {
  const response = await fetch(`${platformUrl}/accounts/${seed.account.id}/seed`, {
    method: 'POST',
    body: JSON.stringify(seed),
  });
  if (!response.ok) throw new Error(await response.text());
}

async function emptyAll(db: Knex): Promise<void> {
  await db.raw(
    'truncate account, term, term_day, person, sign_in_failure, job_process, standin.account restart identity cascade',
  );
  await db.raw('delete from graphile_worker._private_jobs');
}

function listen(server: Server, port: number): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => resolve((server.address() as AddressInfo).port));
  });
}
