import type { LeftKind, Left, Pile } from '@/contracts/knots';
import { listLeftKnots } from '../../../repositories/decisions/knots';
import type { Deps } from '../../deps';
import type { Open } from '../../open-workbench';
import { todayOf } from '../../tray/end-dates';

/** What is known of a knot, whatever it is: the same key for the same knot, and how it is. */
export type Knot = { key: string; state: string };

/** A knot with what it costs, and as the ledger names it. */
export type FoundKnot = Knot & { says: string; costMicros: number; conversions: number };

/** Whether a knot is as it was when it was left. */
const IS_AS_LEFT: Partial<Record<LeftKind, (left: string, now: string) => boolean>> = {
  /** in other days a term may have been served by fewer; one more is news */
  overlap: (left, now) => {
    const known = new Set(left.split(' '));
    return now.split(' ').every((one) => known.has(one));
  },
  /** conversions: one more is news */
  promotion: (left, now) => Number(now) <= Number(left),
  /** clicks: those that it has, and those at which it comes back */
  keyword: (left, now) => Number(now) < Number(left),
};
const isSame = (left: string, now: string) => left === now;

/** Who left the knots of a kind, and why; null for those that nobody left, that are otherwise now, or whose time is over. */
export async function openPiles(
  deps: Deps,
  { account }: Pick<Open, 'account'>,
  kind: LeftKind,
): Promise<(knot: Knot) => Left> {
  const today = todayOf(deps, account);
  const left = new Map((await listLeftKnots(deps.db, account.id, kind)).map((one) => [one.key, one]));
  const isAsLeft = IS_AS_LEFT[kind] ?? isSame;
  return ({ key, state }) => {
    const known = left.get(key);
    if (!known || !isAsLeft(known.state, state)) return null;
    const { why, until, by, at } = known;
    return until === null || until >= today ? { why, until, by, at } : null;
  };
}

/** Knots by pile. */
export function intoPiles<One>(knots: readonly One[], leftOf: (knot: One) => Left): Record<Pile, One[]> {
  const piles: Record<Pile, One[]> = { open: [], left: [] };
  for (const knot of knots) piles[leftOf(knot) ? 'left' : 'open'].push(knot);
  return piles;
}
