import { listMadeBy, listOf, type Change } from '@/core';
import { findList } from '../lists/known-lists';
import type { Open } from '../open-workbench';
import { workOf } from './kinds';

/** Why the platform can not be asked for a change at all; undefined where it can. */
export function refuse(open: Open, change: Change): string | undefined {
  const listId = listOf(change);
  const list = listId === undefined ? undefined : findList(open, listId);
  if (listId !== undefined && !list && !listMadeBy(change)) return 'This list is not there any more.';
  return workOf(change).refuse?.(change, open, list);
}

/** Why a change would change nothing, against the account as the draft leaves it. */
export function saysNothingNew(open: Open, change: Change): string | undefined {
  return workOf(change).isSoAlready?.(change, open);
}
