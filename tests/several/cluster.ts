import { spawn, type ChildProcess } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { requireProxy } from '../../scripts/steps/programs';
import { environmentOf, type Settings } from '../../scripts/steps/settings';

/** What is killed and started again, one by one. */
export type Name = 'web 1' | 'web 2' | 'jobs 1' | 'jobs 2' | 'jobs 3';
export const NAMES: readonly Name[] = ['web 1', 'web 2', 'jobs 1', 'jobs 2', 'jobs 3'];

/** A process that falls by itself is started again after so long. */
const FALLEN_MS = 500;

/** Two web and three job processes on one database, and a proxy before the web processes. */
export type Cluster = {
  start(name: Name): Promise<void>;
  /** at once, as a machine that loses its power: nothing is told, nothing is finished */
  kill(name: Name): Promise<void>;
  stop(): Promise<void>;
};

/** Starts all of them. The proxy answers on the port of the web application. */
export async function startCluster(settings: Settings): Promise<Cluster> {
  const running = new Map<string, ChildProcess>();
  const proxy = `http://127.0.0.1:${settings.webPort}/api/health`;
  const ports: Partial<Record<Name, number>> = {
    'web 1': settings.webPort + 10,
    'web 2': settings.webPort + 11,
  };

  function run(name: string, program: string, args: string[]) {
    const child = spawn(program, args, {
      ...{ cwd: settings.root, env: environmentOf(settings), stdio: ['ignore', 'ignore', 'inherit'] },
    });
    running.set(name, child);
    // What falls by itself (a job process whose database is away) is started again, as whoever runs services does.
    child.once('exit', () => {
      if (running.get(name) === child)
        setTimeout(() => running.get(name) === child && run(name, program, args), FALLEN_MS);
    });
  }

  async function start(name: Name) {
    const port = ports[name];
    if (port === undefined) return run(name, process.execPath, ['dist/jobs.mjs']);
    const next = ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(port)];
    run(name, process.execPath, next);
    await untilItAnswers(`http://127.0.0.1:${port}/api/health`);
    await untilItAnswers(proxy); // it looks twice a second
  }

  async function end(name: string, signal: NodeJS.Signals) {
    const child = running.get(name);
    running.delete(name);
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill(signal);
    await ended;
  }

  async function stop() {
    for (const name of [...running.keys()]) await end(name, 'SIGTERM');
  }

  const config = path.join(settings.data, 'run', 'haproxy.cfg');
  writeFileSync(config, proxyConfig(settings.webPort, Object.values(ports)));
  run('proxy', requireProxy(), ['-db', '-f', config]);
  try {
    await Promise.all(NAMES.map(start));
  } catch (error) {
    await stop();
    throw error;
  }
  return { start, kill: (name) => end(name, 'SIGKILL'), stop };
}

/** As docs/growing.md shows it: whoever answers takes the next request, and none is sent twice. */
const proxyConfig = (port: number, webPorts: readonly number[]) => `
defaults
  mode http
  timeout connect 2s
  timeout check 5s
  timeout client 60s
  timeout server 60s
  option redispatch
frontend people
  bind 127.0.0.1:${port}
  default_backend web
backend web
  balance roundrobin
  option httpchk
  http-check send meth GET uri /api/health ver HTTP/1.1 hdr Host 127.0.0.1
  default-server check inter 500ms fall 1 rise 1
${webPorts.map((at, w) => `  server web${w + 1} 127.0.0.1:${at}`).join('\n')}
`;

async function untilItAnswers(address: string): Promise<void> {
  let last: unknown;
  for (const since = Date.now(); Date.now() - since < MOST_MS;) {
    try {
      const answer = await fetch(address);
      if (answer.ok) return;
      last = answer.status;
    } catch (error) {
      last = error;
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`${address} did not answer`, { cause: last });
}

const MOST_MS = 90_000;
