import { parseTarget, type NewAccountRequest } from '@/contracts/account';
import {
  insertAccount,
  insertPeople,
  listAccounts,
  listPeople,
  type NewAccount,
} from '../../repositories/account/accounts';
import { setMember } from '../../repositories/account/members';
import { appendLedger } from '../../repositories/ledger';
import { Refusal, type Deps } from '../deps';

/** Words that addresses use in the place of an account's short name. */
const RESERVED = ['api', 'accounts', 'people', 'sign-in', 'sign-out', 'you'];

/**
 * Adds an account that is filled from files, with its first person where one is named. Who adds it owns it; nobody else
 * has a role in it yet.
 * @param personId who adds it; null where nobody is known yet, and the request names its first person
 * @returns its short name, which stands in addresses
 * @throws Refusal when an account has this name, or the target can not be read
 */
export async function addAccount(
  deps: Deps,
  request: NewAccountRequest,
  personId: number | null = null,
): Promise<{ slug: string }> {
  const { name, currency, steersBy } = request;
  const target = parseTarget(request.target, request);
  if ('fault' in target) throw new Refusal(target.fault);
  return deps.db.transaction(async (trx) => {
    const known = await listAccounts(trx);
    if (known.some((account) => account.name.toLowerCase() === name.toLowerCase()))
      throw new Refusal(`There is an account named ${name} already. Choose another name.`, 409);
    if (request.person) await insertPeople(trx, [request.person]);
    const people = await listPeople(trx);
    const adds = people.find((p) => p.id === personId || p.name === request.person) ?? people[0];
    if (!adds)
      throw new Refusal('Your name stands beside what you decide. Give it, and add the account again.');
    const slug = shortName(
      name,
      known.map((account) => account.slug),
    );
    const account: NewAccount = {
      ...{ slug, name, currency, steersBy, platformAccountId: null, productCodePattern: null },
      ...{ targetMicros: null, targetAcos: null, ...target },
    };
    const accountId = await insertAccount(trx, account);
    await setMember(trx, accountId, adds.id, 'own');
    await appendLedger(trx, accountId, {
      ...{ actor: { person: adds.id }, about: 'setting', what: `Add the account ${name}` },
      undo: { do: 'retire account', isRetired: true },
    });
    return { slug };
  });
}

/** Latin letters and digits of a name, and a number where another account has them. */
export function shortName(name: string, taken: readonly string[]): string {
  const plain = name
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  const base = plain || 'account';
  const used = new Set([...taken, ...RESERVED]);
  let slug = base;
  for (let n = 2; used.has(slug); n++) slug = `${base}-${n}`;
  return slug;
}
