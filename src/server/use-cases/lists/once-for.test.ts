import { expect, test } from 'vitest';
import { TakenBack } from '../../compute/snapshots';
import { onceFor } from './once-for';

test('what several ask for at once is found once', async () => {
  const known = new WeakMap<object, Promise<number>>();
  const key = {};
  let times = 0;
  const find = () => Promise.resolve(++times);
  expect(await Promise.all([onceFor(known, key, find), onceFor(known, key, find)])).toEqual([1, 1]);
  expect(await onceFor(known, key, find)).toBe(1);
});

test('who still waits gets an answer when the one who was finding it took the question back', async () => {
  const known = new WeakMap<object, Promise<string>>();
  const key = {};
  const first = onceFor(known, key, () => Promise.reject(new TakenBack('taken back')));
  const second = onceFor(known, key, () => Promise.resolve('found'));
  await expect(first).rejects.toThrow('taken back');
  expect(await second).toBe('found');
});

test('a failure is told to all who wait, and is not kept', async () => {
  const known = new WeakMap<object, Promise<string>>();
  const key = {};
  const fails = () => Promise.reject(new Error('broken'));
  const both = await Promise.allSettled([onceFor(known, key, fails), onceFor(known, key, fails)]);
  expect(both.map((one) => one.status)).toEqual(['rejected', 'rejected']);
  expect(await onceFor(known, key, () => Promise.resolve('mended'))).toBe('mended');
});
