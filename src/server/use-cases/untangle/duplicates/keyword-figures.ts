import { addFigures, daysBetween, noFigures, ratios, type Figures, type Window } from '@/core';
import type { Days } from '@/contracts/days';
import { accountCvr } from '../../../compute/account-cvr';
import { derivedFrom, derivedLater } from '../../../compute/derived';
import type { Snapshot } from '../../../compute/snapshot';
import { addRow } from '../../../compute/window-columns';
import { sumKeywordDays, type KeywordFigures } from '../../../repositories/keyword-days';
import type { Deps } from '../../deps';
import { openWorkbench, requireAccount, type Open } from '../../open-workbench';

/** The part of the window that keyword reports have to reach over. */
const LEAST_REACH = 0.5;

/** An account, and what keyword reports tell of the days that are looked at; null where they reach over too few. */
export type Looking = Open & {
  report: { figures: ReadonlyMap<string, KeywordFigures>; days: Window } | null;
};

const lookingOf = derivedLater<Open, Looking>();
const reportOf = derivedLater<Snapshot, Looking['report']>();

/** Opens an account with the figures by which its keywords are compared (rules 5.7). */
export async function openKeywords(deps: Deps, slug: string, days?: Days): Promise<Looking> {
  return withReport(deps, await openWorkbench(deps, await requireAccount(deps, slug), days));
}

/** The same of an account that is open already. */
export function withReport(deps: Deps, open: Open): Promise<Looking> {
  return lookingOf(open, async () => ({
    ...open,
    report: await reportOf(open.snapshot, async () => {
      const { window } = open.snapshot;
      const { figures, days } = await sumKeywordDays(deps.db, open.account.id, window);
      const isEnough = days !== null && daysOfBoth(days, window) >= LEAST_REACH * daysOfBoth(window, window);
      return isEnough ? { figures, days } : null;
    }),
  }));
}

/** How many days are in both. */
function daysOfBoth(a: Window, b: Window): number {
  const [from, to] = [a.from > b.from ? a.from : b.from, a.to < b.to ? a.to : b.to];
  return from > to ? 0 : daysBetween(from, to) + 1;
}

/** What each keyword brought in the window, by its id. */
export const figuresOf = derivedFrom(
  ({ report, account, snapshot }: Looking): ReadonlyMap<string, Figures> => {
    if (!report) return sumsOfTerms(snapshot);
    const { conversionKinds: kinds } = account;
    return new Map(
      [...report.figures].map(([id, told]) => {
        const { impressions, clicks, costMicros, valueMicros } = told;
        const counted = kinds.reduce((sum, kind) => sum + (told.otherConversions[kind] ?? 0), 0);
        const conversions = kinds.length > 0 ? counted : told.conversions;
        return [id, { impressions, clicks, costMicros, valueMicros, conversions }];
      }),
    );
  },
);

/** Conversions a click, of all keywords together; null without a click. */
export const cvrOf = derivedFrom((looking: Looking): number | null => {
  if (!looking.report) return accountCvr(looking.snapshot);
  const all = noFigures();
  for (const figures of figuresOf(looking).values()) addFigures(all, figures);
  return all.clicks === null || all.clicks === 0 ? null : (ratios(all).cvr ?? 0);
});

const sumsOfTerms = derivedFrom(({ rows }: Snapshot): ReadonlyMap<string, Figures> => {
  const sums = new Map<number, Figures>();
  for (let r = 0; r < rows.count; r++) {
    const id = rows.keywordId[r]!;
    let sum = sums.get(id);
    if (!sum) sums.set(id, (sum = noFigures()));
    addRow(sum, rows, r);
  }
  return new Map([...sums].map(([id, sum]) => [String(id), sum]));
});
