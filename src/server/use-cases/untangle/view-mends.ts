import {
  describeChange,
  effectOfDraft,
  listed,
  proposeMends,
  shiftDay,
  stops,
  type Change,
  type Mend,
  type NegativeText,
} from '@/core';
import type { Days } from '@/contracts/days';
import { MOST_NAMED, type MendLine, type MendsView } from '@/contracts/untangle';
import { conversionsAt, costAt, keyAt, kindAt } from '../../compute/window-columns';
import { few } from '../../compute/workbench';
import { sumBefore, type BeforeDays } from '../../repositories/sums-before';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { byGroup, judge, requireConflict, rowAt, type FoundConflict, type Judged } from './find-conflicts';

/** Of the terms that a negative stops, only the costliest are searched for longer phrases. */
const MOST_OTHERS = 5_000;

/**
 * The mends of one conflict (rules 4.2), each with what it would open: told by the days before the negative came into
 * force, since what is stopped is never reported.
 * @throws Refusal when the conflict is not there any more
 */
export async function viewMends(
  deps: Deps,
  slug: string,
  { key, days }: { key: string; days?: Days | undefined },
): Promise<MendsView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), days);
  const conflict = await requireConflict(deps, open, key);
  const judged = await judge(deps, open);
  const { dataDays } = open.snapshot;
  const whole = dataDays ? await openWorkbench(deps, open.account, dataDays) : open;
  const stopped = stoppedBy(whole, conflict);
  const passing = passingOf(whole, conflict, stopped);
  const isPassing = new Set(passing);
  const others = stopped.filter(({ text }) => !isPassing.has(text));
  const proposed = proposeMends({
    ...{ negative: conflict.negative, passing, others: others.slice(0, MOST_OTHERS) },
    open: mustStayOpen(open, conflict),
    keywordId: conflict.keyword?.id ?? null,
    campaignId: campaignToTakeDownFrom(open, conflict),
  });
  const lines = await weigh(deps, { open, whole, judged, conflict, passing }, proposed, stopped);
  return {
    ...{
      key,
      since: sinceOf(judged, conflict),
      hangsOn: hangsOn(open, conflict),
      passing: few(passing),
      stops: stopped.length,
    },
    mends: withProposed(lines),
  };
}

/** The day from which the negative is in force at the keyword; null where that is not known, or there is none. */
function sinceOf({ daysBefore }: Judged, { negative, keyword }: FoundConflict): string | null {
  const before = keyword && daysBefore(negative.id, keyword.adGroup.id);
  return before ? shiftDay(before.to, 1) : null;
}

function hangsOn({ draft }: Open, { negative: { place } }: FoundConflict): number | null {
  const hung = place.kind === 'list' ? draft.gate.hungOn(place.id!) : 'account';
  return hung === 'account' ? null : hung.length;
}

type Stopped = { text: string; costMicros: number; rows: number[] };

/** The terms of all days that a negative stops where it is in force, the costliest first. */
function stoppedBy({ snapshot, draft }: Open, { negative }: FoundConflict): Stopped[] {
  const { rows, terms } = snapshot;
  const byTerm = new Map<number, Stopped>();
  for (const r of draft.gate.reached(negative, negative.place)) {
    const t = rows.termOf[r]!;
    if (kindAt(terms, t) !== 'query') continue;
    let of = byTerm.get(t);
    if (!of) byTerm.set(t, (of = { text: keyAt(terms, t), costMicros: 0, rows: [] }));
    of.rows.push(r);
    of.costMicros += costAt(rows, r);
  }
  return [...byTerm.values()].sort((a, b) => b.costMicros - a.costMicros);
}

/** What has to pass: the keyword's text where it is stopped, the terms of the keyword that converted, protected terms. */
function passingOf(whole: Open, conflict: FoundConflict, stopped: readonly Stopped[]): string[] {
  const { negative, keyword, protectedTexts } = conflict;
  const { rows } = whole.snapshot;
  const own = keyword && stops(negative, keyword.text) ? [keyword.text] : [];
  const converting = stopped.filter(
    ({ rows: of }) =>
      keyword && of.some((r) => String(rows.keywordId[r]) === keyword.id && conversionsAt(rows, r) > 0),
  );
  return [...new Set([...own, ...protectedTexts, ...converting.map(({ text }) => text)])];
}

