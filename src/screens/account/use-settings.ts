'use client';

import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { SettingsRequest } from '@/contracts/account';
import { useRefresh, useUndoable } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';

/** What the Account screen shows. */
export function useAccountView() {
  return useQuery(useRoutes().query('GET account'));
}

export type Saving = {
  /** why it was not set; null where it was, or nothing was tried */
  fault: string | null;
  isBusy: boolean;
  /** what was wrong is said no more */
  forget(): void;
  /** @returns whether it was set */
  save(work: () => Promise<{ said: string; undo?: () => Promise<unknown> }>): Promise<boolean>;
};

/** Sets something, says what was set, and offers its undo; what is wrong is kept to be shown beside the field. */
export function useSaving(): Saving {
  const undoable = useUndoable();
  const refresh = useRefresh();
  const router = useRouter();
  const [fault, setFault] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  return {
    ...{ fault, isBusy },
    forget: () => setFault(null),
    async save(work) {
      setBusy(true);
      setFault(null);
      try {
        const { said, undo } = await work();
        router.refresh(); // the strip and the rail show settings too
        if (undo)
          await undoable(said, async () => {
            await undo();
            router.refresh();
          });
        else await refresh();
        return true;
      } catch (error) {
        setFault(error instanceof Error ? error.message : 'It did not work. Nothing was changed.');
        return false;
      } finally {
        setBusy(false);
      }
    },
  };
}

/** Sets fields of the account. @returns what `save` takes: what was said, and the undo by the values before */
export function useSetting() {
  const { call } = useRoutes();
  const set = (fields: SettingsRequest) => call('PATCH account', { body: fields });
  return (fields: SettingsRequest, before: SettingsRequest) => async () => {
    const { said } = await set(fields);
    return { said: said.join('. ') || 'It is so already', undo: () => set(before) };
  };
}
