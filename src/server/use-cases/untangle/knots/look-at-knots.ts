import { sum } from 'd3';
import { KNOT_KINDS, type KnotKind, type KnotsLook } from '@/contracts/knots';
import {
  listKnotDays,
  lookAtKnots as noteLook,
  noteKnotDay,
  noteKnownKnots,
  type KnotSums,
} from '../../../repositories/decisions/knots';
import { requireAccountById } from '../../../repositories/account/accounts';
import { derivedFrom } from '../../../compute/derived';
import type { Deps } from '../../deps';
import { openWorkbench, requireAccount, type Open } from '../../open-workbench';
import { todayOf } from '../../tray/end-dates';
import { findKnots } from './find-knots';
import type { FoundKnot } from './piles';

/** Notes which knots an account has today, and what they cost: after each load, and when somebody looks. */
export async function noteKnots(deps: Deps, accountId: number): Promise<void> {
  const account = await requireAccountById(deps.db, accountId);
  const open = await openWorkbench(deps, account);
  const day = todayOf(deps, account);
  const last = notedOf(open);
  if (open.snapshot.dataDays === null || last.day === day) return;
  const found = await findKnots(deps, open);
  // What the tray mends is there all the same, until it was sent.
  const isSure = open.drafted.length + open.waiting.length === 0;
  const named = KNOT_KINDS.flatMap((kind) => found[kind].map(({ key }) => ({ kind, key })));
  const sums = Object.fromEntries(KNOT_KINDS.map((kind) => [kind, sumsOf(found[kind])])) as Record<
    KnotKind,
    KnotSums
  >;
  await deps.db.transaction(async (trx) => {
    await noteKnownKnots(trx, accountId, named, isSure);
    await noteKnotDay(trx, accountId, day, sums, isSure);
  });
  last.day = day;
}

/** The day on which the knots of an account as it is were noted: they are the same until it is otherwise. */
const notedOf = derivedFrom((_: Open): { day: string | null } => ({ day: null }));

const sumsOf = (knots: readonly FoundKnot[]): KnotSums => ({
  count: knots.length,
  costMicros: sum(knots, ({ costMicros }) => costMicros),
  conversions: sum(knots, ({ conversions }) => conversions),
});

/** Notes that a person looks at the knots, and tells which came since the look before, and how it went over time. */
export async function lookAtKnots(deps: Deps, slug: string, personId: number): Promise<KnotsLook> {
  const { id } = await requireAccount(deps, slug);
  await noteKnots(deps, id);
  const fresh = Object.fromEntries(KNOT_KINDS.map((kind) => [kind, [] as string[]])) as KnotsLook['fresh'];
  for (const { kind, key } of await noteLook(deps.db, id, personId)) fresh[kind].push(key);
  const days = new Map<string, KnotsLook['days'][number]>();
  for (const { day, kind, ...sums } of await listKnotDays(deps.db, id)) {
    let of = days.get(day);
    if (!of) days.set(day, (of = { day }));
    of[kind] = sums;
  }
  return { fresh, days: [...days.values()] };
}
