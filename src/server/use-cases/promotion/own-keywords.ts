import {
  bidThatPays,
  breakEvenCvr,
  describeChange,
  noFigures,
  probabilityMissesTarget,
  ratios,
  shiftDay,
  smallestUnitOf,
  type Figures,
} from '@/core';
import type { OwnKeywordLine, OwnKeywordsQuery, OwnKeywordsView } from '@/contracts/promotion';
import { groundOf } from '../../compute/evidence/evidence';
import { worthOfAdGroups } from '../../compute/evidence/row-targets';
import { derivedLater } from '../../compute/derived';
import type { LiveKeyword, Snapshot } from '../../compute/snapshot';
import { addRow } from '../../compute/window-columns';
import { sumBefore, type BeforeDays } from '../../repositories/sums-before';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { intoPiles, openPiles, type FoundKnot } from '../untangle/knots/piles';

type Sums = { clicks: number; costMicros: number; conversions: number; valueMicros: number };

/** An exact keyword with what it brought, and how sure it is that it misses its target. */
type Judged = {
  keyword: LiveKeyword;
  /** over all days that are kept, less the lag */
  ever: Figures;
  /** since its bid, status or match type was changed last; null where nobody says when */
  since: Sums | null;
  worthMicros: number;
  misses: number;
  paysMicros: number | null;
};

/** Live exact keywords that miss their target, as surely as is asked; the costliest first. */
export async function viewOwnKeywords(
  deps: Deps,
  slug: string,
  { sure, pile }: OwnKeywordsQuery,
): Promise<OwnKeywordsView> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug));
  const missing = (await judgeKeywords(deps, open)).filter(({ misses }) => misses >= sure / 100);
  const leftAs = await openPiles(deps, open, 'keyword');
  const leftOf = ({ keyword, ever }: Judged) => leftAs({ key: keyword.id, state: String(ever.clicks ?? 0) });
  const piles = intoPiles(missing, leftOf);
  return {
    counts: { open: piles.open.length, left: piles.left.length },
    costMicros: piles[pile].reduce((sum, { ever }) => sum + (ever.costMicros ?? 0), 0),
    lines: piles[pile].slice(0, MOST_LINES).map((one) => lineOf(open, one, leftOf(one))),
  };
}

/** More than that nobody reads; the rest is counted. */
const MOST_LINES = 2_000;

/** Exact keywords by their ids, so that they can be left as they are. */
export async function keywordsNamed(deps: Deps, open: Open, keys: readonly string[]): Promise<FoundKnot[]> {
  const wanted = new Set(keys);
  return (await judgeKeywords(deps, open))
    .filter(({ keyword }) => wanted.has(keyword.id))
    .map(({ keyword, ever }) => ({
      ...{ key: keyword.id, state: String(ever.clicks ?? 0) },
      says: `exact keyword “${keyword.text}” in ${keyword.adGroup.name}, which misses its target`,
      ...{ costMicros: ever.costMicros ?? 0, conversions: ever.conversions ?? 0 },
    }));
}

const judged = derivedLater<Snapshot, Judged[]>();
const judgeKeywords = (deps: Deps, open: Open) => judged(open.snapshot, () => judgeAll(deps, open));

