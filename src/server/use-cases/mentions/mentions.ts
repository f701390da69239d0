import { mentionedIn, type Mentions } from '@/contracts/mentions';
import { mayDo } from '@/contracts/roles';
import type { Db } from '../../db/connection';
import { lockAccount, raiseDecisionVersion } from '../../repositories/account/accounts';
import { listMembers } from '../../repositories/account/members';
import {
  deletePassMention,
  findPassHolder,
  insertMentions,
  listMentions,
  setMentionSeen,
  type NewMention,
} from '../../repositories/decisions/mentions';
import { findPass } from '../../repositories/decisions/passes';
import { appendLedger } from '../../repositories/ledger';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

const MOST_SHOWN = 30;

type Said = Omit<NewMention, 'to'>;

/** Tells everybody whom a text names and who works in the account, but who wrote it. */
export async function tellMentioned(trx: Db, accountId: number, said: Said): Promise<void> {
  if (!said.body.includes('@')) return;
  const here = (await listMembers(trx, accountId)).filter(({ role }) => role !== 'none');
  const told = mentionedIn(said.body, here).filter(({ id }) => id !== said.by);
  await insertMentions(
    trx,
    accountId,
    told.map(({ id }) => ({ ...said, to: id })),
  );
}

/** What a person is told, and who has the rest of the pass that people are in. */
export async function viewMentions(deps: Deps, slug: string, personId: number): Promise<Mentions> {
  const { id } = await requireAccount(deps, slug);
  const pass = await findPass(deps.db, id);
  const holder = pass && (await findPassHolder(deps.db, id, pass.id));
  return {
    lines: await listMentions(deps.db, id, personId, MOST_SHOWN),
    pass: holder
      ? {
          ...{ id: holder.id, to: holder.toName, isMine: holder.to === personId },
          ...{ by: holder.by, at: holder.at },
        }
      : null,
  };
}

/** @throws Refusal when nothing of this number was told to the person */
export async function seeMention(
  deps: Deps,
  slug: string,
  personId: number,
  asked: { id: number; isSeen: boolean },
): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  if (!(await setMentionSeen(deps.db, id, personId, asked)))
    throw new Refusal('This is not there any more.', 404);
}

/**
 * The rest of the pass that people are in is another person's from now on: he or she is told.
 * @throws Refusal when the person may not decide here, or there is no pass yet
 */
export async function givePass(
  deps: Deps,
  slug: string,
  personId: number,
  to: number,
): Promise<{ id: number }> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    await lockAccount(trx, id);
    const pass = await findPass(trx, id);
    if (!pass) throw new Refusal('There is no pass before the first report. Nothing was changed.', 409);
    const person = (await listMembers(trx, id)).find((one) => one.id === to);
    if (!person || !mayDo(person.role, 'prepare'))
      throw new Refusal('This person may not decide here. Nothing was changed.', 409);
    const mention = await insertMentions(trx, id, [
      {
        ...{ to, by: personId, kind: 'pass', about: String(pass.id) },
        ...{ label: 'the pass', body: 'The rest of this pass is yours.' },
      },
    ]);
    await appendLedger(trx, id, {
      ...{
        actor: { person: personId },
        about: 'note',
        what: `Give the rest of the pass to ${person.name}`,
      },
    });
    await raiseDecisionVersion(trx, id);
    return { id: mention! };
  });
}

/** @throws Refusal when it was taken back already */
export async function takePassBack(
  deps: Deps,
  slug: string,
  personId: number,
  mention: number,
): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    if (!(await deletePassMention(trx, id, mention))) throw new Refusal('This was taken back already.', 404);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'note', what: 'Take the rest of the pass back' },
    });
    await raiseDecisionVersion(trx, id);
  });
}
