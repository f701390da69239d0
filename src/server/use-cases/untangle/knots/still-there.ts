import { group } from 'd3';
import { effectOfDraft } from '@/core';
import type { MadeFor } from '@/contracts/knots';
import { derivedFrom } from '../../../compute/derived';
import { Refusal, type Deps } from '../../deps';
import { openWorkbench, type Open } from '../../open-workbench';
import { findKnot } from './find-knots';

/** @example nameOf({ kind: 'overlap', key: 'bee hive' }) // 'overlap bee hive' */
export const nameOfKnot = ({ kind, key }: Pick<MadeFor, 'kind' | 'key'>) => `${kind} ${key}`;

/**
 * Which of some knots are there no more: the account became otherwise while somebody decided.
 * @param as how the account is looked at: as its tray leaves it, or without the tray; of keywords that stand twice one has to run
 * however the tray leaves them
 * @returns their names
 */
export async function knotsGone(
  deps: Deps,
  { account }: Pick<Open, 'account'>,
  knots: readonly MadeFor[],
  as: 'with the tray' | 'without the tray',
): Promise<ReadonlySet<string>> {
  const gone = new Set<string>();
  for (const [, of] of group(knots, ({ days }) => days ?? 'own')) {
    const open = await openWorkbench(deps, account, of[0]!.days);
    const bare = as === 'with the tray' ? open : withoutTray(open);
    for (const knot of new Map(of.map((one) => [nameOfKnot(one), one])).values()) {
      const isThere = await findKnot(deps, knot.kind === 'duplicate' ? open : bare, knot).then(
        () => true,
        (error: unknown) => {
          if (error instanceof Refusal) return false;
          throw error;
        },
      );
      if (!isThere) gone.add(nameOfKnot(knot));
    }
  }
  return gone;
}

/** What was sent counts, and what is in the tray does not. */
const withoutTray = derivedFrom((open: Open): Open => ({
  ...open,
  ...{ draft: effectOfDraft(open.awaited, []), drafted: [] },
  laid: [...open.accepted, ...open.waiting].map(({ change }) => change),
}));
