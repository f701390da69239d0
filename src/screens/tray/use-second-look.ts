'use client';

import { useQuery } from '@tanstack/react-query';
import { doing } from '@/screens/frame/data/undo';
import { useRefresh, useUndoable } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { PARTS } from '@/contracts/routes';
import { sayFailure } from './use-tray';

/** What the tray waits for before it may be sent; nothing while it is empty. */
export function useSecondLook(isAsked: boolean) {
  const { query } = useRoutes();
  return useQuery({ ...query('GET tray/second-look'), enabled: isAsked }).data;
}

/** What is done about a second look; each is said, and can be undone. */
export function useLookActions() {
  const { call } = useRoutes();
  const undoable = useUndoable();
  const refresh = useRefresh();
  const putUp = (note: string) => call('PUT tray/second-look', { body: { note } });
  const takeDown = () => call('DELETE tray/second-look');
  const sayYes = (changes: readonly number[]) =>
    call('PUT tray/second-look/yes', { body: { changes: [...changes] } });
  const takeYesBack = () => call('DELETE tray/second-look/yes');

  async function act(work: () => Promise<unknown>, said: string, undo: () => Promise<unknown>) {
    try {
      await doing(work());
      await undoable(said, undo);
    } catch (error) {
      sayFailure(error);
      await refresh(PARTS);
    }
  }
  return {
    putUp: (note: string) => act(() => putUp(note), 'The tray is up for a second look', takeDown),
    takeDown: (note: string) => act(takeDown, 'Taken down', () => putUp(note)),
    sayYes: (changes: readonly number[]) => act(() => sayYes(changes), 'You said yes', takeYesBack),
    takeYesBack: (changes: readonly number[]) =>
      act(takeYesBack, 'The yes is taken back', () => sayYes(changes)),
  };
}
