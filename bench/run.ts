import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { buildSync } from 'esbuild';
import { YOUNG_ROOM } from '../scripts/steps/settings';
import { PEER_FLAG, serveDuckDb } from './duckdb';
import type { Line } from './measure';
import { benchBounds } from './tasks/bounds';
import { benchEvidence } from './tasks/evidence';
import { benchGate } from './tasks/gate';
import { benchLoad, benchReading, benchReadingMemory } from './tasks/load';
import { benchLanes } from './tasks/lanes';
import { benchLists } from './tasks/lists';
import { benchNgrams, benchNgramsAlone } from './tasks/ngrams';
import { benchPeople } from './tasks/people';
import { benchPromotion } from './tasks/promotion';
import { benchResearch } from './tasks/research';
import { benchRules } from './tasks/rules';
import { benchSift } from './tasks/sift';
import { benchSmallestSet } from './tasks/smallest-set';
import { benchTidy } from './tasks/tidy';
import { benchTruth } from './tasks/truth';
import { benchWindow } from './tasks/window';

const TASKS: Record<string, (quick: boolean) => Line[] | Promise<Line[]>> = {
  gate: benchGate,
  ngrams: benchNgrams,
  'ngrams-alone': benchNgramsAlone,
  evidence: benchEvidence,
  'smallest-set': benchSmallestSet,
  tidy: benchTidy,
  promotion: benchPromotion,
  lanes: benchLanes,
  rules: benchRules,
  truth: benchTruth,
  research: benchResearch,
  reading: benchReading,
  'reading-memory': benchReadingMemory,
  load: benchLoad,
  sift: benchSift,
  window: benchWindow,
  lists: benchLists,
  people: benchPeople,
  bounds: benchBounds,
};

/** What a quick run leaves to a full one, unless it is named: these make a database or days of traffic of their own. */
const SLOW = ['sift', 'window', 'lists', 'people', 'bounds', 'truth'];

/** How a process is started: where memory is the question, the collector is kept from taking all that it may. */
const FLAGS: Record<string, string[]> = {
  'reading-memory': ['--max-old-space-size=100'],
  sift: ['--expose-gc'],
  load: [YOUNG_ROOM], // as the job process is started
  window: [YOUNG_ROOM],
  bounds: [YOUNG_ROOM],
};

type Result = { lines: Line[]; peakMb: number };

/**
 * `npm run bench [-- --quick] [-- --only=gate,ngrams]`: each task in a process of its own, then one table. Exits
 * non-zero when two answers differ or a limit is passed.
 */
async function main(flags: readonly string[]): Promise<void> {
  if (flags.includes(PEER_FLAG)) return serveDuckDb();
  const quick = flags.includes('--quick');
  const own = flags.find((f) => f.startsWith('--task='))?.slice('--task='.length);
  if (own) {
    const lines = await TASKS[own]!(quick);
    const peakMb = Math.round(process.resourceUsage().maxRSS / 1024);
    process.stdout.write(`\n${JSON.stringify({ lines, peakMb } satisfies Result)}`);
    process.exit(0);
  }
  const only = flags
    .find((f) => f.startsWith('--only='))
    ?.slice('--only='.length)
    .split(',');
  const program = bundle();
  const wanted = only ?? Object.keys(TASKS).filter((task) => !quick || !SLOW.includes(task));
  const rows: (Line & { 'peak memory': string })[] = [];
  for (const task of wanted) {
    const start = performance.now();
    const args = [...(FLAGS[task] ?? []), program, `--task=${task}`, ...(quick ? ['--quick'] : [])];
    const run = spawnSync(process.execPath, args, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'inherit'] });
    console.log(`· ${task}: ${Math.round((performance.now() - start) / 1000)} s`);
    if (run.status !== 0) {
      process.exitCode = 1;
      continue;
    }
    const { lines, peakMb } = JSON.parse(run.stdout.slice(run.stdout.lastIndexOf('\n'))) as Result;
    rows.push(...lines.map((line) => ({ ...line, 'peak memory': `${peakMb} MB` })));
  }
  console.table(rows);
  if (rows.some((row) => row.verdict === 'OVER')) process.exitCode = 1;
}

/** The program as it is served, without the helpers that running from the sources puts into every function. */
function bundle(): string {
  const root = path.resolve(import.meta.dirname, '..');
  const outfile = path.join(root, 'dist', 'bench', 'run.mjs');
  buildSync({
    ...{ entryPoints: [path.join(root, 'bench', 'run.ts')], absWorkingDir: root, outfile, bundle: true },
    ...{ platform: 'node', format: 'esm', target: 'node20', packages: 'external', logLevel: 'error' },
  });
  return outfile;
}

main(process.argv.slice(2)).catch((error: unknown) => {
  console.error(error);
  process.exitCode = 1;
});
