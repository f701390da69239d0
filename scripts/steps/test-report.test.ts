import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { readOutcome, readPlaywrightReport, readVitestReport } from './test-report';

const folder = mkdtempSync(path.join(os.tmpdir(), 'gatepost-report-'));
afterAll(() => rmSync(folder, { recursive: true }));

function write(report: unknown) {
  const file = path.join(folder, 'report.json');
  writeFileSync(file, typeof report === 'string' ? report : JSON.stringify(report));
  return file;
}

const unit = {
  numPassedTests: 2,
  testResults: [
    {
      name: path.resolve('src/a.test.ts'),
      status: 'failed',
      message: '',
      assertionResults: [
        { status: 'passed', fullName: 'a holds', failureMessages: [] },
        { status: 'failed', fullName: 'a breaks', failureMessages: ['expected 1 to be 2'] },
      ],
    },
    {
      name: path.resolve('src/b.test.ts'),
      status: 'failed',
      message: 'no such module',
      assertionResults: [],
    },
  ],
};

describe('the outcome of a run', () => {
  it('names each unit test that failed, and each file that could not be run', () => {
    expect(readOutcome('unit', 1, write(unit), readVitestReport)).toEqual({
      passed: 2,
      failures: ['src/a.test.ts › a breaks\nexpected 1 to be 2', 'src/b.test.ts\nno such module'],
    });
  });

  it('names browser tests in any suite, those that were skipped as well', () => {
    const spec = (title: string, status: string, message?: string) => ({
      file: 'a.spec.ts',
      line: 3,
      title,
      tests: [{ status, results: [{ error: message === undefined ? undefined : { message } }] }],
    });
    const report = {
      stats: { expected: 1 },
      suites: [
        {
          specs: [spec('works', 'expected')],
          suites: [{ specs: [spec('fails', 'unexpected', 'timed out')] }],
        },
        { specs: [spec('waits', 'skipped')] },
      ],
    };
    expect(readOutcome('browser', 1, write(report), readPlaywrightReport)).toEqual({
      passed: 1,
      failures: ['a.spec.ts:3 › fails (unexpected)\ntimed out', 'a.spec.ts:3 › waits (skipped)'],
    });
  });

  it('is a failure when the run ended badly though no test failed, and when it left no report', () => {
    const fine = { numPassedTests: 7, testResults: [] };
    expect(readOutcome('unit', 0, write(fine), readVitestReport)).toEqual({ passed: 7, failures: [] });
    expect(readOutcome('unit', 1, write(fine), readVitestReport).failures).toHaveLength(1);
    expect(readOutcome('unit', null, write('{"numPassed'), readVitestReport)).toEqual({
      passed: 0,
      failures: ['The unit tests were ended from outside and left no report that could be read'],
    });
  });
});
