import { normalise } from '@/core';
import { appendLedger } from '../repositories/ledger';
import { deleteProtectedTerm, insertProtectedTerm } from '../repositories/protected-terms';
import { Refusal, type Deps } from './deps';
import { requireAccount } from './open-workbench';

/** Keeps a term open: from now on nothing may stop it. Applies at once, with a ledger entry. */
export async function keepTerm(
  deps: Deps,
  slug: string,
  personId: number,
  { raw, note }: { raw: string; note: string | null },
): Promise<void> {
  const text = normalise(raw);
  if (text === '') throw new Refusal(`“${raw}” holds no word, so no negative can stop it.`);
  const account = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    const isNew = await insertProtectedTerm(trx, account.id, { text, raw, note, personId });
    if (isNew)
      await appendLedger(trx, account.id, {
        actor: { person: personId },
        about: 'keep',
        what: `Keep “${text}” open`,
        why: note,
      });
  });
}

/** Lets a kept term go again. */
export async function letTermGo(deps: Deps, slug: string, personId: number, raw: string): Promise<void> {
  const text = normalise(raw);
  const account = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    const was = await deleteProtectedTerm(trx, account.id, text);
    if (was)
      await appendLedger(trx, account.id, {
        actor: { person: personId },
        about: 'keep',
        what: `No longer keep “${text}” open`,
      });
  });
}
