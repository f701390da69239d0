'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { counted } from '@/core';
import type { Group, GroupedIdea, Move } from '@/contracts/groups';
import { useUndoable } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { doing } from '@/screens/frame/data/undo';
import { sayFailure } from '@/screens/tray/use-tray';
import { toQuery, type ResearchUrl } from '../research-url';
import { keyOfGroup, keyOfRow, keysOf, keysOfAll, rowsOf } from './group-rows';

/** The groups of a sheet, what is in hand of them, and what can be done with it; all of it can be taken back. */
export function useGroups(sheetId: number, url: ResearchUrl) {
  const { query, call } = useRoutes();
  const undoable = useUndoable();
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const [marks, setMarks] = useState<ReadonlySet<string>>(new Set());
  const [cursor, setCursor] = useState(0);
  const { sort: _, state: __, ...filters } = toQuery(url);
  const params = { sheet: sheetId };
  const settings = {
    ...{ smallest: String(url.smallest), longest: String(url.words) },
    ...{ most: String(url.groups), fineness: String(url.fine) },
  };
  const asked = query('GET research/[sheet]/groups', { params, query: { ...filters, ...settings } });
  const { data: view, error, isPlaceholderData } = useQuery({ ...asked, placeholderData: keepPreviousData });
  const rows = view ? rowsOf(view, opened) : [];
  const at = Math.min(cursor, Math.max(0, rows.length - 1));
  const row = rows[at];
  const marked = rows.filter((one) => one.kind === 'idea' && marks.has(keyOfRow(one)));

  async function move(moves: Move[], said: string) {
    if (moves.every(({ keys }) => keys.length === 0)) return;
    const put = (body: { moves: Move[] }) => doing(call('POST research/[sheet]/groups', { params, body }));
    try {
      const { back } = await put({ moves });
      setMarks(new Set());
      await undoable(said, () => put({ moves: back }));
    } catch (failure) {
      sayFailure(failure);
    }
  }
  const taking = (group: Group): Move => ({ keys: keysOfAll(group.ideas), to: group.name });
  /** The ideas that are marked; else the one in hand. */
  const chosen = (): GroupedIdea[] => {
    const some = marked.length > 0 ? marked : row?.kind === 'idea' ? [row] : [];
    return some.flatMap((one) => (one.kind === 'idea' ? one.idea : []));
  };

  return {
    ...{ view, error, isStale: isPlaceholderData, rows, row, at, opened, marks, setMarks, chosen },
    asked: JSON.stringify(settings),
    setCursor,
    /** Opens a group, or closes it. */
    turn(key: string) {
      const next = new Set(opened);
      if (!next.delete(key)) next.add(key);
      setOpened(next);
    },
    /** Takes groups that are proposed. */
    take: (groups: readonly Group[]) =>
      move(
        groups.filter(({ isProposed }) => isProposed).map(taking),
        groups.length === 1 ? `${groups[0]!.name} taken` : `${counted(groups.length, 'group')} taken`,
      ),
    rename: (group: Group, name: string) =>
      move([{ keys: keysOfAll(group.ideas), to: name }], `${group.name} is ${name} now`),
    /** All its ideas go into another one. */
    merge: (group: Group, into: Group) =>
      move(
        [{ keys: keysOfAll(group.ideas), to: into.name }, taking(into)],
        `${group.name} merged into ${into.name}`,
      ),
    /** The group is no more; its ideas are left over. */
    drop: (group: Group) =>
      move([{ keys: keysOfAll(group.ideas), to: null }], `${group.name} dropped: its ideas are left over`),
    eachItsOwn: (group: Group) =>
      move(
        group.ideas.map((idea) => ({ keys: keysOf(idea), to: idea.text })),
        `Each idea of ${group.name} is a group`,
      ),
    /** @param into null for none */
    put(ideas: readonly GroupedIdea[], into: Group | string | null) {
      const to = into === null || typeof into === 'string' ? into : into.name;
      const also = into !== null && typeof into !== 'string' && into.isProposed ? [taking(into)] : [];
      const said =
        to === null
          ? `${counted(ideas.length, 'idea')} taken out`
          : `${counted(ideas.length, 'idea')} in ${to} now`;
      return move([...also, { keys: keysOfAll(ideas), to }], said);
    },
    groupOf: (key: string) => view?.groups.find((group) => keyOfGroup(group) === key),
  };
}
export type Groups = ReturnType<typeof useGroups>;
