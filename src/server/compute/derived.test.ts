import * as v from 'valibot';
import { describe, expect, test, vi } from 'vitest';
import { FiltersSchema } from '@/contracts/sift';
import { derivedByKey, derivedFrom, derivedLater, keyBySchema } from './derived';
import { TakenBack } from './taken-back';

describe('what is derived from a source', () => {
  test('is made once for each source, even when it is nothing', () => {
    const make = vi.fn((_: object) => undefined);
    const derived = derivedFrom(make);
    const [one, other] = [{}, {}];
    expect([derived(one), derived(one), derived(other)]).toEqual([undefined, undefined, undefined]);
    expect(make).toHaveBeenCalledTimes(2);
  });

  test('by key it is made once for each key', () => {
    const make = vi.fn((source: { name: string }, asked: number) => `${source.name} ${asked}`);
    const derived = derivedByKey(String, make);
    const [one, other] = [{ name: 'one' }, { name: 'other' }];
    expect([derived(one, 1), derived(one, 1), derived(one, 2), derived(other, 1)]).toEqual([
      ...['one 1', 'one 1', 'one 2', 'other 1'],
    ]);
    expect(make).toHaveBeenCalledTimes(3);
  });

  test('no more is kept than that, and the least recently used goes first', () => {
    const make = vi.fn((_: object, asked: string) => asked);
    const derived = derivedByKey((asked: string) => asked, make, 2);
    const source = {};
    for (const asked of ['a', 'b', 'a', 'c', 'a', 'b']) derived(source, asked);
    expect(make.mock.calls.map(([, asked]) => asked)).toEqual(['a', 'b', 'c', 'b']);
  });
});

describe('what takes time to make', () => {
  test('is found once, however many ask', async () => {
    const derived = derivedLater<object, number>();
    const source = {};
    const find = vi.fn(() => Promise.resolve(1));
    expect(await Promise.all([derived(source, find), derived(source, find)])).toEqual([1, 1]);
    expect(await derived(source, find)).toBe(1);
    expect(find).toHaveBeenCalledTimes(1);
  });

  test('is found for who still waits, when the first took the question back', async () => {
    const derived = derivedLater<object, string>();
    const source = {};
    const first = derived(source, () => Promise.reject(new TakenBack('taken back')));
    const second = derived(source, () => Promise.resolve('found'));
    await expect(first).rejects.toThrow('taken back');
    expect(await second).toBe('found');
  });

  test('a failure reaches all who wait, and is not kept', async () => {
    const derived = derivedLater<object, string>();
    const source = {};
    const fails = () => Promise.reject(new Error('no room'));
    const both = await Promise.allSettled([derived(source, fails), derived(source, fails)]);
    expect(both.map(({ status }) => status)).toEqual(['rejected', 'rejected']);
    expect(await derived(source, () => Promise.resolve('mended'))).toBe('mended');
  });
});

describe('a key by a schema', () => {
  const filters = v.parse(FiltersSchema, {});
  test.each(Object.keys(FiltersSchema.entries) as (keyof typeof filters)[])('tells %s apart', (name) => {
    const other = { ...filters, [name]: 'another' };
    expect(keyBySchema(FiltersSchema, other)).not.toBe(keyBySchema(FiltersSchema, filters));
  });

  test('does not depend on the order, nor on what the schema does not name', () => {
    const schema = v.object({ a: v.number(), b: v.optional(v.number()) });
    expect(keyBySchema(schema, { b: 2, a: 1 })).toBe('[1,2]');
    expect(keyBySchema(schema, { a: 1, ...{ c: 3 } })).toBe('[1,null]');
  });
});
