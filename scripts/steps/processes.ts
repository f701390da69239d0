import { spawn } from 'node:child_process';
import { existsSync, openSync, readFileSync, readlinkSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { isPortTaken } from './ports';
import { Remedy, step } from './say';
import { environmentOf, type Settings } from './settings';

const ROOT = path.resolve(import.meta.dirname, '../..');

/** A process of the application that goes on when this command ends. */
export type Service = {
  name: string;
  args: string[];
  /** where it answers, and the setting that moves it; none for a process without a port */
  port?: { number: number; setting: string; health: string };
};

/** `born` is when the process began, in ticks since the machine did: a later one of the same number has another. */
type Note = { pid: number; born?: string; version: string };

/** Starts a service, or leaves it as it is when the same version runs already. */
export async function startService(settings: Settings, service: Service, version: string): Promise<void> {
  const running = readNote(settings, service);
  if (running && isOurs(running)) {
    if (running.version === version && (await isHealthy(service))) return;
    await stopService(settings, service);
  }
  if (service.port && (await isPortTaken(service.port.number))) {
    throw new Remedy(
      `Port ${service.port.number} is taken by another program, so the ${service.name} can not start. Set ${service.port.setting} to a free port.`,
    );
  }
  step(`Starting the ${service.name}${service.port ? ` on 127.0.0.1:${service.port.number}` : ''}`);
  const log = logOf(settings, service);
  const out = openSync(log, 'a');
  const child = spawn(process.execPath, ['dist/watch.mjs', log, ...service.args], {
    cwd: settings.root,
    env: environmentOf(settings),
    detached: true,
    stdio: ['ignore', out, out],
  });
  child.unref();
  const note: Note = { pid: child.pid!, born: birthOf(child.pid!), version };
  writeFileSync(noteOf(settings, service), JSON.stringify(note));
  await waitUntilHealthy(service, note, log);
}

/** Ends a service that was started before; gentle first. */
export async function stopService(settings: Settings, service: Service): Promise<void> {
  const note = readNote(settings, service);
  rmSync(noteOf(settings, service), { force: true });
  if (!note || !isOurs(note)) return;
  step(`Stopping the ${service.name}`);
  process.kill(note.pid, 'SIGTERM');
  for (let i = 0; i < 100 && isOurs(note); i++) await sleep(100);
  if (isOurs(note)) process.kill(-note.pid, 'SIGKILL'); // with what it watches: it leads a group of its own
}

/** Whether the process of that id is the one that was started, not a later one of the same number. */
function isOurs({ pid, born }: Note): boolean {
  if (born !== undefined) return birthOf(pid) === born;
  // An older version noted the number alone: it counts where it still is a Node program of this folder.
  try {
    const isNode = /^(next-server|\S*node)/.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8'));
    return isNode && readlinkSync(`/proc/${pid}/cwd`) === ROOT;
  } catch {
    return false;
  }
}

/** When a process began; undefined where there is none, or where it has ended and only its parent has not seen it yet. */
function birthOf(pid: number): string | undefined {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' '); // its name may hold anything
    return fields[0] === 'Z' ? undefined : fields[19];
  } catch {
    return undefined;
  }
}

async function waitUntilHealthy(service: Service, note: Note, log: string): Promise<void> {
  for (let waited = 0; waited < 60_000; waited += 150) {
    if (!isOurs(note)) break;
    if (waited > 600 && (await isHealthy(service))) return;
    await sleep(150);
  }
  const tail = existsSync(log) ? readFileSync(log, 'utf8').split('\n').slice(-15).join('\n') : '';
  throw new Remedy(`The ${service.name} did not start. The end of ${log}:\n${tail}`);
}

async function isHealthy(service: Service): Promise<boolean> {
  if (!service.port) return true;
  try {
    const answer = await fetch(`http://127.0.0.1:${service.port.number}${service.port.health}`);
    return answer.ok;
  } catch {
    return false;
  }
}

function readNote(settings: Settings, service: Service): Note | undefined {
  const file = noteOf(settings, service);
  return existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as Note) : undefined;
}

const fileName = (settings: Settings, service: Service) =>
  `${settings.databaseName}-${service.name.replaceAll(' ', '-')}`;
const noteOf = (settings: Settings, service: Service) =>
  path.join(settings.data, 'run', `${fileName(settings, service)}.json`);
const logOf = (settings: Settings, service: Service) =>
  path.join(settings.data, 'log', `${fileName(settings, service)}.log`);
const sleep = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
