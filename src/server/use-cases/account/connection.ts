import type { PlatformAccountsAnswer } from '@/contracts/account';
import type { Db } from '../../db/connection';
import {
  findAccountOfPlatform,
  listAccounts,
  setPlatformState,
  type Account,
} from '../../repositories/account/accounts';
import { listSending } from '../../repositories/tray/change-sets';
import { dropFileElements, forgetPlatformIds } from '../../repositories/structure/apply-structure';
import { OutsideTrouble } from '../../outside';
import { Refusal, type Deps } from '../deps';
import { refreshMirror } from '../tray/read-back';

/** The accounts that the platform has, and which account here each is brought into. */
export async function listPlatformAccounts(deps: Deps): Promise<PlatformAccountsAnswer> {
  const known = await listAccounts(deps.db);
  const taken = new Map(known.flatMap((a) => (a.platformAccountId ? [[a.platformAccountId, a.name]] : [])));
  try {
    const accounts = await deps.platform.accounts();
    return {
      accounts: accounts.map(({ id, name, currency }) => ({
        ...{ id, name, currency },
        takenBy: taken.get(id) ?? null,
      })),
    };
  } catch (error) {
    throw asRefusal(error);
  }
}

/** @throws Refusal when an account can not be connected with this one of the platform */
export async function checkPlatformAccount(deps: Deps, account: Account, id: string): Promise<void> {
  const taker = await findAccountOfPlatform(deps.db, id);
  if (taker) throw new Refusal(`${taker.name} is connected with it already. Nothing was changed.`, 409);
  const { accounts } = await listPlatformAccounts(deps);
  const there = accounts.find((one) => one.id === id);
  if (!there) throw new Refusal(`The platform has no account ${id}. Nothing was changed.`, 404);
  if (there.currency !== account.currency) {
    throw new Refusal(
      `${there.name} counts in ${there.currency}, and ${account.name} in ${account.currency}. Nothing was changed.`,
      409,
    );
  }
}

/** Replaces what files said of the account by what the platform has. Elements of the same name are the same element. */
export async function takePlatform(deps: Deps, accountId: number): Promise<void> {
  try {
    await refreshMirror(deps, accountId);
  } catch (error) {
    if (!(error instanceof OutsideTrouble)) throw error;
    const message = `${error.message} The account is connected; fetch its report in Intake when the platform runs.`;
    throw new Refusal(message, 502);
  }
  await dropFileElements(deps.db, accountId);
}

/** What is read of the platform stays; from now on structure files change it. @throws Refusal while something is on its way */
export async function leavePlatform(trx: Db, { id, platformDay }: Account): Promise<void> {
  if ((await listSending(trx, id)).length > 0)
    throw new Refusal(
      'A tray is on its way to the platform. Wait until it is read back, then disconnect.',
      409,
    );
  if (platformDay !== null) await setPlatformState(trx, id, { revision: 0, today: null });
  await forgetPlatformIds(trx, id);
}

function asRefusal(error: unknown): unknown {
  return error instanceof OutsideTrouble
    ? new Refusal(`${error.message} Nothing was changed. Try again when it runs.`, 502)
    : error;
}
