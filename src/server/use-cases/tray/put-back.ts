import { changeKey } from '@/core';
import type { Db } from '../../db/connection';
import { deleteFromSet, loadDraft, moveToDraft, type StoredChange } from '../../repositories/tray/changes';

/**
 * Puts changes of a set that nobody has answered back in the draft. What the draft holds by now, one way or the other, is
 * what is wanted: such a change leaves the set and is not drafted again.
 */
export async function putBack(
  trx: Db,
  accountId: number,
  setId: number,
  back: readonly StoredChange[],
): Promise<void> {
  const drafted = new Set((await loadDraft(trx, accountId)).map(({ change }) => changeKey(change)));
  const isThere = ({ change }: StoredChange) => drafted.has(changeKey(change));
  const ids = (all: readonly StoredChange[]) => all.map((c) => c.id);
  await deleteFromSet(trx, accountId, setId, ids(back.filter(isThere)));
  await moveToDraft(trx, accountId, setId, ids(back.filter((c) => !isThere(c))));
}
