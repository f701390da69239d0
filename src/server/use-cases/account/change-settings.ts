import { formatAmount, productCodeTest, type Limits, counted } from '@/core';
import { parseTarget, type SettingsRequest } from '@/contracts/account';
import type { Db } from '../../db/connection';
import {
  listAccounts,
  lockAccount,
  raiseDataVersion,
  raiseFactsVersion,
  raiseDecisionVersion,
  setAccountRetired,
  updateAccount,
  type Account,
  type AccountFields,
} from '../../repositories/account/accounts';
import { appendLedger } from '../../repositories/ledger';
import { findDataDays } from '../../repositories/intake/reports';
import { sortTermsAnew } from '../../repositories/load/sort-terms-anew';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { checkPlatformAccount, leavePlatform, takePlatform } from './connection';

/**
 * Sets what a person wants set. Each field that changes is an entry of the ledger, which can be undone.
 * @returns what was said of each change, in words
 * @throws Refusal when one of them can not be set so; nothing was changed then
 */
export async function changeSettings(
  deps: Deps,
  slug: string,
  personId: number,
  request: SettingsRequest,
): Promise<{ said: string[] }> {
  const account = await requireAccount(deps, slug);
  return setFields(deps, slug, personId, fieldsOf(request, account));
}

function fieldsOf(request: SettingsRequest, account: Account): Partial<AccountFields> {
  const { target, ...fields } = request;
  const set: Partial<AccountFields> = fields;
  if (target !== undefined) {
    const steering = { currency: account.currency, steersBy: account.steersBy, ...request };
    const parsed = parseTarget(target, steering);
    if ('fault' in parsed) throw new Refusal(`${parsed.fault} Nothing was changed.`);
    Object.assign(set, parsed);
  }
  if (set.productCodePattern === '') set.productCodePattern = null;
  return set;
}

/** Sets fields by their stored names. @param undoes the entry of the ledger that is taken back by it */
export async function setFields(
  deps: Deps,
  slug: string,
  personId: number,
  fields: Partial<AccountFields>,
  undoes?: number,
): Promise<{ said: string[] }> {
  const before = await requireAccount(deps, slug);
  // Asked before the account is locked: the platform may take its time.
  const joins = fields.platformAccountId ?? null;
  if (joins !== null && joins !== before.platformAccountId) await checkPlatformAccount(deps, before, joins);
  const said = await deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, before.id);
    const changed = Object.entries(fields).filter(
      ([field, value]) => JSON.stringify(value) !== JSON.stringify(account[field as keyof AccountFields]),
    );
    if (changed.length === 0) return [];
    const next = { ...account, ...(Object.fromEntries(changed) as Partial<AccountFields>) };
    await refuseIfNot(trx, account, next);
    if (next.platformAccountId !== account.platformAccountId && account.platformAccountId !== null)
      await leavePlatform(trx, account);
    await updateAccount(trx, account.id, Object.fromEntries(changed));
    if (next.productCodePattern !== account.productCodePattern) {
      await sortTermsAnew(trx, account.id, productCodeTest(next.productCodePattern));
      await raiseFactsVersion(trx, account.id);
    }
    const lines: string[] = [];
    for (const [field] of changed) {
      const name = field as keyof AccountFields;
      const what = SAY[name](account, next);
      lines.push(what);
      await appendLedger(trx, account.id, {
        ...{ actor: { person: personId }, about: 'setting', what, undoes },
        ...{ before: account[name], after: next[name] },
        undo: { do: 'set', fields: { [name]: account[name] } },
      });
    }
    await raiseDataVersion(trx, account.id); // how many conversions protect a term is a part of what is kept of a window
    await raiseDecisionVersion(trx, account.id);
    return lines;
  });
  if (joins !== null && joins !== before.platformAccountId) await takePlatform(deps, before.id);
  return { said };
}

async function refuseIfNot(trx: Db, account: Account, next: Account): Promise<void> {
  if (next.currency !== account.currency && (await findDataDays(trx, account.id))) {
    throw new Refusal(
      `Figures in ${account.currency} are loaded, so the currency stays. Nothing was changed: take the loads back in Intake, or add another account in ${next.currency}.`,
      409,
    );
  }
  if (next.name === account.name) return;
  const same = (await listAccounts(trx)).find(
    (other) => other.id !== account.id && other.name.toLowerCase() === next.name.toLowerCase(),
  );
  if (same) throw new Refusal(`There is an account named ${same.name} already. Nothing was changed.`, 409);
}

