import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import * as v from 'valibot';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { readIdeaLines } from '@/core';
import {
  BRIEF_TOPICS,
  IdeasAnswerSchema,
  type Brief,
  type IdeasAnswer,
  type Vocabulary,
} from '@/contracts/ideas';
import { createIdeaSource } from './server';

const phrase = (text: string, volume: number, means: string[] = []) => ({
  ...{ text, volume, openingBidMicros: 400_000, means },
});
const VOCABULARY: Vocabulary = {
  phrases: [
    phrase('kiln', 9_000),
    phrase('kilns', 2_000),
    phrase('small kiln for sale', 700),
    phrase('pottery oven', 300, ['kiln']),
    phrase('loom', 5_000),
    phrase('antique kiln', 20),
    phrase('kiln salary', 90),
  ],
  locations: ['Northmark', 'Vell'],
};
const BRIEF: Brief = {
  sells: 'Kilns and clay',
  ...{ buyers: 'potters', serves: 'Northmark', doesNot: 'repairs, courses', never: '', more: '' },
  ...{ topics: [...BRIEF_TOPICS], most: 200 },
};

let folder: string;
let base: string;
let close: () => void;
async function start() {
  const server = createIdeaSource(path.join(folder, 'ideas.json'), 5);
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  close = () => server.close();
}
const ask = (to: string, body?: unknown, method = 'POST') =>
  fetch(base + to, body === undefined ? {} : { method, body: JSON.stringify(body) });
const json = async <T>(response: Promise<Response>): Promise<T> => (await response).json() as Promise<T>;
const ideas = (query: string) => json<IdeasAnswer>(ask(`/ideas?${query}`));
const texts = async (query: string) => (await ideas(query)).ideas.map(({ text }) => text);

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'ideas-'));
  await start();
  await ask('/vocabulary', VOCABULARY, 'PUT');
});
afterEach(() => {
  close();
  rmSync(folder, { recursive: true });
});

describe('ideas', () => {
  test('share a word with the stem in whatever form, or mean one; the most related come first', async () => {
    expect(await texts('stems=kiln')).toEqual([
      'kiln',
      'kilns',
      'antique kiln',
      'kiln salary',
      'pottery oven',
      'small kiln for sale',
    ]);
    expect((await texts('stems=kiln,loom&from=least%20related'))[0]).toBe('pottery oven');
    expect(await texts('stems=anvil')).toEqual([]);
  });

  test('are told with a volume or with a range around it, and other locations ask for less', async () => {
    const home = v.parse(IdeasAnswerSchema, await ideas('stems=kiln&location=Northmark'));
    for (const { text, volume, volumeFrom, volumeTo } of home.ideas) {
      const truth = VOCABULARY.phrases.find((one) => one.text === text)!.volume;
      if (volume !== null) expect([volume, volumeFrom, volumeTo]).toEqual([truth, null, null]);
      else {
        expect(truth).toBeGreaterThanOrEqual(volumeFrom!);
        expect(truth).toBeLessThan(volumeTo!);
      }
    }
    const there = await ideas('stems=kiln&location=Vell');
    const known = (of: IdeasAnswer) => new Map(of.ideas.map(({ text, volume }) => [text, volume]));
    for (const [text, volume] of known(there))
      if (volume !== null) expect(volume).toBeLessThan(known(home).get(text)!);
  });

  test('come in pages', async () => {
    const many = Array.from({ length: 450 }, (_, i) => phrase(`kiln ${i}`, i));
    await ask('/vocabulary', { ...VOCABULARY, phrases: many }, 'PUT');
    const all: string[] = [];
    for (let after: string | null = '0'; after !== null;) {
      const page: IdeasAnswer = await ideas(`stems=kiln&after=${after}`);
      expect(page.total).toBe(450);
      all.push(...page.ideas.map(({ text }) => text));
      after = page.next;
    }
    expect(new Set(all).size).toBe(450);
  });

  test('and the vocabulary is there after a restart', async () => {
    close();
    await start();
    expect(await texts('stems=loom')).toEqual(['loom']);
  });
});