async function judgeAll(deps: Deps, { snapshot, account }: Open): Promise<Judged[]> {
  const { dataDays } = snapshot;
  const { prior, meanValueMicros } = groundOf(snapshot);
  if (dataDays === null || prior === null) return [];
  const days = { from: dataDays.from, to: shiftDay(dataDays.to, -account.lagDays) };
  if (days.to < days.from) return [];
  const all = await deps.snapshots.get(deps.db, account, 0, days);
  const ever = new Map<number, { sum: Figures; rows: number[] }>();
  const exact = new Map(
    snapshot.liveKeywords.flatMap((one) => (one.match === 'exact' ? [[Number(one.id), one] as const] : [])),
  );
  for (let r = 0; r < all.rows.count; r++) {
    const id = all.rows.keywordId[r]!;
    if (!exact.has(id)) continue;
    let of = ever.get(id);
    if (!of) ever.set(id, (of = { sum: noFigures(), rows: [] }));
    addRow(of.sum, all.rows, r);
    of.rows.push(r);
  }
  const since = await sumsSinceChange(deps, account.id, all, exact, ever);
  const worth = worthOfAdGroups(all, account, meanValueMicros);
  return [...ever]
    .flatMap(([id, { sum, rows }]): Judged[] => {
      const worthMicros = worth[all.served.adGroupOf[rows[0]!]!]!;
      const [clicks, conversions] = [sum.clicks ?? 0, sum.conversions ?? 0];
      const target = { by: 'CPA', micros: worthMicros } as const;
      const rate = Number.isNaN(worthMicros) ? null : breakEvenCvr(ratios(sum).cpcMicros, target);
      if (rate === null || clicks === 0) return [];
      const known = { ...prior, clicks, conversions };
      return [
        {
          ...{ keyword: exact.get(id)!, ever: sum, since: since.get(id) ?? null, worthMicros },
          misses: probabilityMissesTarget({ ...known, breakEvenCvr: rate }),
          paysMicros: bidThatPays(known, target, smallestUnitOf(account.currency)),
        },
      ];
    })
    .sort((a, b) => (b.ever.costMicros ?? 0) - (a.ever.costMicros ?? 0));
}

/** What each keyword brought from the day of its last change on; of those of which the day is known. */
async function sumsSinceChange(
  deps: Deps,
  accountId: number,
  { rows, terms, window }: Snapshot,
  exact: ReadonlyMap<number, LiveKeyword>,
  ever: ReadonlyMap<number, { rows: readonly number[] }>,
): Promise<ReadonlyMap<number, Sums>> {
  const asked = [...ever].flatMap(([id, of]): BeforeDays[] => {
    const from = exact.get(id)!.changedOn;
    if (from === null || from > window.to) return [];
    return of.rows.map((r) => ({
      ...{ group: id, termId: terms.ids[rows.termOf[r]!]!, adGroupId: rows.adGroupId[r]!, keywordId: id },
      ...{ from, to: window.to },
    }));
  });
  const sums = new Map(asked.map(({ group }) => [group, { ...NOTHING }]));
  for (const { group, clicks, costMicros, conversions, valueMicros } of await sumBefore(
    deps.db,
    accountId,
    asked,
  ))
    sums.set(group, { clicks, costMicros, conversions, valueMicros });
  return sums;
}

const NOTHING: Sums = { clicks: 0, costMicros: 0, conversions: 0, valueMicros: 0 };

function lineOf(open: Open, one: Judged, left: OwnKeywordLine['left']): OwnKeywordLine {
  const { keyword, ever, since, worthMicros, misses, paysMicros } = one;
  const { snapshot, drafted, names, account } = open;
  const change = drafted.find(({ change: c }) => 'keywordId' in c && c.keywordId === keyword.id);
  const { meanValueMicros } = groundOf(snapshot);
  return {
    ...{ id: keyword.id, text: keyword.text, adGroup: keyword.adGroup.name },
    campaign: snapshot.campaign.get(keyword.adGroup.campaignId)?.name ?? '',
    ...{ bidMicros: keyword.bidMicros, changedOn: keyword.changedOn, since, misses, paysMicros, left },
    ever: {
      ...{ clicks: ever.clicks ?? 0, costMicros: ever.costMicros ?? 0 },
      ...{ conversions: ever.conversions ?? 0, valueMicros: ever.valueMicros ?? 0 },
    },
    target: account.steersBy === 'CPA' ? worthMicros : worthMicros / (meanValueMicros ?? NaN),
    drafted: change ? describeChange(change.change, names) : null,
  };
}
