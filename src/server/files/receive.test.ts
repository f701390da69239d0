import { createHash } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { receiveFile } from './receive';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'gatepost-receive-'));
});
afterEach(() => rmSync(folder, { recursive: true }));

async function* parts(...all: string[]) {
  for (const part of all) yield await Promise.resolve(Buffer.from(part));
}
const most = 10;

describe('a file that comes in', () => {
  test('is written as it came, counted and digested', async () => {
    const { path: at, ...told } = await receiveFile(parts('hive', 's'), { folder, most, announced: 5 });
    expect(readFileSync(at, 'utf8')).toBe('hives');
    expect(told).toEqual({ sizeBytes: 5, digest: createHash('sha256').update('hives').digest('hex') });
  });

  test.each([
    { name: 'shorter than announced', come: ['hive'], announced: 5, why: 'cut off' },
    { name: 'longer than announced', come: ['hives', '!'], announced: 5, why: 'longer than announced' },
    { name: 'too large', come: ['hives', 'hives!'], announced: null, why: 'too large' },
    { name: 'announced as too large', come: [], announced: 11, why: 'too large' },
  ])('$name is refused, and nothing of it is left', async ({ come, announced, why }) => {
    await expect(receiveFile(parts(...come), { folder, most, announced })).rejects.toMatchObject({ why });
    expect(readdirSync(folder)).toEqual([]);
  });

  test('whose sender breaks off leaves nothing', async () => {
    async function* broken() {
      yield* parts('hi');
      throw new Error('gone');
    }
    await expect(receiveFile(broken(), { folder, most })).rejects.toThrow('gone');
    expect(readdirSync(folder)).toEqual([]);
  });
});
