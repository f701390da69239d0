import { readFileSync } from 'node:fs';
import path from 'node:path';

/** What a part of the tests came to. */
export type Outcome = {
  passed: number;
  /** what failed, each by its place and name, with the beginning of its message */
  failures: string[];
};

const MOST_OF_A_MESSAGE = 1_500;

type VitestReport = {
  numPassedTests: number;
  testResults: {
    name: string;
    status: string;
    message: string;
    assertionResults: { status: string; fullName: string; failureMessages: string[] }[];
  }[];
};

/** Reads the JSON report of Vitest; a file that could not be run is one failure. */
export function readVitestReport(report: unknown): Outcome {
  const { numPassedTests, testResults } = report as VitestReport;
  const failures = testResults.flatMap((file) => {
    const tests = file.assertionResults.filter((test) => test.status === 'failed');
    if (tests.length === 0 && file.status === 'failed') return [describe(here(file.name), file.message)];
    return tests.map((test) =>
      describe(`${here(file.name)} › ${test.fullName}`, test.failureMessages.join('\n')),
    );
  });
  return { passed: numPassedTests, failures };
}

type PlaywrightSuite = {
  specs?: {
    file: string;
    line: number;
    title: string;
    tests: { status: string; results: { error?: { message?: string } }[] }[];
  }[];
  suites?: PlaywrightSuite[];
};
type PlaywrightReport = {
  stats: { expected: number };
  suites: PlaywrightSuite[];
  errors?: { message?: string }[];
};

/** Reads the JSON report of Playwright; a test that was skipped, or passed only at a second try, is a failure. */
export function readPlaywrightReport(report: unknown): Outcome {
  const { stats, suites, errors = [] } = report as PlaywrightReport;
  const specs = suites.flatMap(specsOf);
  const failures = specs.flatMap(({ file, line, title, tests }) =>
    tests
      .filter((test) => test.status !== 'expected')
      .map((test) =>
        describe(
          `${file}:${line} › ${title} (${test.status})`,
          test.results.map((r) => r.error?.message ?? '').join('\n'),
        ),
      ),
  );
  return {
    passed: stats.expected,
    failures: [...failures, ...errors.map((e) => describe('Playwright', e.message ?? ''))],
  };
}

function specsOf(suite: PlaywrightSuite): NonNullable<PlaywrightSuite['specs']> {
  return [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specsOf)];
}

/** A file by its place in the project. */
function here(file: string) {
  return path.relative(process.cwd(), file);
}

function describe(name: string, message: string) {
  return `${name}\n${message.trim().slice(0, MOST_OF_A_MESSAGE)}`.trim();
}

/**
 * Reads a report from its file. A run that ended badly without a failed test still counts as one failure.
 * @param name of the part, for a failure that is no test's
 * @param status the exit code of the run; null when it was ended from outside
 */
export function readOutcome(
  name: string,
  status: number | null,
  file: string,
  read: (report: unknown) => Outcome,
): Outcome {
  const badEnd = `The ${name} tests ${status === null ? 'were ended from outside' : `ended with the code ${status}`}`;
  try {
    const outcome = read(JSON.parse(readFileSync(file, 'utf8')));
    if (status !== 0 && outcome.failures.length === 0)
      return {
        ...outcome,
        failures: [`${badEnd}, and no test failed: see the errors above that no test caught`],
      };
    return outcome;
  } catch {
    return { passed: 0, failures: [`${badEnd} and left no report that could be read`] };
  }
}
