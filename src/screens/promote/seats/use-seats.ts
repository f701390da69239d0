'use client';

import type { MatchType } from '@/core';
import type { PromotionGroup } from '@/contracts/promotion';
import { useRefresh, useUndoable } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { sayFailure } from '@/screens/tray/use-tray';

export type SeatName = { campaign: string; adGroup: string };
type Making = { matches: MatchType[]; campaign: string; budgetMicros: number | null };

/** Chooses seats of a group, and makes those that are missing; each with its undo. */
export function useSeats() {
  const { call } = useRoutes();
  const undoable = useUndoable();
  const refresh = useRefresh();
  const put = (group: string, match: MatchType, seat: SeatName | null, unmakes = false) =>
    call('PUT promotion/seat', { body: { group, match, seat, unmakes } });

  return {
    /** @param seat null: the one that is found by its name or content */
    async choose({ key }: PromotionGroup, match: MatchType, seat: SeatName | null): Promise<void> {
      try {
        const { said, was, group, isMade } = await put(key, match, seat);
        await undoable(said, async () => {
          await put(group, match, was, isMade);
          await refresh();
        });
      } catch (error) {
        sayFailure(error);
      }
    },

    /** @returns whether something was put in the tray */
    async make({ key }: PromotionGroup, making: Making): Promise<boolean> {
      try {
        const { outcomes, group, was, isMade } = await call('POST promotion/seats', {
          body: { group: key, ...making },
        });
        const ids = outcomes.flatMap((one) => (one.outcome === 'drafted' ? one.changeId : []));
        const refused = outcomes.find(({ outcome }) => outcome === 'refused');
        if (refused) sayFailure(new Error(refused.said));
        await undoable('Seats put in the tray, and chosen', async () => {
          if (ids.length > 0) await call('DELETE tray', { body: { changeIds: ids } });
          for (const match of making.matches) await put(group, match, was[match] ?? null, isMade);
          await refresh();
        });
        return ids.length > 0;
      } catch (error) {
        sayFailure(error);
        return false;
      }
    },
  };
}