/** Texts that nothing in its place may stop: protected terms, and live keywords of where the negative is in force. */
function mustStayOpen({ snapshot, draft, protectedOwn }: Open, { negative }: FoundConflict): string[] {
  const keywords = snapshot.liveKeywords.filter(({ adGroup }) =>
    draft.gate.isWithin(negative.place, adGroup),
  );
  return [
    ...keywords.map(({ text }) => text),
    ...protectedOwn.map(({ text }) => text),
    ...snapshot.converting,
  ];
}

/** The keyword's campaign, where the list of the negative hangs on it by itself; null where it does not. */
function campaignToTakeDownFrom({ draft }: Open, { negative, keyword }: FoundConflict): string | null {
  const { place } = negative;
  if (place.kind !== 'list' || !keyword) return null;
  const { campaignId } = keyword.adGroup;
  return draft.gate.listsOn(campaignId).includes(place.id!) ? campaignId : null;
}

type Asked = {
  open: Open;
  whole: Open;
  judged: Judged;
  conflict: FoundConflict;
  passing: readonly string[];
};

async function weigh(
  deps: Deps,
  { open, whole, judged, conflict, passing }: Asked,
  mends: readonly Mend[],
  stopped: readonly Stopped[],
): Promise<MendLine[]> {
  const { snapshot, draft } = whole;
  const { negative } = conflict;
  const opened = mends.map(({ changes }) => effectOfDraft(draft.gate, changes).reopened);
  const asked = opened.flatMap((rows, group) =>
    rows.flatMap((r): BeforeDays[] => {
      const row = rowAt(snapshot, r);
      const window = judged.daysBefore(negative.id, String(row.adGroupId));
      return window ? [{ ...row, group, ...window }] : [];
    }),
  );
  const sums = byGroup(await sumBefore(deps.db, open.account.id, asked));
  return mends.map(({ how, changes }, at): MendLine => {
    const isOpen = new Set(opened[at]);
    const { terms, conversions, costMicros, wastedMicros } = sums.get(at) ?? NOTHING;
    const hasDays = asked.some(({ group }) => group === at);
    const isKnown = hasDays || (isOpen.size === 0 && (how === 'paused' || stopped.length > 0));
    const put = changes.flatMap((change): NegativeText[] => (change.kind === 'add negative' ? [change] : []));
    return {
      ...{ how, changes, said: sayMend(open, how, changes) },
      opens: isKnown ? { terms, conversions, costMicros, wastedMicros } : null,
      stillStops: stopped.filter(({ rows }) => !rows.some((r) => isOpen.has(r))).length,
      letsPass: how !== 'paused' && !passing.some((text) => put.some((one) => stops(one, text))),
      isProposed: false,
    };
  });
}

const NOTHING = { terms: 0, conversions: 0, costMicros: 0, wastedMicros: 0 };

/** Rules 4.2: of those that let everything pass, the one that opens least without return, then stops most. */
function withProposed(lines: readonly MendLine[]): MendLine[] {
  const [best] = lines
    .filter(({ letsPass }) => letsPass)
    .toSorted(
      (a, b) => (a.opens?.wastedMicros ?? 0) - (b.opens?.wastedMicros ?? 0) || b.stillStops - a.stillStops,
    );
  return lines.map((line) => ({ ...line, isProposed: line === best }));
}

function sayMend(open: Open, how: Mend['how'], changes: readonly Change[]): string {
  const put = changes.flatMap((change) => (change.kind === 'add negative' ? [change] : []));
  const named = listed(put.map(({ text, match }) => `“${text}” (${match})`));
  switch (how) {
    case 'longer':
    case 'narrower':
      return put.length > MOST_NAMED
        ? `Stop ${put.length} longer ones in its place`
        : `Stop ${named} in its place`;
    case 'taken down':
    case 'removed':
    case 'paused':
      return describeChange(changes[0]!, open.names);
  }
}
