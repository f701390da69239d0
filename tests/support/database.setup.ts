import { dropDatabase, ensureDatabase, startDatabase } from '../../scripts/steps/postgres';
import { databaseUrl, readSettings } from '../../scripts/steps/settings';
import { migrate } from '@/server/db/migrate';
import { migrateQueue } from '@/server/jobs/worker';
import { migrateStandin } from '@/standins/ad-platform/database';

/** A database of the server tests' own, made anew for each run. */
const NAME = 'gatepost_test';

export default async function setup(): Promise<void> {
  const settings = readSettings();
  await startDatabase(settings);
  await dropDatabase(settings, NAME);
  await ensureDatabase(settings, NAME);
  const url = databaseUrl(settings, NAME);
  await migrate(url);
  await migrateStandin(url);
  await migrateQueue(url);
  process.env.GATEPOST_TEST_DATABASE_URL = url;
}
