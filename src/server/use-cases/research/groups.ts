import { group } from 'd3';
import { groupIdeas, normalise, stemTexts, strikeOut, words } from '@/core';
import type { Group, GroupedIdea, GroupsQuery, GroupsView, Move } from '@/contracts/groups';
import { EMPTY_WORDS } from '../../compute/research/empty-words';
import { searchesOf } from '../../compute/research/remainder-lines';
import { raiseDecisionVersion } from '../../repositories/account/accounts';
import { loadGroupNames, setGroups, type StoredIdea } from '../../repositories/research/ideas';
import { findSheet, updateSheet } from '../../repositories/research/sheets';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { lookAt } from './look-at';

/**
 * The groups of the ideas that stay, open or kept: those that people took, and those that the other ideas would make (rules 16.3).
 * @throws Refusal when there is no such sheet
 */
export async function viewGroups(
  deps: Deps,
  slug: string,
  sheetId: number,
  { smallest, longest, most, fineness, ...filters }: GroupsQuery,
): Promise<GroupsView> {
  const { account, sheet, content, isShown } = await lookAt(deps, slug, sheetId, filters, ['open', 'kept']);
  const nameOf = await loadGroupNames(deps.db, account.id, sheetId);
  const staying = content.ideas.filter((_, i) => isShown[i] === 1);
  const struck = sheet.struck.map((text) => words(normalise(text)));
  const taken = group(
    staying.filter(({ key }) => nameOf.has(key)),
    ({ key }) => nameOf.get(key)!,
  );
  const free = foldIdeas(
    staying.filter(({ key }) => !nameOf.has(key)),
    struck,
  );
  const { groups, left } = groupIdeas(stemTexts(free.map(({ text }) => text)), {
    ...{ smallest, longest, most, fineness: Math.min(100, fineness) / 100 },
    without: [...EMPTY_WORDS, ...sheet.stems.flatMap((stem) => [...words(stem), words(stem).join('')])],
  });
  const byName = [...taken].sort(([a], [b]) => a.localeCompare(b, 'en'));
  return {
    version: sheet.version,
    groups: [
      ...byName.map(([name, ideas]) => toGroup(name, foldIdeas(ideas, struck), false)),
      ...groups.map(({ text, ideas }) =>
        toGroup(
          text,
          ideas.map((i) => free[i]!),
          true,
        ),
      ),
    ],
    left: mostSearchedFirst(left.map((i) => free[i]!)),
  };
}

/** Ideas that are one once what is struck is out of them. */
type Folded = { text: string; keys: string[]; volume: number | null; openingBidMicros: number | null };

function foldIdeas(ideas: readonly StoredIdea[], struck: readonly (readonly string[])[]): Folded[] {
  const byText = new Map<string, Folded>();
  for (const idea of ideas) {
    const text = strikeOut(idea.key, struck);
    const volume = searchesOf(idea);
    const same = byText.get(text);
    if (!same) {
      byText.set(text, { text, keys: [idea.key], volume, openingBidMicros: idea.openingBidMicros });
      continue;
    }
    same.keys.push(idea.key);
    if (volume !== null) same.volume = (same.volume ?? 0) + volume;
    if (idea.openingBidMicros !== null)
      same.openingBidMicros = Math.max(same.openingBidMicros ?? 0, idea.openingBidMicros);
  }
  return [...byText.values()];
}

function toGroup(name: string, ideas: readonly Folded[], isProposed: boolean): Group {
  const volumes = ideas.map((idea) => idea.volume).filter((volume) => volume !== null);
  const bids = ideas.map((idea) => idea.openingBidMicros).filter((bid) => bid !== null);
  return {
    ...{ name, isProposed },
    volume: volumes.length === 0 ? null : volumes.reduce((a, b) => a + b, 0),
    openingBidMicros: bids.length === 0 ? null : Math.max(...bids),
    ideas: mostSearchedFirst(ideas),
  };
}

function mostSearchedFirst(ideas: readonly Folded[]): GroupedIdea[] {
  return ideas
    .toSorted((a, b) => (b.volume ?? 0) - (a.volume ?? 0) || (a.text < b.text ? -1 : 1))
    .map(({ text, keys, volume }) => {
      const isItself = keys.length === 1 && keys[0] === text;
      return { text, volume, ...(!isItself && { keys }) };
    });
}

/**
 * Puts ideas into groups, one move after another; those that the sheet does not have any more are passed over.
 * @returns the moves that take all of it back
 * @throws Refusal when there is no such sheet
 */
export async function moveIdeas(
  deps: Deps,
  slug: string,
  sheetId: number,
  moves: readonly Move[],
): Promise<{ back: Move[] }> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    if (!(await findSheet(trx, id, sheetId, { lock: true })))
      throw new Refusal('There is no such research sheet any more. Nothing was changed.', 404);
    // What is moved twice ends where it is moved last.
    const to = new Map(moves.flatMap((move) => move.keys.map((key) => [key, move.to] as const)));
    const was = await setGroups(trx, id, sheetId, to);
    await updateSheet(trx, id, sheetId);
    await raiseDecisionVersion(trx, id);
    const back = group(was, (one) => one.was);
    return { back: [...back].map(([name, ideas]) => ({ keys: ideas.map(({ key }) => key), to: name })) };
  });
}
