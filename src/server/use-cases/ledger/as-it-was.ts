import { randomUUID } from 'node:crypto';
import {
  changesBack,
  compareStanding,
  counted,
  describePlace,
  type ComparedStanding,
  type Names,
} from '@/core';
import type { DraftOutcome } from '@/contracts/tray';
import type { StandingLine, StandingQuery, StandingView } from '@/contracts/standing';
import {
  findFirstDay,
  loadStandingNow,
  loadStandingOn,
  type StandingRow,
} from '../../repositories/structure/standing';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';
import { draftChanges } from '../tray/draft-changes';
import { todayOf } from '../tray/end-dates';

/** Lines that are shown; a filter shows the others. */
const MOST_LINES = 2_000;
const SINCE_EVER = '0001-01-01';

type Compared = ComparedStanding<StandingRow>;

/**
 * The account as it was at the end of a day, beside how it is now: lists, negatives, exclusions and placements, and where
 * lists hung. What the tray holds is not looked at.
 * @throws Refusal when the day is not past
 */
export async function viewStanding(deps: Deps, slug: string, query: StandingQuery): Promise<StandingView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const { account } = open;
  const today = todayOf(deps, account);
  if (query.day >= today)
    throw new Refusal(`Choose a day before ${today}, the day in progress: from then on it is as it is now.`);
  const { compared, names } = await compare(deps, account.id, query.day, open.names);
  const wanted = query.find.trim().toLowerCase();
  const lines = compared
    .map((one) => toLine(one, names))
    .filter(
      ({ kind, what, where }) =>
        (!query.kind || kind === query.kind) && `${what} ${where}`.toLowerCase().includes(wanted),
    );
  const count = (is: StandingLine['is']) => lines.filter((line) => line.is === is).length;
  const shown = query.show === 'all' ? lines : lines.filter(({ is }) => is !== 'same');
  return {
    ...{ day: query.day, today, knownFrom: await findFirstDay(deps.db, account.id) },
    lines: shown.slice(0, MOST_LINES),
    ...{ gone: count('gone'), isNew: count('new'), renamed: count('renamed'), same: count('same') },
  };
}

async function compare(deps: Deps, accountId: number, day: string, known: Names) {
  const then = await loadStandingOn(deps.db, accountId, day);
  const compared = compareStanding(then, await loadStandingNow(deps.db, accountId));
  const lists = new Map(then.flatMap((one) => (one.kind === 'list' ? [[one.listId, one] as const] : [])));
  const names: Names = { ...known, list: (id) => lists.get(id)?.name ?? known.list(id) };
  return { compared, lists, names };
}

function toLine({ element, is, nameNow }: Compared, names: Names): StandingLine {
  const { id, kind, from, until } = element;
  const [what, where] = inWords(element, names);
  return {
    ...{ id, kind, is, where, until, from: from === SINCE_EVER ? null : from },
    what: is === 'renamed' ? `${what}, now ${nameNow}` : what,
  };
}

function inWords(element: StandingRow, names: Names): [what: string, where: string] {
  const listed = (id: string) => describePlace({ kind: 'list', id }, names);
  switch (element.kind) {
    case 'negative':
      return [`“${element.text}” (${element.match})`, describePlace(element.place, names)];
    case 'exclusion':
      return [element.code, describePlace(element.place, names)];
    case 'placement':
      return [element.address, listed(element.listId)];
    case 'list':
      return [`the list ${element.name}`, ''];
    case 'hanging': {
      const { campaignId: id } = element;
      const place = id === null ? ({ kind: 'account', id } as const) : ({ kind: 'campaign', id } as const);
      return [listed(element.listId), `on ${describePlace(place, names)}`];
    }
  }
}

/**
 * Puts in the tray what makes some elements stand again as they did at the end of a day: what is gone is put back, what
 * came since is taken away. A list that is gone is made anew where it is needed.
 * @returns what is to be said of it, what was put in, so that it can be taken out again, and how many wait for a reason
 * because they stop protected terms
 * @throws Refusal when none of them differs any more, or nothing could be put in the tray
 */
export async function putStandingBack(
  deps: Deps,
  slug: string,
  personId: number,
  { day, ids, forcedBecause }: { day: string; ids: readonly number[]; forcedBecause?: string | undefined },
): Promise<{ said: string; changeIds: number[]; heldBack: number }> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const { compared, lists } = await compare(deps, open.account.id, day, open.names);
  const wanted = new Set(ids);
  const chosen = compared.filter(({ element, is }) => wanted.has(element.id) && is !== 'same');
  if (chosen.length === 0)
    throw new Refusal('None of it differs any more from how it was, so there is nothing to put back.', 409);
  const gone = compared.flatMap(({ element, is }) =>
    is === 'gone' && element.kind === 'list' ? [lists.get(element.listId)!] : [],
  );
  const changes = changesBack(chosen, gone, randomUUID);
  const why = `as it was on ${day}`;
  const outcomes = await draftChanges(
    deps,
    slug,
    personId,
    changes.map((change) => ({ change, why, ...(forcedBecause !== undefined && { forcedBecause }) })),
  );
  const isPut = ({ outcome }: DraftOutcome) => outcome === 'drafted' || outcome === 'cancelled';
  const heldBack = outcomes.filter(({ outcome }) => outcome === 'held back').length;
  const put = outcomes.filter(isPut);
  const [other, ...others] = outcomes.filter((one) => !isPut(one));
  if (put.length === 0 && heldBack === 0)
    throw new Refusal(`Nothing was put in the tray: ${other!.said}`, 409);
  const more = other ? ` ${counted(1 + others.length, 'other')} not: ${other.said}` : '';
  return {
    said: `In the tray: what puts ${counted(put.length, 'part')} back as on ${day}.${more}`,
    changeIds: put.flatMap((one) => (one.outcome === 'drafted' ? [one.changeId] : [])),
    heldBack,
  };
}
