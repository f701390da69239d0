import { spawn } from 'node:child_process';
import { migrateQueue } from '@/server/jobs/worker';
import { migrate } from '@/server/db/migrate';
import { migrateStandin } from '@/standins/ad-platform/database';
import { bundleProcesses } from './build';
import { startDatabase } from './postgres';
import { databaseUrl, environmentOf, type Settings } from './settings';

/** Runs the web application from its sources, with the other processes, until it is ended. */
export async function runDevelopment(settings: Settings): Promise<void> {
  await startDatabase(settings);
  const url = databaseUrl(settings);
  await migrate(url);
  await migrateStandin(url);
  await migrateQueue(url);
  bundleProcesses(settings.root);
  const env = { ...environmentOf(settings), NODE_ENV: 'development' as const };
  const next = [
    'node_modules/next/dist/bin/next',
    'dev',
    '-H',
    settings.host,
    '-p',
    String(settings.webPort),
  ];
  const children = [['dist/ad-platform.mjs'], ['dist/idea-source.mjs'], ['dist/jobs.mjs'], next].map((args) =>
    spawn(process.execPath, args, { cwd: settings.root, env, stdio: 'inherit' }),
  );
  await new Promise<void>((resolve) => children.at(-1)!.once('exit', () => resolve()));
  for (const child of children) child.kill('SIGTERM');
}
