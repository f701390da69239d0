'use client';

import type { WordMarkView } from '@/contracts/decisions';
import { useAccount } from '@/screens/frame/account-context';
import { offerUndo } from '@/screens/frame/undo';
import { sayFailure, useRefresh } from '@/screens/tray/use-tray';
import { ask } from '@/ui/ask';

type Mark = WordMarkView['mark'] | null;

/** Marks a run of words as neutral or as a place, or takes its mark off, with its undo. */
export function useWordMark() {
  const { api } = useAccount();
  const refresh = useRefresh();
  const send = (text: string, mark: Mark) =>
    ask<{ was: Mark }>(api('words'), { method: 'POST', body: { text, mark } });
  return async (text: string, mark: Mark): Promise<void> => {
    try {
      const { was } = await send(text, mark);
      await refresh();
      offerUndo(
        `“${text}” is ${mark === null ? 'no longer marked' : mark === 'place' ? 'a place' : 'neutral'}`,
        async () => {
          await send(text, was);
          await refresh();
        },
      );
    } catch (error) {
      sayFailure(error);
    }
  };
}
