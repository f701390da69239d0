import { analyseFacts } from '../../repositories/facts';
import { listUnpacked, packDay, packTerms } from '../../repositories/columns/pack';
import { lockAccount } from '../../repositories/account/accounts';
import type { Deps } from '../deps';

/**
 * What follows a change of the facts, when it stands: the planner is told, and what the change touched is packed, a piece
 * at a time, so that nobody waits long for the account. Where it is cut short, what is missing is read row by row until
 * the next load.
 */
export async function packFacts({ db }: Pick<Deps, 'db'>, accountId: number): Promise<void> {
  await analyseFacts(db, accountId);
  const { days, pieces } = await listUnpacked(db, accountId);
  const pack = (one: (trx: Parameters<typeof packDay>[0]) => Promise<void>) =>
    db.transaction(async (trx) => {
      await lockAccount(trx, accountId);
      await one(trx);
    });
  for (const day of days) await pack((trx) => packDay(trx, accountId, day));
  for (const piece of pieces) await pack((trx) => packTerms(trx, accountId, piece));
}
