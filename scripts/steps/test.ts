import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { withFreshDemo } from './fresh-demo';
import { startDatabase } from './postgres';
import { step } from './say';
import { stopProcesses } from './services';
import { readSettings, type Settings } from './settings';
import { readOutcome, readPlaywrightReport, readVitestReport, type Outcome } from './test-report';

/** Tests that a browser makes. */
type Suite = {
  name: string;
  /** on what they run */
  on: string;
  /** the share of the demo that is enough for them; null: none, as on the first day */
  scale: number | null;
  /** whether the demo has three months of work behind it */
  hasPast?: boolean;
  /** they start web and job processes themselves */
  ownProcesses?: boolean;
};
const SUITES: readonly Suite[] = [
  { name: 'browser', on: 'a demo of their own', scale: 0.5 },
  { name: 'first-day', on: 'an empty database', scale: null },
  { name: 'two-people', on: 'an empty database', scale: null },
  { name: 'several', on: 'a small demo and several processes', scale: 0.05, ownProcesses: true },
  { name: 'past', on: 'a small demo with three months of work behind it', scale: 0.2, hasPast: true },
  { name: 'large', on: 'a demo eight times as large', scale: 8 },
];

const CHECKS: { name: string; args: string[] }[] = [
  {
    name: 'formatting',
    args: ['node_modules/prettier/bin/prettier.cjs', '--check', '--log-level=warn', '.'],
  },
  { name: 'types', args: ['node_modules/typescript/bin/tsc', '--noEmit', '-p', '.'] },
  { name: 'lint', args: ['node_modules/eslint/bin/eslint.js', '--max-warnings=0', '.'] },
  {
    name: 'directions of imports',
    args: [
      'node_modules/dependency-cruiser/bin/dependency-cruise.mjs',
      'src',
      'demo',
      'tests',
      'scripts',
      'bench',
      '--output-type=err',
    ],
  },
  { name: 'nothing unused', args: ['node_modules/knip/bin/knip.js'] },
];

/**
 * Runs all checks, the unit and server tests, and the browser tests, and prints what failed, by name,
 * and one closing line with the counts.
 * @param flags --only=checks,unit,browser,first-day,two-people,several,past,large runs a part
 * @returns the exit code: 0 when nothing failed
 */
export async function runTests(flags: readonly string[]): Promise<number> {
  const only = flags
    .find((f) => f.startsWith('--only='))
    ?.slice('--only='.length)
    .split(',');
  const wanted = (part: string) => only === undefined || only.includes(part);
  const settings = readSettings('test');
  const results = path.join(settings.root, 'test-results');
  rmSync(results, { recursive: true, force: true });
  mkdirSync(results, { recursive: true });

  process.env.GATEPOST_CHECK_ANSWERS = '1'; // what the application answers is held against its schema
  const outcomes: Outcome[] = [];
  if (wanted('checks')) outcomes.push(...CHECKS.map((check) => runCheck(settings, check)));
  if (wanted('unit')) outcomes.push(await runVitest(settings, path.join(results, 'vitest.json')));
  for (const suite of SUITES)
    if (wanted(suite.name)) outcomes.push(await runBrowser(settings, suite, results));

  const failures = outcomes.flatMap((outcome) => outcome.failures);
  for (const failure of failures) console.error(`Failed: ${failure}\n`);
  const passed = outcomes.reduce((sum, outcome) => sum + outcome.passed, 0);
  console.log(`${passed} passed, ${failures.length} failed`);
  return failures.length === 0 ? 0 : 1;
}

function runCheck({ root }: Settings, { name, args }: (typeof CHECKS)[number]): Outcome {
  step(`Checking ${name}`);
  const run = spawnSync(process.execPath, args, { cwd: root, encoding: 'utf8' });
  if (run.status === 0) return { passed: 1, failures: [] };
  return { passed: 0, failures: [`The check of ${name}\n${run.stdout}${run.stderr}`] };
}

async function runVitest(settings: Settings, report: string): Promise<Outcome> {
  step('Running unit and server tests');
  await startDatabase(settings);
  const args = [
    'node_modules/vitest/vitest.mjs',
    'run',
    '--reporter=dot',
    '--reporter=json',
    `--outputFile.json=${report}`,
  ];
  const run = spawnSync(process.execPath, args, { cwd: settings.root, stdio: 'inherit' });
  return readOutcome('unit and server', run.status, report, readVitestReport);
}

async function runBrowser(settings: Settings, suite: Suite, results: string): Promise<Outcome> {
  const { name, scale, hasPast = false } = suite;
  step(`Preparing the ${name} tests: ${suite.on}`);
  const report = path.join(results, `${name}.json`);
  const output = path.join(results, name);
  return withFreshDemo(settings, scale === null ? null : { scale, hasPast }, async (address) => {
    if (suite.ownProcesses) await stopProcesses(settings, ['web application', 'job process']);
    step(`Running the ${name} tests`);
    const args = ['node_modules/@playwright/test/cli.js', 'test', `tests/${name}/`, `--output=${output}`];
    const run = spawnSync(process.execPath, args, {
      cwd: settings.root,
      stdio: 'inherit',
      env: {
        ...process.env,
        GATEPOST_TEST_URL: address,
        GATEPOST_TEST_REPORT: report,
        GATEPOST_TEST_SETTINGS: JSON.stringify(settings),
        GATEPOST_TEST_PLATFORM_URL: `http://127.0.0.1:${settings.platformPort}`,
      },
    });
    printFailedPages(output);
    return readOutcome(name, run.status, report, readPlaywrightReport);
  });
}

/** What stood on a page when its test failed, for a log that is all that remains of a machine. */
function printFailedPages(results: string) {
  if (!existsSync(results)) return;
  for (const name of readdirSync(results, { recursive: true, encoding: 'utf8' })) {
    if (path.basename(name) !== 'error-context.md') continue;
    const context = readFileSync(path.join(results, name), 'utf8');
    const page = context.slice(Math.max(0, context.indexOf('# Page snapshot')));
    console.error(`The page at the end of ${path.dirname(name)}:\n${page.slice(0, MOST_OF_A_PAGE)}`);
  }
}

const MOST_OF_A_PAGE = 6_000;
