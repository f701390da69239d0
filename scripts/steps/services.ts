import { migrateStandin } from '@/standins/ad-platform/database';
import { migrate } from '@/server/db/migrate';
import { migrateQueue } from '@/server/jobs/worker';
import { buildAll } from './build';
import { startDatabase, stopDatabase } from './postgres';
import { startService, stopService, type Service } from './processes';
import { databaseUrl, YOUNG_ROOM, type Settings } from './settings';

/** The processes of the application, in the order in which they start. */
function servicesOf(settings: Settings): Service[] {
  return [
    {
      name: 'stand-in ad platform',
      args: [YOUNG_ROOM, 'dist/ad-platform.mjs'],
      port: { number: settings.platformPort, setting: 'GATEPOST_PLATFORM_PORT', health: '/health' },
    },
    {
      name: 'stand-in idea source',
      args: ['dist/idea-source.mjs'],
      port: { number: settings.ideasPort, setting: 'GATEPOST_IDEAS_PORT', health: '/health' },
    },
    {
      name: 'stand-in inbox',
      args: ['dist/inbox.mjs'],
      port: { number: settings.inboxPort, setting: 'GATEPOST_INBOX_PORT', health: '/health' },
    },
    { name: 'job process', args: [YOUNG_ROOM, 'dist/jobs.mjs'] },
    {
      name: 'web application',
      args: ['node_modules/next/dist/bin/next', 'start', '-H', settings.host, '-p', String(settings.webPort)],
      port: { number: settings.webPort, setting: 'GATEPOST_PORT', health: '/api/health' },
    },
  ];
}

/** Database, migrations, build and all processes. `beforeWeb` runs when all but the web application are up. */
export async function startAll(settings: Settings, beforeWeb?: () => Promise<void>): Promise<void> {
  await startDatabase(settings);
  const url = databaseUrl(settings);
  await migrate(url);
  await migrateStandin(url);
  await migrateQueue(url);
  const version = buildAll(settings);
  const services = servicesOf(settings);
  for (const service of services.slice(0, -1)) await startService(settings, service, version);
  await beforeWeb?.();
  await startService(settings, services.at(-1)!, version);
}

/** Ends the processes of some names, all unless given, the newest first, without the database. */
export async function stopProcesses(settings: Settings, names?: readonly string[]): Promise<void> {
  for (const service of servicesOf(settings).reverse())
    if (!names || names.includes(service.name)) await stopService(settings, service);
}

export async function stopAll(settings: Settings): Promise<void> {
  await stopProcesses(settings);
  stopDatabase(settings);
}
