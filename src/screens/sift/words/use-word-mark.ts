'use client';

import type { WordMarkView } from '@/contracts/decisions';
import { sayFailure } from '@/screens/tray/use-tray';
import { useUndoable } from '@/screens/frame/data/refresh';
import { doing } from '@/screens/frame/data/undo';
import { useRoutes } from '@/screens/frame/data/routes';

type Mark = WordMarkView['mark'] | null;

/** Marks a run of words as neutral or as a place, or takes its mark off, with its undo. */
export function useWordMark() {
  const { call } = useRoutes();
  const undoable = useUndoable();
  const send = (text: string, mark: Mark) => call('POST words', { body: { text, mark } });
  return async (text: string, mark: Mark): Promise<void> => {
    try {
      const { was } = await doing(send(text, mark));
      await undoable(
        `“${text}” is ${mark === null ? 'no longer marked' : mark === 'place' ? 'a place' : 'neutral'}`,
        () => send(text, was),
      );
    } catch (error) {
      sayFailure(error);
    }
  };
}
