import { normalise } from '@/core';
import type { Account } from '../../../repositories/account/accounts';
import type { Deps } from '../../deps';
import { requirePack } from '../packs';
import { bareIdea, distinctIdeas, type Gathered } from './gathered';

/** The entries of a starter pack with their variants, each a text. @throws Refusal when there is no such pack */
export async function gatherPack(deps: Deps, { id }: Account, key: string): Promise<Gathered> {
  const { name, entries } = await requirePack(deps, id, key);
  const texts = entries.flatMap(({ text, variants }) => [text, ...variants]);
  return {
    title: `starter pack ${name}`,
    ideas: distinctIdeas(texts.map((text) => bareIdea(normalise(text)))),
    missing: null,
  };
}
