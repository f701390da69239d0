import { countWhoSignIn } from '../../repositories/sign-in/events';
import { listPeople } from '../../repositories/account/accounts';
import type { Deps } from '../deps';

const LOOPBACK = ['127.0.0.1', 'localhost', '::1'];

/**
 * Whether people come in without signing in. Only what listens on this machine alone can be open: the demo, which says so
 * (GATEPOST_OPEN), and one person who works alone and has set no password.
 */
export async function isOpen(deps: Pick<Deps, 'db'>): Promise<boolean> {
  if (!isOnLoopback()) return false;
  return process.env.GATEPOST_OPEN === '1' || worksAlone(deps);
}

/** Whether it is open because one person works alone. */
export async function worksAlone(deps: Pick<Deps, 'db'>): Promise<boolean> {
  if (!isOnLoopback() || process.env.GATEPOST_OPEN === '1' || process.env.GATEPOST_NAME) return false;
  const [who, people] = await Promise.all([countWhoSignIn(deps.db), listPeople(deps.db)]);
  return who === 0 && people.length <= 1;
}

/** Whether anybody has set a password yet. */
export const doesAnybodySignIn = async ({ db }: Pick<Deps, 'db'>) => (await countWhoSignIn(db)) > 0;

const isOnLoopback = () => LOOPBACK.includes(process.env.GATEPOST_HOST ?? '127.0.0.1');
