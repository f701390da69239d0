'use client';

import { useQuery } from '@tanstack/react-query';
import { useState, type KeyboardEvent } from 'react';
import type { ConflictLine, MendLine } from '@/contracts/untangle';
import { useDays, inDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { isPlain, useSingleKeys } from '@/screens/frame/keys/keys';
import { useTrayActions } from '@/screens/tray/use-tray';
import { useLeaving } from '../leaving/use-leaving';

/** The conflict in hand with its mends, and what can be done with it. */
export function useConflict(line: ConflictLine | undefined) {
  const { query } = useRoutes();
  const tray = useTrayActions();
  const [days] = useDays();
  const [single] = useSingleKeys();
  const [chosen, setChosen] = useState<{ of: string; at: number }>({ of: '', at: 0 });
  const leaving = useLeaving('conflict', line && { ...line, says: `“${line.negative.text}”` });
  const mends = useQuery({
    ...query('GET untangle/mends', { query: { key: line?.key ?? '-', ...inDays(days) } }),
    enabled: line !== undefined,
  });
  const ways = line && mends.data?.key === line.key ? mends.data.mends : undefined;
  const proposed = Math.max(0, ways?.findIndex(({ isProposed }) => isProposed) ?? 0);
  const at = line && chosen.of === line.key ? chosen.at : proposed;

  async function put(way: MendLine | undefined = ways?.[at]) {
    if (!line || !way) return;
    const why = `untangled: ${way.said}`;
    const knot = { kind: 'conflict' as const, key: line.key, ...inDays(days) };
    await tray.draft(
      way.changes.map((change) => ({ change, why, knot })),
      { said: way.said },
    );
  }

  return {
    line,
    /** not known yet: undefined */
    mends: line && mends.data?.key === line.key ? mends.data : undefined,
    mendsError: mends.error,
    at,
    choose: (next: number) => line && setChosen({ of: line.key, at: next }),
    ...{ put, leaving },
    onKey(event: KeyboardEvent): boolean {
      if (event.key === 'Enter') {
        void put();
        return true;
      }
      if (!isPlain(event, single)) return false;
      if (/^[1-9]$/.test(event.key) && line) {
        if (Number(event.key) > (ways?.length ?? 0)) return false;
        setChosen({ of: line.key, at: Number(event.key) - 1 });
        return true;
      }
      if (event.key !== 'l' || !line) return false;
      leaving.turn();
      return true;
    },
  };
}
export type ConflictChoice = ReturnType<typeof useConflict>;
