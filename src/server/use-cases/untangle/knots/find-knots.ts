import type { KnotKind, LeftKind } from '@/contracts/knots';
import { Refusal, type Deps } from '../../deps';
import type { Open } from '../../open-workbench';
import { keywordsNamed } from '../../promotion/own-keywords';
import { promotionsNamed } from '../../promotion/find-promotions';
import { groupsNamed, knotsOfDuplicates } from '../duplicates/knots-of-duplicates';
import { knotsOfOverlaps, overlapsNamed } from '../overlaps/view-overlaps';
import { conflictsNamed, knotsOfConflicts } from '../view-conflicts';
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

type FindNamed = (deps: Deps, open: Open, keys: readonly string[]) => FoundKnot[] | Promise<FoundKnot[]>;
/** Of these there are more than are asked for first. */
const FIND_NAMED: Partial<Record<KnotKind, FindNamed>> & Record<Exclude<LeftKind, KnotKind>, FindNamed> = {
  ...{ conflict: conflictsNamed, duplicate: groupsNamed, overlap: overlapsNamed },
  promotion: promotionsNamed,
  keyword: keywordsNamed,
};

/** The knots of a kind that have some keys, by whatever question they are found; those that are there no more are left out. */
export async function findNamed(
  deps: Deps,
  open: Open,
  kind: LeftKind,
  keys: readonly string[],
): Promise<FoundKnot[]> {
  const named = FIND_NAMED[kind];
  if (named) return named(deps, open, keys);
  const wanted = new Set(keys);
  return (await FIND[kind as KnotKind](deps, open)).filter(({ key }) => wanted.has(key));
}

/** @throws Refusal when there is no such knot any more */
export async function findKnot(
  deps: Deps,
  open: Open,
  { kind, key }: { kind: LeftKind; key: string },
): Promise<FoundKnot> {
  const [knot] = await findNamed(deps, open, kind, [key]);
  if (!knot) throw new Refusal('This is not there any more. Look again. Nothing was changed.', 404);
  return knot;
}
