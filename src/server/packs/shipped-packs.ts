import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import type { Pack } from '@/contracts/packs';
import { readPack } from './read-pack';

let known: Promise<readonly Pack[]> | undefined;

/** The packs that ship with Gate Post, by name; read once. They stand in `packs/`, beside the program. */
export function shippedPacks(): Promise<readonly Pack[]> {
  return (known ??= readAll(path.join(process.cwd(), 'packs')));
}

async function readAll(folder: string): Promise<readonly Pack[]> {
  const names = (await readdir(folder)).filter((name) => name.endsWith('.json'));
  const packs = await Promise.all(
    names.map(async (name) => {
      const read = readPack(await readFile(path.join(folder, name), 'utf8'));
      if (!('pack' in read)) throw new Error(`${name}: ${read.faults[0]!.reason}`);
      return read.pack;
    }),
  );
  return packs.sort((a, b) => a.name.localeCompare(b.name, 'en'));
}
