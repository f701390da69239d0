import { descending } from 'd3';
import { daysBetween, describePlace } from '@/core';
import type { Days } from '@/contracts/days';
import type { Left } from '@/contracts/knots';
import type { ConflictLine, ConflictsShown, ConflictsView } from '@/contracts/untangle';
import type { LiveKeyword } from '../../compute/snapshot';
import { few } from '../../compute/workbench';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { findConflicts, type FoundConflict } from './find-conflicts';
import { unjudgedIn } from './unjudged';
import { openPiles, type FoundKnot } from './knots/piles';

/** More than that nobody reads; the rest is counted. */
const MOST_LINES = 2_000;

/**
 * The conflicts of an account (rules 4): those that are open, that are meant so (4.1), or that somebody left. What the
 * tray mends is counted, and left out.
 */
export async function viewConflicts(
  deps: Deps,
  slug: string,
  { shown, days }: { shown: ConflictsShown; days?: Days | undefined },
): Promise<ConflictsView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), days);
  const { found, standing, groups, leftOf } = await sortConflicts(deps, open);
  const known = groups.open.flatMap(({ lost }) => lost ?? []);
  return {
    days: daysBetween(open.snapshot.window.from, open.snapshot.window.to) + 1,
    counts: {
      ...{ open: groups.open.length, meant: groups.meant.length, left: groups.left.length },
      inTray: found.length - standing.length,
    },
    lost: {
      conversions: known.reduce((sum, { conversions }) => sum + conversions, 0),
      unknown: groups.open.length - known.length,
    },
    unjudged: few(unjudgedIn(open.snapshot)),
    lines: groups[shown]
      .toSorted(costliestFirst)
      .slice(0, MOST_LINES)
      .map((conflict) => lineOf(open, conflict, leftOf(conflict))),
  };
}

/** How many conflicts wait for somebody, by the account's own days. */
export async function countConflicts(deps: Deps, slug: string): Promise<number> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  return (await sortConflicts(deps, open)).groups.open.length;
}

/** Conflicts that are not meant so, with what they cost before. */
export async function knotsOfConflicts(deps: Deps, open: Open): Promise<FoundKnot[]> {
  return (await standingIn(deps, open)).filter(({ seat }) => !seat).map(knotOf);
}

/** Conflicts that have some keys, those that are meant so among them. */
export async function conflictsNamed(deps: Deps, open: Open, keys: readonly string[]): Promise<FoundKnot[]> {
  const wanted = new Set(keys);
  return (await standingIn(deps, open)).filter(({ key }) => wanted.has(key)).map(knotOf);
}

/** Conflicts that the tray does not mend. */
async function standingIn(deps: Deps, open: Open): Promise<FoundConflict[]> {
  return (await findConflicts(deps, open)).filter((conflict) => !isMended(open, conflict));
}

function knotOf(conflict: FoundConflict): FoundKnot {
  return {
    ...{ key: conflict.key, state: stateOf(conflict), says: sayConflict(conflict) },
    ...{ costMicros: conflict.lost?.costMicros ?? 0, conversions: conflict.lost?.conversions ?? 0 },
  };
}

function sayConflict({ negative, keyword, protectedTexts }: FoundConflict): string {
  const against = keyword ? `“${keyword.text}” (${keyword.match})` : `“${protectedTexts[0]}”`;
  return `“${negative.text}” (${negative.match}) against ${against}`;
}

/** Conflicts by whether the tray mends them, and the others by pile. */
async function sortConflicts(deps: Deps, open: Open) {
  const found = await findConflicts(deps, open);
  const standing = found.filter((conflict) => !isMended(open, conflict));
  const leftAs = await openPiles(deps, open, 'conflict');
  const leftOf = (conflict: FoundConflict) => leftAs({ key: conflict.key, state: stateOf(conflict) });
  const groups: Record<ConflictsShown, FoundConflict[]> = { open: [], meant: [], left: [] };
  for (const conflict of standing) {
    if (conflict.seat) groups.meant.push(conflict);
    else groups[leftOf(conflict) ? 'left' : 'open'].push(conflict);
  }
  return { found, standing, groups, leftOf };
}

/** What is known to cost before what is not; of equals the worse. */
function costliestFirst(a: FoundConflict, b: FoundConflict): number {
  return (
    descending(a.lost?.conversions ?? -1, b.lost?.conversions ?? -1) ||
    descending(a.lost?.valueMicros ?? -1, b.lost?.valueMicros ?? -1) ||
    descending(a.lost?.costMicros ?? -1, b.lost?.costMicros ?? -1) ||
    WORST_FIRST.indexOf(a.severity) - WORST_FIRST.indexOf(b.severity)
  );
}

const WORST_FIRST: FoundConflict['severity'][] = ['shut out', 'protected', 'narrowed', 'costly'];

/** Whether the tray, or what was sent, ends a conflict. */
function isMended({ draft, laid }: Open, { negative, keyword }: FoundConflict): boolean {
  if (!draft.gate.holds(negative, negative.place)) return true;
  if (!keyword) return false;
  if (!draft.gate.isWithin(negative.place, keyword.adGroup)) return true;
  const last = laid.findLast(
    (change) =>
      (change.kind === 'pause keyword' || change.kind === 'run keyword') && change.keywordId === keyword.id,
  );
  return last?.kind === 'pause keyword';
}

/** How a conflict is, by whatever days: it comes back to whoever left it when this is another. */
const stateOf = ({ severity, protectedTexts }: FoundConflict): string =>
  [severity, protectedTexts.length].join(' ');

function lineOf(open: Open, conflict: FoundConflict, left: Left): ConflictLine {
  const { key, negative, severity, keyword, seat, lost, protectedTexts } = conflict;
  const { text, match, place } = negative;
  return {
    ...{ key, severity },
    negative: { text, match, place, placeName: describePlace(place, open.names) },
    keyword: keyword && nameOf(open, keyword),
    seat: seat && nameOf(open, seat),
    protected: few(protectedTexts),
    lost: lost && {
      ...{ terms: lost.terms, clicks: lost.clicks, costMicros: lost.costMicros },
      ...{ conversions: lost.conversions, valueMicros: lost.valueMicros },
    },
    left,
  };
}

function nameOf({ snapshot }: Open, { id, text, match, adGroup }: LiveKeyword) {
  const campaign = snapshot.campaign.get(adGroup.campaignId)?.name ?? '';
  return { id, text, match, adGroup: adGroup.name, campaign };
}
