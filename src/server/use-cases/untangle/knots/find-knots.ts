import type { KnotKind } from '@/contracts/knots';
import { Refusal, type Deps } from '../../deps';
import type { Open } from '../../open-workbench';
import { findGroup, knotsOfDuplicates } from '../duplicates/knots-of-duplicates';
import { findOverlap, knotsOfOverlaps } from '../overlaps/view-overlaps';
import { knotsOfConflicts } from '../view-conflicts';
import { knotsOfMisspelt } from '../view-misspelt';
import { knotsOfNeedless } from '../view-needless';
import type { FoundKnot } from './piles';

type Find = (deps: Deps, open: Open) => FoundKnot[] | Promise<FoundKnot[]>;

/** All knots of each kind, by the questions that are asked first. */
const FIND: Record<KnotKind, Find> = {
  ...{ conflict: knotsOfConflicts, needless: knotsOfNeedless, misspelt: knotsOfMisspelt },
  ...{ duplicate: knotsOfDuplicates, overlap: knotsOfOverlaps },
};

/** The knots of an account by kind. */
export async function findKnots(deps: Deps, open: Open): Promise<Record<KnotKind, FoundKnot[]>> {
  const found = await Promise.all(
    Object.entries(FIND).map(async ([kind, find]) => [kind, await find(deps, open)] as const),
  );
  return Object.fromEntries(found) as Record<KnotKind, FoundKnot[]>;
}

type FindOne = (
  deps: Deps,
  open: Open,
  key: string,
) => FoundKnot | undefined | Promise<FoundKnot | undefined>;
/** These are found by other questions as well. */
const FIND_ONE: Partial<Record<KnotKind, FindOne>> = { duplicate: findGroup, overlap: findOverlap };

/** @throws Refusal when there is no such knot any more */
export async function findKnot(
  deps: Deps,
  open: Open,
  { kind, key }: { kind: KnotKind; key: string },
): Promise<FoundKnot> {
  const knot = FIND_ONE[kind]
    ? await FIND_ONE[kind](deps, open, key)
    : (await FIND[kind](deps, open)).find((one) => one.key === key);
  if (!knot) throw new Refusal('This is not there any more. Look again. Nothing was changed.', 404);
  return knot;
}
