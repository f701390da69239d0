import { counted } from '@/core';
import type { WantedVerdict } from '@/contracts/decisions';
import { sayVerdict } from '@/contracts/say-verdict';
import type { Db } from '../../db/connection';
import { deleteProtectedTerms, insertProtectedTerms } from '../../repositories/decisions/protected-terms';
import { putAside, takeFromAside } from '../../repositories/decisions/set-aside';
import { loadVerdictsOf, type StoredVerdicts } from '../../repositories/decisions/verdicts';
import { appendLedger } from '../../repositories/ledger';

type Given = {
  verdict: WantedVerdict;
  personId: number;
  /** the newest day with data: clicks after it count for what is set aside */
  afterDay: string;
  why?: string;
};

/**
 * Keeps terms open, sets them aside, or takes either back, with one ledger entry. Within a transaction that holds the account's
 * lock and raises the version of its decisions.
 * @returns keys of the terms whose verdict changed
 */
export async function giveVerdicts(
  trx: Db,
  accountId: number,
  terms: readonly { key: string; raw: string }[],
  { verdict, personId, afterDay, why }: Given,
): Promise<{ said: string; changed: string[] }> {
  const keys = terms.map(({ key }) => key);
  const stored = await loadVerdictsOf(trx, accountId, keys);
  const aside = verdict.is === 'aside' ? [] : await takeFromAside(trx, accountId, keys);
  const kept = verdict.is === 'kept' ? [] : await deleteProtectedTerms(trx, accountId, keys);
  let changed = [...aside, ...kept];
  if (verdict.is === 'kept')
    changed = await insertProtectedTerms(trx, accountId, terms, { note: verdict.note, personId });
  if (verdict.is === 'aside') {
    await putAside(trx, accountId, terms, { moreClicks: verdict.moreClicks, afterDay, personId });
    changed = keys;
  }
  const said = sayVerdict(counted(changed.length, 'term'), verdict, 'each has');
  await appendLedger(trx, accountId, {
    ...{ actor: { person: personId }, about: 'keep', what: said, why: why ?? null },
    ...{ before: { keptBefore: kept, asideBefore: aside }, after: { verdict, terms: changed } },
    undo: { do: 'set verdicts', keys: changed, left: verdict.is, ...only(stored, changed) },
  });
  return { said, changed };
}

/** The verdicts before, of the terms that an entry changes. */
function only({ kept, aside }: StoredVerdicts, keys: readonly string[]): StoredVerdicts {
  const changed = new Set(keys);
  const isChanged = ({ key }: { key: string }) => changed.has(key);
  return { kept: kept.filter(isChanged), aside: aside.filter(isChanged) };
}
