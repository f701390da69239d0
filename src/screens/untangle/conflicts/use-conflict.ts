'use client';

import { useQuery } from '@tanstack/react-query';
import { useState, type KeyboardEvent } from 'react';
import type { ConflictLine, MendLine } from '@/contracts/untangle';
import { useDays, inDays } from '@/screens/frame/data/days';
import { useRefresh, useUndoable } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { useSingleKeys } from '@/screens/frame/keys/keys';
import { sayFailure, useTrayActions } from '@/screens/tray/use-tray';
import { focusWork } from '@/ui/focus-work';

/** The conflict in hand with its mends, and what can be done with it. */
export function useConflict(line: ConflictLine | undefined) {
  const { query, call } = useRoutes();
  const tray = useTrayActions();
  const undoable = useUndoable();
  const refresh = useRefresh();
  const [days] = useDays();
  const [single] = useSingleKeys();
  const [chosen, setChosen] = useState<{ of: string; at: number }>({ of: '', at: 0 });
  const [leaving, setLeaving] = useState<string>();
  const mends = useQuery({
    ...query('GET untangle/mends', { query: { key: line?.key ?? '-', ...inDays(days) } }),
    enabled: line !== undefined,
  });
  const ways = line && mends.data?.key === line.key ? mends.data.mends : undefined;
  const proposed = Math.max(0, ways?.findIndex(({ isProposed }) => isProposed) ?? 0);
  const at = line && chosen.of === line.key ? chosen.at : proposed;

  /** The form goes, and the keys are the table's again. */
  function stopLeaving() {
    setLeaving(undefined);
    focusWork();
  }

  async function put(way: MendLine | undefined = ways?.[at]) {
    if (!line || !way) return;
    const why = `untangled: ${way.said}`;
    await tray.draft(
      way.changes.map((change) => ({ change, why })),
      { said: way.said },
    );
  }

  async function leave({ why, until }: { why: string; until: string | null }) {
    if (!line) return;
    const { key } = line;
    stopLeaving();
    try {
      await call('POST untangle/left', { body: { key, why, until, ...inDays(days) } });
      await undoable(`“${line.negative.text}” left as it is`, async () => {
        await call('DELETE untangle/left', { body: { key } });
        await refresh();
      });
    } catch (failure) {
      sayFailure(failure);
    }
  }

  async function takeUp() {
    if (!line) return;
    const { key } = line;
    try {
      const was = await call('DELETE untangle/left', { body: { key } });
      await undoable(`“${line.negative.text}” taken up again`, async () => {
        await call('POST untangle/left', { body: { key, ...was, ...inDays(days) } });
        await refresh();
      });
    } catch (failure) {
      sayFailure(failure);
    }
  }

  return {
    line,
    /** not known yet: undefined */
    mends: line && mends.data?.key === line.key ? mends.data : undefined,
    mendsError: mends.error,
    at,
    choose: (next: number) => line && setChosen({ of: line.key, at: next }),
    isLeaving: line !== undefined && leaving === line.key,
    startLeaving: () => setLeaving(line?.key),
    stopLeaving,
    ...{ put, leave, takeUp },
    onKey(event: KeyboardEvent): boolean {
      if (event.key === 'Enter') {
        void put();
        return true;
      }
      if (!single || event.ctrlKey || event.metaKey || event.altKey) return false;
      if (/^[1-9]$/.test(event.key) && line) {
        if (Number(event.key) > (ways?.length ?? 0)) return false;
        setChosen({ of: line.key, at: Number(event.key) - 1 });
        return true;
      }
      if (event.key !== 'l' || !line) return false;
      if (line.left) void takeUp();
      else setLeaving(line.key);
      return true;
    },
  };
}
export type ConflictChoice = ReturnType<typeof useConflict>;
