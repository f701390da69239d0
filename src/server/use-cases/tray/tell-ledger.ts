import { describeChange, type Names } from '@/core';
import type { NewEntry } from '../../repositories/ledger';
import type { StoredChange } from '../../repositories/tray/changes';

/** What the ledger says of a sent change, but for who did it and what came of it. */
export function tellOf(stored: StoredChange, names: Names): Omit<NewEntry, 'actor' | 'after'> {
  const { id, change, why, forcedBecause, before } = stored;
  const reasons = [why, forcedBecause && `forced: ${forcedBecause}`].filter(Boolean);
  return {
    ...{ about: 'change', changeId: id, what: describeChange(change, names), before },
    why: reasons.join('; ') || null,
  };
}
