import { raiseDecisionVersion } from '../../repositories/account/accounts';
import { deleteComment, insertComment } from '../../repositories/tray/comments';
import { Refusal, type Deps } from '../deps';
import { tellMentioned } from '../mentions/mentions';
import { requireAccount } from '../open-workbench';

/** Says something of a change in the tray, for all who look at it. @throws Refusal when it is not there any more */
export async function commentOnChange(
  deps: Deps,
  slug: string,
  personId: number,
  changeId: number,
  text: string,
): Promise<{ id: number }> {
  const account = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const id = await insertComment(trx, account.id, { changeId, personId, text });
    if (id === undefined)
      throw new Refusal('This change is not in the tray any more, so nothing was said of it.', 409);
    await tellMentioned(trx, account.id, {
      ...{ by: personId, kind: 'change', about: String(changeId), label: 'a change in the tray' },
      ...{ body: text, commentId: id },
    });
    await raiseDecisionVersion(trx, account.id);
    return { id };
  });
}

/** Takes back what oneself has said. @throws Refusal when it is not there, or another person said it */
export async function removeComment(
  deps: Deps,
  slug: string,
  personId: number,
  commentId: number,
): Promise<void> {
  const account = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    if (!(await deleteComment(trx, account.id, commentId, personId)))
      throw new Refusal('This comment is gone, or another person made it. Nothing was changed.', 409);
    await raiseDecisionVersion(trx, account.id);
  });
}
