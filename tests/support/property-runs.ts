import type * as fastCheck from 'fast-check';
import { vi } from 'vitest';

/**
 * `FC_RUNS` turns the runs of all property tests up and down: 10 tries ten times as many cases as each test names, 0.1 a
 * tenth of them.
 */
const factor = Number(process.env.FC_RUNS ?? '1');
if (!(factor > 0)) throw new Error(`FC_RUNS must be a number above 0; got ${process.env.FC_RUNS}`);

vi.mock('fast-check', async (original) => {
  const fc = await original<typeof fastCheck & { default: typeof fastCheck }>();
  const assert = (
    property: fastCheck.IRawProperty<unknown>,
    parameters: fastCheck.Parameters<unknown> = {},
  ) =>
    fc.assert(property, {
      ...parameters,
      numRuns: Math.max(1, Math.round((parameters.numRuns ?? 100) * factor)),
    });
  return { ...fc, assert, default: { ...fc.default, assert } };
});
