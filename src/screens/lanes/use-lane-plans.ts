'use client';

import type { LanePlan, ShownLanes } from '@/contracts/lanes';
import { normalise, type Change } from '@/core';
import { useRoutes } from '@/screens/frame/data/routes';
import { useUndoable } from '@/screens/frame/data/refresh';
import { sayFailure, tellHeldBack, useTrayActions } from '@/screens/tray/use-tray';

/** What is done with lane plans, each with its undo. */
export function useLanePlans() {
  const { call } = useRoutes();
  const undoable = useUndoable();
  const { draft } = useTrayActions();

  /** @returns the key of the plan; null where it is gone; undefined where nothing was kept */
  async function keep(was: LanePlan | null, plan: LanePlan | null): Promise<string | null | undefined> {
    try {
      const { said, key } = await call('PUT lanes', { body: { was, plan } });
      await undoable(said, () => call('PUT lanes', { body: { was: plan, plan: was } }));
      return key;
    } catch (error) {
      sayFailure(error);
      return undefined;
    }
  }

  return {
    keep,
    /** Puts an entry term into a tier, and takes it out of the one where it was. */
    move(plan: LanePlan, text: string, from: number | null, to: number | null) {
      const tiers = plan.tiers.map((tier, number) => {
        const without =
          number === from ? tier.entryTerms.filter((one) => !isSame(one, text)) : tier.entryTerms;
        const has = without.some((one) => isSame(one, text));
        return { ...tier, entryTerms: number === to && !has ? [...without, text] : without };
      });
      return keep(plan, { ...plan, tiers });
    },
    /**
     * Puts changes of a plan in the tray. What they stop has another tier to go to: a term that pays is let through there, and
     * does not hold them back.
     */
    async put({ name }: Pick<ShownLanes, 'name'>, changes: readonly Change[], said: string): Promise<void> {
      const wanted = changes.map((change) => ({
        ...{ change, why: `lane plan ${name}` },
        ...(change.kind === 'add negative' && {
          forcedBecause: `by the lane plan ${name} its queries have a tier of their own`,
        }),
      }));
      const outcomes = await draft(wanted, { said });
      tellHeldBack(outcomes);
    },
  };
}
export type LanePlans = ReturnType<typeof useLanePlans>;

const isSame = (one: string, other: string) => normalise(one) === normalise(other);
