import type { SeedRequest } from '@/contracts/platform';
import type { Gather } from '@/contracts/research';
import { loadIdeas } from '@/server/repositories/research/ideas';
import { gather } from '@/server/use-cases/research/gather/gather';
import { makeSheet } from '@/server/use-cases/research/sheets';
import { makeWorld, type World } from './world';

export const ACCOUNT = { kind: 'account', id: null } as const;

/** A small world with one empty research sheet, and what tests do to it most. */
export type SheetWorld = World & {
  sheetId: number;
  /** gathers into the sheet */
  into(asked: Gather): ReturnType<typeof gather>;
  /** each text becomes a line of what is pasted */
  paste(...texts: string[]): ReturnType<typeof gather>;
  ideas(): ReturnType<typeof loadIdeas>;
  /** the ideas that are in the sheet, in the order of the sheet */
  texts(): Promise<string[]>;
};

export async function makeSheetWorld(seed?: SeedRequest): Promise<SheetWorld> {
  const world = await makeWorld(seed);
  const { sheetId } = await makeSheet(world.deps, world.slug, world.personId, 'Spring hives');
  const into = (asked: Gather) => gather(world.deps, world.slug, world.personId, sheetId, asked);
  const ideas = () => loadIdeas(world.db, world.accountId, sheetId);
  return {
    ...{ ...world, sheetId, into, ideas },
    paste: (...texts) => into({ kind: 'paste', text: texts.join('\n') }),
    texts: async () => (await ideas()).map(({ key }) => key),
  };
}