type Say = (was: Account, is: Account) => string;

/** Each setting as the ledger tells its change. */
const SAY: Record<keyof AccountFields, Say> = {
  name: (was, is) => `Rename the account from ${was.name} to ${is.name}`,
  currency: (was, is) => `Count in ${is.currency} (before: ${was.currency})`,
  steersBy: (was, is) => `Steer by ${is.steersBy} (before: ${was.steersBy})`,
  targetMicros: (was, is) =>
    `Target CPA ${amount(is.targetMicros, is)} (before: ${amount(was.targetMicros, was)})`,
  targetAcos: (was, is) => `Target ACoS ${share(is.targetAcos)} (before: ${share(was.targetAcos)})`,
  defaultMatch: (was, is) => `New negatives are ${is.defaultMatch} at first (before: ${was.defaultMatch})`,
  keeperConversions: (was, is) => `Protect ${keeper(is)} (before: ${keeper(was)})`,
  productCodePattern: (was, is) => `Product codes are ${codes(is)} (before: ${codes(was)})`,
  brandWords: (was, is) => `Brand words: ${brands(is)} (before: ${brands(was)})`,
  conversionKinds: (was, is) => `Conversions of keywords: ${kinds(is)} (before: ${kinds(was)})`,
  windowDays: (was, is) => `Look back ${is.windowDays} days (before: ${was.windowDays})`,
  lagDays: (was, is) => `Leave out the newest ${is.lagDays} days (before: ${was.lagDays})`,
  promotionTolerance: (was, is) =>
    `Stop a promoted term at a source that misses by more than ${share(is.promotionTolerance)} (before: ${share(was.promotionTolerance)})`,
  fileDays: (was, is) =>
    `Keep files that were brought for ${counted(is.fileDays, 'day')} (before: ${was.fileDays})`,
  logDays: (was, is) =>
    `Keep the logs of sign-ins and of saved files for ${counted(is.logDays, 'day')} (before: ${was.logDays})`,
  limits: (was, is) => `Limits: ${sayLimits(was.limits, is.limits)}`,
  platformAccountId: (was, is) =>
    is.platformAccountId === null
      ? `Take the connection to ${was.platformAccountId} on the platform away`
      : `Connect to ${is.platformAccountId} on the platform`,
};

const amount = (micros: number | null, { currency }: Account) =>
  micros === null ? 'none' : `${formatAmount(micros, currency)} ${currency}`;
const share = (fraction: number | null) =>
  fraction === null ? 'none' : `${Number((fraction * 100).toFixed(2))} %`;
const keeper = ({ keeperConversions: from }: Account) =>
  from === null
    ? 'no term for what it brought'
    : `terms from ${from} ${from === 1 ? 'conversion' : 'conversions'} on`;
const brands = ({ brandWords }: Account) => (brandWords.length > 0 ? brandWords.join(', ') : 'none');
const kinds = ({ conversionKinds }: Account) =>
  conversionKinds.length > 0 ? conversionKinds.join(' + ') : 'as their report counts them';
const codes = ({ productCodePattern }: Account) => productCodePattern ?? 'not looked for';

const LIMIT_NAMES: Record<keyof Limits, string> = {
  accountNegatives: 'negatives on the account',
  listNegatives: 'negatives in a list',
  listPlacements: 'placements in a list',
  listsOnCampaign: 'lists on a campaign',
  wordsInNegative: 'words in a negative',
  charactersInNegative: 'characters in a negative',
};

function sayLimits(was: Limits, is: Limits): string {
  const names = Object.keys(LIMIT_NAMES) as (keyof Limits)[];
  return names
    .filter((name) => was[name] !== is[name])
    .map(
      (name) =>
        `${is[name].toLocaleString('en')} ${LIMIT_NAMES[name]} (before: ${was[name].toLocaleString('en')})`,
    )
    .join(', ');
}

/** Sets an account aside, out of the list in the top strip, or takes it back. */
export async function retireAccount(
  deps: Deps,
  slug: string,
  personId: number,
  isRetired: boolean,
  undoes?: number,
): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  await deps.db.transaction(async (trx) => {
    const account = await lockAccount(trx, id);
    if (account.isRetired === isRetired) return;
    await setAccountRetired(trx, id, isRetired);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'setting', undoes },
      what: isRetired ? `Retire the account ${account.name}` : `Take the account ${account.name} back`,
      undo: { do: 'retire account', isRetired: !isRetired },
    });
  });
}
