'use client';

import type { WordTagView } from '@/contracts/decisions';
import { sayFailure } from '@/screens/tray/use-tray';
import { useUndoable } from '@/screens/frame/data/refresh';
import { doing } from '@/screens/frame/data/undo';
import { useRoutes } from '@/screens/frame/data/routes';

type Tag = WordTagView['tag'] | null;

/** Marks an n-gram as neutral or as a location, or takes its mark off, with its undo. */
export function useWordTag() {
  const { call } = useRoutes();
  const undoable = useUndoable();
  const send = (text: string, tag: Tag) => call('POST words', { body: { text, tag } });
  return async (text: string, tag: Tag): Promise<void> => {
    try {
      const { was } = await doing(send(text, tag));
      await undoable(
        `“${text}” is ${tag === null ? 'no longer tagged' : tag === 'location' ? 'a location' : 'neutral'}`,
        () => send(text, was),
      );
    } catch (error) {
      sayFailure(error);
    }
  };
}
