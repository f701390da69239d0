import { derivedOnward } from '../../compute/derived';
import { servingRows } from '../../compute/serving';
import type { Snapshot } from '../../compute/snapshot';
import { conversionsAt } from '../../compute/window-columns';
import { loadSpendOfRows, type DaySpend } from '../../repositories/facts';
import type { Deps } from '../deps';
import type { Open } from '../open-workbench';

type Spend = Omit<DaySpend, 'day'>;
export const NO_SPEND: Spend = { costMicros: 0, returnedMicros: 0 };

/** Rows that a draft stops, and what they cost on each day. */
type Stopped = { rows: readonly number[]; byDay: ReadonlyMap<string, Spend> };
/** What is found for a workbench, and what was found for the one that it grew from. */
type Finding = { found?: Promise<Stopped>; before?: Promise<Stopped> };

const findingOf = derivedOnward((_: Open, before?: Finding): Finding => ({
  before: before?.found ?? before?.before,
}));

/**
 * Spend by day of the rows that the draft stops, micro-units. Asked once for a workbench; where the draft only grew, the
 * database is asked for the rows that came or went.
 */
export async function stoppedByDay(deps: Deps, open: Open): Promise<ReadonlyMap<string, Spend>> {
  const finding = findingOf(open);
  const found = (finding.found ??= find(deps, open, finding.before));
  try {
    return (await found).byDay;
  } catch (error) {
    if (finding.found === found) finding.found = undefined;
    throw error;
  }
}

async function find(deps: Deps, open: Open, before?: Promise<Stopped>): Promise<Stopped> {
  const last: Stopped = (await before?.catch(() => undefined)) ?? { rows: [], byDay: new Map() };
  const rows = servingRows(open.snapshot, open.draft.stopped);
  const [is, was] = [new Set(rows), new Set(last.rows)];
  const came = await spendOf(
    deps,
    open,
    rows.filter((r) => !was.has(r)),
  );
  const went = await spendOf(
    deps,
    open,
    last.rows.filter((r) => !is.has(r)),
  );
  const byDay = new Map(last.byDay);
  const add = (spend: DaySpend, sign: 1 | -1) => {
    const { costMicros, returnedMicros } = byDay.get(spend.day) ?? NO_SPEND;
    byDay.set(spend.day, {
      costMicros: costMicros + sign * spend.costMicros,
      returnedMicros: returnedMicros + sign * spend.returnedMicros,
    });
  };
  for (const spend of came) add(spend, 1);
  for (const spend of went) add(spend, -1);
  return { rows, byDay };
}

function spendOf(deps: Deps, { account, snapshot }: Open, some: readonly number[]): Promise<DaySpend[]> {
  const { rows, terms, window } = snapshot;
  const chosen = some.map((r) => ({
    termId: terms.ids[rows.termOf[r]!]!,
    adGroupId: rows.adGroupId[r]!,
    keywordId: rows.keywordId[r]!,
    returned: hasConverted(snapshot, rows.termOf[r]!),
  }));
  return loadSpendOfRows(deps.db, account.id, window, chosen);
}

function hasConverted({ rows, served }: Snapshot, t: number): boolean {
  for (let r = served.rowStarts[t]!; r < served.rowStarts[t + 1]!; r++)
    if (conversionsAt(rows, r) > 0) return true;
  return false;
}
