'use client';

import { useState } from 'react';
import type { LeftKind, Left } from '@/contracts/knots';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRefresh, useUndoable } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { sayFailure } from '@/screens/tray/use-tray';
import { focusWork } from '@/ui/focus-work';

/** A knot that can be left: by its key, and as it is named. */
type Leavable = { key: string; left: Left; says: string };

/** Leaves the knot in hand with a reason, or takes it up again. */
export function useLeaving(kind: LeftKind, knot: Leavable | undefined) {
  const { call } = useRoutes();
  const undoable = useUndoable();
  const refresh = useRefresh();
  const [days] = useDays();
  const [leaving, setLeaving] = useState<string>();

  /** The form goes, and the keys are the table's again. */
  function stop() {
    setLeaving(undefined);
    focusWork();
  }

  async function leave(as: { why: string; until: string | null }) {
    if (!knot) return;
    const named = { kind, key: knot.key };
    stop();
    try {
      await call('POST untangle/left', { body: { ...named, ...as, ...inDays(days) } });
      await undoable(`${knot.says} left as it is`, async () => {
        await call('DELETE untangle/left', { body: named });
        await refresh();
      });
    } catch (failure) {
      sayFailure(failure);
    }
  }

  async function takeUp() {
    if (!knot) return;
    const named = { kind, key: knot.key };
    try {
      const was = await call('DELETE untangle/left', { body: named });
      await undoable(`${knot.says} taken up again`, async () => {
        await call('POST untangle/left', { body: { ...named, ...was, ...inDays(days) } });
        await refresh();
      });
    } catch (failure) {
      sayFailure(failure);
    }
  }

  return {
    ...{ knot, leave, stop },
    isLeaving: knot !== undefined && leaving === knot.key,
    /** asks for the reason, or takes it up again where it is left */
    turn() {
      if (knot?.left) void takeUp();
      else setLeaving(knot?.key);
    },
  };
}
export type Leaving = ReturnType<typeof useLeaving>;
