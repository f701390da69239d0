import { codeKey, normalise, productCodeTest } from '@/core';
import type { KeptView, VerdictOutcome, WantedVerdict } from '@/contracts/decisions';
import type { Verdict } from '@/contracts/hand';
import type { Db } from '../../db/connection';
import { lockAccount, raiseDecisionVersion, type Account } from '../../repositories/account/accounts';
import { loadConvertingTerms } from '../../repositories/facts';
import {
  deleteProtectedTerms,
  insertProtectedTerms,
  listProtectedTerms,
} from '../../repositories/decisions/protected-terms';
import { listSetAside, putAside, takeFromAside } from '../../repositories/decisions/set-aside';
import { loadVerdictsOf } from '../../repositories/decisions/verdicts';
import { appendLedger } from '../../repositories/ledger';
import { findDataDays } from '../../repositories/intake/reports';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { sayVerdict } from '@/contracts/say-verdict';
import { verdictOn } from './verdict-on';

/**
 * Keeps a term open (from now on nothing may stop it), sets it aside until it has more clicks, or takes either back.
 * Applies at once, with a ledger entry.
 * @returns the verdict before, with which it can be undone
 * @throws Refusal when the verdict is no longer the one that was seen; nothing was changed then
 */
export async function setVerdict(
  deps: Deps,
  slug: string,
  personId: number,
  { raw, verdict, seen }: { raw: string; verdict: WantedVerdict; seen?: Verdict['is'] },
): Promise<VerdictOutcome> {
  const { id } = await requireAccount(deps, slug);
  return deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, id);
    const key = keyOf(account, raw);
    if (key === '') throw new Refusal(`“${raw}” holds no word, so nothing can stop it.`);
    if (verdict.is === 'kept' && key !== normalise(raw))
      throw new Refusal(`${raw} is a product code. Negatives never stop it, so it need not be kept.`);
    const was = await findVerdict(trx, id, key);
    const stored = await loadVerdictsOf(trx, id, [key]);
    if (seen !== undefined && was.is !== seen && was.is !== verdict.is)
      throw new Refusal(sayMeanwhile(raw, was), 409);
    await write(trx, account, { key, raw }, was, verdict, personId);
    const said = sayGiven(key, was, verdict);
    if (was.is === 'open' && verdict.is === 'open') return { was, said };
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'keep', what: said },
      why: verdict.is === 'kept' ? verdict.note : null,
      ...{ before: was, after: verdict },
      undo: { do: 'set verdicts', keys: [key], left: verdict.is, ...stored },
    });
    await raiseDecisionVersion(trx, id);
    return { was, said };
  });
}

/** A term as verdicts name it: a product code by itself, anything else by its words. */
export function keyOf({ productCodePattern }: Account, raw: string): string {
  return productCodeTest(productCodePattern)(raw) ? codeKey(raw) : normalise(raw);
}

async function findVerdict(trx: Db, accountId: number, key: string): Promise<Verdict> {
  const kept = await listProtectedTerms(trx, accountId);
  return verdictOn(key, kept, await listSetAside(trx, accountId));
}

async function write(
  trx: Db,
  account: Account,
  term: { key: string; raw: string },
  was: Verdict,
  verdict: WantedVerdict,
  personId: number,
): Promise<void> {
  if (was.is === 'kept' && verdict.is !== 'kept') await deleteProtectedTerms(trx, account.id, [term.key]);
  if (was.is === 'aside' && verdict.is !== 'aside') await takeFromAside(trx, account.id, [term.key]);
  if (verdict.is === 'kept') {
    if (was.is === 'kept') await deleteProtectedTerms(trx, account.id, [term.key]);
    await insertProtectedTerms(trx, account.id, [term], { note: verdict.note, personId });
  }
  if (verdict.is === 'aside') {
    const afterDay = (await findDataDays(trx, account.id))?.to ?? '1970-01-01';
    await putAside(trx, account.id, [term], { moreClicks: verdict.moreClicks, afterDay, personId });
  }
}

function sayMeanwhile(raw: string, was: Verdict): string {
  const now =
    was.is === 'open'
      ? 'is neither kept nor set aside any more'
      : `was ${was.is === 'kept' ? 'kept' : 'set aside'} by ${was.by}`;
  return `“${raw}” ${now}, so nothing was changed. It is shown here as it stands now: decide again.`;
}

function sayGiven(raw: string, was: Verdict, verdict: WantedVerdict): string {
  if (verdict.is !== 'open') return sayVerdict(`“${raw}”`, verdict);
  return was.is === 'aside' ? `Take “${raw}” back from aside` : `No longer keep “${raw}” open`;
}

/** Everything that must stay open: the people's own list, and how many terms are protected since they converted. */
export async function viewKept(deps: Deps, slug: string): Promise<KeptView> {
  const account = await requireAccount(deps, slug);
  const kept = await listProtectedTerms(deps.db, account.id);
  const earned = await loadConvertingTerms(deps.db, account.id, account.keeperConversions);
  return { kept, earned: earned.length, keeperConversions: account.keeperConversions };
}
