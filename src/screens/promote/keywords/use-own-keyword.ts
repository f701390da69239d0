'use client';

import { useState, type KeyboardEvent } from 'react';
import { counted, type Change } from '@/core';
import type { OwnKeywordLine } from '@/contracts/promotion';
import { useRefresh, useUndoable } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { isPlain, useSingleKeys } from '@/screens/frame/keys/keys';
import { sayFailure, useTrayActions } from '@/screens/tray/use-tray';

/** So many more clicks a keyword is left at first. */
const MORE_CLICKS = 20;

/** What is done with the exact keyword in hand, or with all that are marked: a lower bid, a pause, or more time. */
export function useOwnKeyword(line: OwnKeywordLine | undefined, marked: readonly OwnKeywordLine[]) {
  const { call } = useRoutes();
  const { draft } = useTrayActions();
  const undoable = useUndoable();
  const refresh = useRefresh();
  const [single] = useSingleKeys();
  const [moreClicks, setMoreClicks] = useState(MORE_CLICKS);
  const lines = marked.length > 0 ? marked : line ? [line] : [];
  const lower = lines.filter(canBeLowered);

  const put = (some: readonly OwnKeywordLine[], changeOf: (line: OwnKeywordLine) => Change) =>
    draft(
      some.map((one) => ({
        change: changeOf(one),
        why: `“${one.text}” is an exact keyword that does not return enough`,
      })),
      { said: `change ${counted(some.length, 'keyword')}` },
    );
  const setBid = (one: OwnKeywordLine, bidMicros: number) =>
    put([one], () => ({ kind: 'set bid', keywordId: one.id, bidMicros, wasMicros: one.bidMicros! }));
  const lowerAll = () =>
    lower.length > 0 &&
    put(lower, ({ id, bidMicros, paysMicros }) => ({
      ...{ kind: 'set bid', keywordId: id, bidMicros: paysMicros!, wasMicros: bidMicros! },
    }));
  const pause = () => lines.length > 0 && put(lines, ({ id }) => ({ kind: 'pause keyword', keywordId: id }));

  const leave = ({ id }: OwnKeywordLine, clicks: number, why = 'more clicks will tell') =>
    call('POST untangle/left', { body: { kind: 'keyword', key: id, why, until: null, moreClicks: clicks } });
  const takeUp = ({ id }: OwnKeywordLine) =>
    call('DELETE untangle/left', { body: { kind: 'keyword', key: id } });

  async function turnLeft() {
    const some = lines.filter(({ left }) => (left === null) === (lines[0]?.left === null));
    if (some.length === 0) return;
    const isLeft = some[0]!.left !== null;
    const what = counted(some.length, 'keyword');
    try {
      if (isLeft) {
        const backs: { one: OwnKeywordLine; clicks: number; why: string }[] = [];
        for (const one of some) {
          const was = await takeUp(one);
          backs.push({ one, clicks: was.moreClicks ?? 1, why: was.why });
        }
        await undoable(`${what} taken up again`, async () => {
          for (const { one, clicks, why } of backs) await leave(one, clicks, why);
          await refresh();
        });
      } else {
        for (const one of some) await leave(one, moreClicks);
        await undoable(`${what} left for ${counted(moreClicks, 'more click')}`, async () => {
          for (const one of some) await takeUp(one);
          await refresh();
        });
      }
    } catch (failure) {
      sayFailure(failure);
    }
  }

  return {
    ...{ line, lines, lower, setBid, lowerAll, pause, turnLeft, moreClicks, setMoreClicks },
    isMany: marked.length > 0,
    onKey(event: KeyboardEvent): boolean {
      if (event.key === 'Enter') {
        void lowerAll();
        return true;
      }
      if (!isPlain(event, single) || lines.length === 0) return false;
      if (event.key === 'p') void pause();
      else if (event.key === 'l') void turnLeft();
      else return false;
      return true;
    },
  };
}
export type OwnKeywordInHand = ReturnType<typeof useOwnKeyword>;

/** Whether a lower bid is expected to reach the target. */
const canBeLowered = ({ bidMicros, paysMicros }: OwnKeywordLine) =>
  bidMicros !== null && paysMicros !== null && paysMicros > 0 && paysMicros < bidMicros;