test('completions go on from what is typed, also where a letter stands before it', async () => {
  const complete = async (typed: string) =>
    (await json<{ completions: string[] }>(ask(`/completions?typed=${encodeURIComponent(typed)}`)))
      .completions;
  expect(await complete('kil')).toEqual(['kiln', 'kilns', 'kiln salary']);
  expect(await complete('a kiln')).toEqual(['antique kiln']);
  expect(await complete('kiln s')).toEqual(['kiln salary']);
  expect(await complete(' ')).toEqual([]);
});

describe('a brief', () => {
  const brief = async (round: number, over: Partial<Brief> = {}) =>
    (await json<{ text: string }>(ask('/brief', { brief: { ...BRIEF, ...over }, round }))).text;

  test('is answered with a mess that can be cleaned, topic by topic', async () => {
    const text = await brief(0);
    const read = readIdeaLines(text);
    expect(read.topics).toHaveLength(BRIEF_TOPICS.length);
    expect(read.refused.length).toBeGreaterThanOrEqual(2); // greeting and farewell
    expect(read.twice.length).toBeGreaterThan(2);
    expect(read.ideas.map((one) => one.text)).toContain('kilns'); // what would shut out what is sold
    expect(read.ideas.map((one) => one.text)).toContain('repairs');
    expect(await brief(0)).toBe(text);
  });

  test('goes on with others until nothing is left', async () => {
    const rounds = [0, 1, 2].map((round) => brief(round, { topics: ['media'] }));
    const [first, second, third] = (await Promise.all(rounds)).map((text) =>
      readIdeaLines(text).ideas.map((one) => one.text),
    );
    expect(second!.filter((text) => first!.includes(text))).toEqual([]);
    expect(third!.length).toBeGreaterThan(0);
    expect(await brief(9)).toMatch(/can not think of any more/);
  });

  test('keeps to how many are wanted', async () => {
    const { ideas: all } = readIdeaLines(
      await brief(0, { most: 10, topics: ['free', 'learning'], doesNot: '' }),
    );
    expect(all.length).toBeLessThanOrEqual(11); // and the one that it should not have said
  });
});

test('what it is not asked well is refused with the place', async () => {
  const refusal = async (to: string, body?: unknown) => {
    const response = await ask(to, body);
    return [response.status, ((await response.json()) as { error: string }).error];
  };
  expect(await refusal('/ideas?stems=%20')).toEqual([400, 'stems: A stem is needed.']);
  expect(await refusal('/ideas?stems=kiln&location=Atlantis')).toEqual([
    400,
    'The location Atlantis is not known here.',
  ]);
  expect(await refusal('/ideas?stems=kiln&language=xx')).toEqual([400, expect.stringContaining('language')]);
  expect(await refusal('/brief', { brief: { ...BRIEF, sells: '' }, round: 0 })).toEqual([
    400,
    'brief.sells: Say what is sold.',
  ]);
  expect(await refusal('/nowhere')).toEqual([404, 'There is nothing at GET /nowhere.']);
});

test('its faults are met as often as they were switched on', async () => {
  await ask(
    '/faults',
    {
      faults: [
        { fault: 'fails', times: 1 },
        { fault: 'asks to slow down', times: 1 },
      ],
    },
    'PUT',
  );
  const slow = await ask('/ideas?stems=kiln');
  expect([slow.status, slow.headers.get('retry-after')]).toEqual([429, '2']);
  expect((await ask('/ideas?stems=kiln')).status).toBe(500);
  expect((await ask('/ideas?stems=kiln')).status).toBe(200);
  await ask(
    '/faults',
    {
      faults: [
        { fault: 'hangs up', times: 1 },
        { fault: 'is slow', times: 1 },
      ],
    },
    'PUT',
  );
  await expect(ask('/ideas?stems=kiln')).rejects.toThrow();
  expect((await ask('/ideas?stems=kiln')).status).toBe(200);
  expect(await json(ask('/faults'))).toEqual({ faults: [] });
});
