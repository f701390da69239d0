import { group } from 'd3';
import { effectOfDraft } from '@/core';
import type { MadeFor } from '@/contracts/knots';
import type { StoredChange } from '../../../repositories/tray/changes';
import type { Deps } from '../../deps';
import { openWorkbench, type Open } from '../../open-workbench';
import { findNamed } from './find-knots';

/** @example nameOf({ kind: 'overlap', key: 'bee hive' }) // 'overlap bee hive' */
export const nameOfKnot = ({ kind, key }: Pick<MadeFor, 'kind' | 'key'>) => `${kind} ${key}`;

/**
 * Which of some knots are there no more: the account became otherwise while somebody decided.
 * @param sent the changes that are to be sent, which do not count, nor does the tray; undefined: all is as the tray leaves it. Of
 * keywords that stand twice one has to run, however the tray leaves them.
 * @returns their names
 */
export async function knotsGone(
  deps: Deps,
  { account }: Pick<Open, 'account'>,
  knots: readonly MadeFor[],
  sent?: readonly StoredChange[],
): Promise<ReadonlySet<string>> {
  const gone = new Set(knots.map(nameOfKnot));
  for (const [, of] of group(knots, ({ days }) => JSON.stringify(days ?? null))) {
    const open = await openWorkbench(deps, account, of[0]!.days);
    const bare = sent ? without(open, sent) : open;
    for (const [kind, named] of group(of, (knot) => knot.kind)) {
      const keys = [...new Set(named.map(({ key }) => key))];
      for (const knot of await findNamed(deps, kind === 'duplicate' ? open : bare, kind, keys))
        gone.delete(nameOfKnot({ kind, key: knot.key }));
    }
  }
  return gone;
}

/** The account with what is on its way, but without the tray and some changes: these may wait for their time. */
function without(open: Open, changes: readonly StoredChange[]): Open {
  const ids = new Set(changes.map(({ id }) => id));
  const waiting = open.waiting.filter(({ id }) => !ids.has(id));
  const changesOf = (stored: readonly StoredChange[]) => stored.map(({ change }) => change);
  return {
    ...open,
    ...{ draft: effectOfDraft(open.standing, changesOf(waiting)), drafted: [], waiting },
    laid: changesOf([...open.accepted, ...waiting]),
  };
}
