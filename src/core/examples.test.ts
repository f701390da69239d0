import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from 'vitest';
import * as frontDoor from './index';

/** Every example in a docstring of the core, as “@example CODE // RESULT”, is run and held against its result. */
type Example = { file: string; code: string; result: string };

const CORE = import.meta.dirname;

/** What the examples speak of: “free hive” was served in both ad groups, and the account stops it in g1. */
const account = {
  campaigns: [{ id: 'c1', adGroups: [{ id: 'g1' }, { id: 'g2' }] }],
  lists: [],
  negatives: [
    { id: 'n1', text: 'free', match: 'broad', place: { kind: 'adGroup', id: 'g1' }, createdAt: '2026-01-01' },
  ],
};
const campaign = (id: string, keyword: string, text: string) => ({
  ...{ id, status: 'live', endDate: null, location: [], audience: [], device: [], language: [] },
  adGroups: [
    { id: `g-${id}`, status: 'live', keywords: [{ id: keyword, text, match: 'phrase', status: 'live' }] },
  ],
});
const KNOWN: Record<string, unknown> = {
  account,
  stop: { kind: 'add negative', text: 'free', match: 'broad', place: { kind: 'account', id: null } },
  names: { campaign: () => 'Starter', adGroup: () => 'Hives', list: () => 'Films' },
  served: {
    table: frontDoor.buildTermTable(['free hive']),
    ...{ rowStarts: Uint32Array.of(0, 2), adGroupOf: Uint32Array.of(0, 1) },
    adGroups: [
      { id: 'g1', campaignId: 'c1' },
      { id: 'g2', campaignId: 'c1' },
    ],
  },
  keywordsOfTwoCampaigns: {
    today: '2026-11-22',
    campaigns: [campaign('c1', 'k1', 'bee hive'), campaign('c2', 'k2', 'hive bee')],
  },
};

const fifteen = [{ of: 'clicks', is: 'at least', value: 15 }];
const lookBack = { days: 30, lagDays: 0 };
Object.assign(KNOWN, {
  fifteenClicks: { when: fifteen, lookBack },
  triedFifteen: { when: fifteen, lookBack, everyDays: 1, terms: null, adGroups: null, openOn: null },
  threeDaysOfSixClicks: {
    ...{ count: 3, termId: Int32Array.of(7, 7, 7), day: Int32Array.of(1, 2, 3), knownFrom: null },
    adGroupId: Int32Array.of(1, 1, 1),
    figures: Float64Array.from([1, 2, 3].flatMap(() => [40, 6, 3_000_000, 0, 0])),
  },
});

const MODULES = import.meta.glob<Record<string, unknown>>(
  ['./**/*.ts', '!./**/*.test.ts', '!./**/testing.ts'],
  {
    eager: true,
  },
);

function examplesOf(file: string): Example[] {
  const source = readFileSync(path.join(CORE, file), 'utf8');
  return [...source.matchAll(/@example (.+?) \/\/ (.+?)(?: \*\/)?$/gm)].map(([, code, result]) => ({
    ...{ file, code: code!, result: result! },
  }));
}

const files = readdirSync(CORE, { recursive: true, encoding: 'utf8' }).filter(
  (file) => file.endsWith('.ts') && !/\.test\.ts$|testing\.ts$|index\.ts$/.test(file),
);
const examples = files.flatMap(examplesOf);

/** Runs code with everything that the core exports in sight; statements before the last one come first. */
function run(code: string): unknown {
  const known = Object.assign({}, ...Object.values(MODULES), KNOWN) as Record<string, unknown>;
  const parts = code.split('; ');
  const body = [...parts.slice(0, -1), `return (${parts.at(-1)})`].join('; ');
  return new Function(...Object.keys(known), body)(...Object.values(known));
}

describe('the examples of the core', () => {
  test.each(examples)('$file: $code', ({ code, result }) => {
    expect(run(code)).toEqual(run(result));
  });

  test('stand at every function that others may import', () => {
    const text = examples.map((example) => example.code).join('\n');
    const without = Object.entries(frontDoor).flatMap(([name, value]) =>
      typeof value === 'function' && name !== 'readReport' && !new RegExp(`\\b${name}\\(`).test(text)
        ? [name]
        : [],
    );
    expect(without).toEqual([]);
  });
});
