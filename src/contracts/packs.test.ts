import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import * as v from 'valibot';
import { describe, expect, test } from 'vitest';
import { checkNegative, findRedundant, normalise, USUAL_LIMITS } from '@/core';
import { PackSchema, type Pack } from './packs';

const FOLDER = path.resolve(import.meta.dirname, '../../packs');
const packs = readdirSync(FOLDER)
  .filter((name) => name.endsWith('.json'))
  .map((name): [string, Pack] => [
    name,
    v.parse(PackSchema, JSON.parse(readFileSync(path.join(FOLDER, name), 'utf8'))),
  ]);

/** Each text of a pack as a negative. */
const negativesOf = ({ entries, match }: Pack) =>
  entries.flatMap(({ text, variants, match: own }) =>
    [text, ...variants].map((one) => ({ text: one, match: own ?? match })),
  );

test('there are at least twelve topics and 1,500 entries', () => {
  expect(packs.length).toBeGreaterThanOrEqual(12);
  expect(new Set(packs.map(([, { name }]) => name)).size).toBe(packs.length);
  expect(packs.reduce((sum, [, { entries }]) => sum + entries.length, 0)).toBeGreaterThanOrEqual(1_500);
});

describe.each(packs)('%s', (_, pack) => {
  const negatives = negativesOf(pack);

  test('holds negatives that a platform takes, written normalised', () => {
    for (const negative of negatives) {
      expect(negative.text).toBe(normalise(negative.text));
      expect(checkNegative(negative, USUAL_LIMITS)).toBeUndefined();
    }
  });

  test('stops nothing twice', () => {
    const redundant = findRedundant({
      campaigns: [{ id: 'c', adGroups: [{ id: 'g' }] }],
      lists: [{ id: 'l', hungOn: ['c'] }],
      negatives: negatives.map((negative, i) => ({
        ...negative,
        ...{ id: String(i), place: { kind: 'list' as const, id: 'l' }, createdAt: '2026-01-01' },
      })),
    });
    expect(redundant.map(({ id, coveredBy }) => [negatives[+id], negatives[+coveredBy]])).toEqual([]);
  });
});

describe('a pack with wrong content', () => {
  const entry = { text: 'salary' };
  const good = {
    ...{ gatepost: 'starter pack', version: 1, name: 'Jobs', about: '', language: 'en', match: 'phrase' },
    entries: [entry],
  };
  test.each([
    ['another format', { ...good, gatepost: 'lists' }, 'gatepost'],
    ['a later version', { ...good, version: 2 }, 'version'],
    ['no entry', { ...good, entries: [] }, 'entries'],
    ['an empty text', { ...good, entries: [entry, { text: ' ' }] }, 'entries.1.text'],
    ['a match type that is none', { ...good, entries: [{ ...entry, match: 'near' }] }, 'entries.0.match'],
    ['a word too much', { ...good, entries: [{ ...entry, note: 'x' }] }, 'entries.0.note'],
  ])('is refused at its place: %s', (_, pack, at) => {
    const read = v.safeParse(PackSchema, pack);
    expect(read.issues?.map((issue) => v.getDotPath(issue))).toEqual([at]);
  });

  test('and without any it is read', () => {
    expect(v.parse(PackSchema, good).entries).toEqual([{ text: 'salary', variants: [] }]);
  });
});
