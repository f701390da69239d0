import { counted } from '@/core';
import type { Pack } from '@/contracts/packs';
import { readPack } from '../../packs/read-pack';
import { shippedPacks } from '../../packs/shipped-packs';
import { appendLedger } from '../../repositories/ledger';
import { raiseDecisionVersion } from '../../repositories/account/accounts';
import { deleteOwnPack, listOwnPacks, putOwnPack } from '../../repositories/research/packs';
import { Refusal, type Deps } from '../deps';
import { requireAccount } from '../open-workbench';

/** The starter packs that there are: those that people of the account added, then those that ship. */
export async function viewPacks(deps: Deps, slug: string) {
  const { id } = await requireAccount(deps, slug);
  const own = await listOwnPacks(deps.db, id);
  return {
    packs: [
      ...own.map((one) => summaryOf(`own:${one.id}`, one.pack, one.addedBy)),
      ...(await shippedPacks()).map((pack) => summaryOf(`shipped:${pack.name}`, pack, null)),
    ],
  };
}

function summaryOf(key: string, { name, about, entries }: Pack, addedBy: string | null) {
  const texts = entries.reduce((sum, { variants }) => sum + 1 + variants.length, 0);
  return { key, name, about, entries: entries.length, texts, addedBy };
}

/** @throws Refusal when there is no such pack */
export async function requirePack(deps: Pick<Deps, 'db'>, accountId: number, key: string): Promise<Pack> {
  const [where, name] = [key.slice(0, key.indexOf(':')), key.slice(key.indexOf(':') + 1)];
  const pack =
    where === 'own'
      ? (await listOwnPacks(deps.db, accountId)).find(({ id }) => id === Number(name))?.pack
      : (await shippedPacks()).find((one) => one.name === name);
  if (!pack) throw new Refusal('This pack is not there any more.', 404);
  return pack;
}

/**
 * Adds a pack from its file, for all who work on the account; one of its name is replaced.
 * @throws Refusal when the file is no pack, with line and reason; nothing was changed then
 */
export async function addPack(deps: Deps, slug: string, personId: number, text: string) {
  const { id } = await requireAccount(deps, slug);
  const read = readPack(text);
  if (!('pack' in read)) {
    const first = read.faults[0]!;
    const more = read.faults.length > 1 ? ` (and ${counted(read.faults.length - 1, 'more fault')})` : '';
    throw new Refusal(`Line ${first.line}: ${first.reason}${more}. Mend it there; nothing was added.`);
  }
  const { pack } = read;
  return deps.db.transaction(async (trx) => {
    const packId = await putOwnPack(trx, id, personId, pack);
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'research' },
      what: `Add the starter pack ${pack.name}, ${counted(pack.entries.length, 'entry', 'entries')}`,
    });
    await raiseDecisionVersion(trx, id);
    return { key: `own:${packId}`, name: pack.name };
  });
}

/** Takes a pack out that somebody added; what was gathered from it stays. @throws Refusal when it ships, or is gone */
export async function dropPack(deps: Deps, slug: string, personId: number, key: string): Promise<void> {
  const { id } = await requireAccount(deps, slug);
  if (!key.startsWith('own:')) throw new Refusal('This pack ships with Gate Post: it stays.');
  const pack = await requirePack(deps, id, key);
  await deps.db.transaction(async (trx) => {
    await deleteOwnPack(trx, id, Number(key.slice('own:'.length)));
    await appendLedger(trx, id, {
      ...{ actor: { person: personId }, about: 'research' },
      what: `Take the starter pack ${pack.name} out`,
    });
    await raiseDecisionVersion(trx, id);
  });
}

/** A pack as its file. @throws Refusal when there is none */
export async function packFile(deps: Deps, slug: string, key: string) {
  const { id } = await requireAccount(deps, slug);
  const pack = await requirePack(deps, id, key);
  return {
    name: `${pack.name}.json`,
    type: 'application/json; charset=utf-8',
    content: `${JSON.stringify(pack, null, 2)}\n`,
  };
}
