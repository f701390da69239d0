import { agreeOnCurrency, type ReadDecisions, type Reading } from '@/core';
import type { ReadingAnswer } from '@/contracts/intake';
import { readReportFile } from '../../files/open-report';
import { requireAccountById, type Account } from '../../repositories/account/accounts';
import { listDaysThere } from '../../repositories/facts';
import { findRecipe, type Recipe } from '../../repositories/intake/recipes';
import { findLoadedByDigest, findReportFile, type ReportFile } from '../../repositories/intake/reports';
import {
  findWholeReading,
  noteWholeReading,
  startWholeReading,
} from '../../repositories/intake/whole-readings';
import type { Deps } from '../deps';
import { requireAccount } from '../open-workbench';
import { columnsKey, decisionsFor } from './recipes';
import { pathOf, requireBytes, toView } from './take-in';

/** A file up to this size is read as a whole while one waits; a larger one by a job. */
const SMALL = 6 * 1024 ** 2;
/** Rows of a large file for a first look. */
const FIRST_LOOK = 4_000;
const NOTE_EVERY = 20_000;
const SHOWN_REJECTED = 500;

/**
 * Reads a file without storing anything of it. Where nothing was decided yet and a recipe fits its columns, the recipe
 * decides. Of a large file the first rows are read at once; the whole is read by a job, and asked for again.
 */
export async function readUpload(
  deps: Deps,
  slug: string,
  id: number,
  wanted: ReadDecisions | null,
): Promise<ReadingAnswer> {
  const account = await requireAccount(deps, slug);
  const file = await requireBytes(deps, account, id);
  const isLarge = file.sizeBytes > SMALL;
  const look = (decisions: ReadDecisions) =>
    deps.reader.look(pathOf(deps, file), {
      ...{ ...decisions, currency: account.currency },
      ...(isLarge && { mostRows: FIRST_LOOK }),
    });

  let decisions = wanted ?? {};
  let reading = await look(decisions);
  let recipe: Recipe | undefined;
  if (wanted === null && reading.columns.length > 0) {
    const headers = reading.columns.map((column) => column.header);
    recipe = await findRecipe(deps.db, account.id, columnsKey(headers));
    if (recipe) {
      decisions = decisionsFor(recipe, headers);
      reading = await look(decisions);
    }
  }
  const whole = isLarge && reading.isPartial ? await readWhole(deps, account, file, decisions) : null;
  if (whole?.reading) reading = whole.reading;
  const before = await findLoadedByDigest(deps.db, account.id, file.digest);
  return {
    file: toView(file),
    reading: { ...reading, rejected: reading.rejected.slice(0, SHOWN_REJECTED) },
    decisions,
    recipe: recipe ? { id: recipe.id, name: recipe.name } : null,
    whole: whole && !whole.reading ? { rowsRead: whole.rowsRead } : null,
    loadedBefore: before ? { name: before.name, at: before.loadedAt! } : null,
    daysThere: await listDaysThere(deps.db, account.id),
    obstacle: obstacleTo(reading, account),
    currency: account.currency,
  };
}

/** Why a reading can not be loaded into an account, or null. */
export function obstacleTo(reading: Reading, account: Pick<Account, 'currency' | 'name'>): string | null {
  if (reading.error) return reading.error.message;
  const [question] = reading.questions;
  if (question) return question.text;
  if (reading.currency !== null && !agreeOnCurrency(reading.currency, account.currency)) {
    return `The file is in ${reading.currency}, and ${account.name} in ${account.currency}. Bring a report in ${account.currency}, or load it into another account.`;
  }
  const tooMuch = (['costMicros', 'valueMicros'] as const).find(
    (name) => (reading.sums[name] ?? 0) > Number.MAX_SAFE_INTEGER,
  );
  if (tooMuch) {
    const what = tooMuch === 'costMicros' ? 'costs' : 'values';
    return `The ${what} add up to more than ${Math.floor(Number.MAX_SAFE_INTEGER / 1e6).toLocaleString('en')}, which can not be counted exactly. See whether the decimal mark and the unit are read right, or bring the file in parts.`;
  }
  return reading.rows === 0 ? sayNoRows(reading) : null;
}

const WHAT_OF_KIND: Record<Reading['kind'], string> = {
  ...{ 'search terms': 'search term', keywords: 'keyword', 'keyword ideas': 'keyword idea' },
  structure: 'element',
};

/** Why a file gives no row; there is always a reason. */
function sayNoRows({ rejected, rejectedCount, kind }: Reading): string {
  const what = WHAT_OF_KIND[kind];
  if (rejectedCount === 0) return `No row can be read: under the header stands no ${what}.`;
  const times = new Map<string, number>();
  for (const { category } of rejected) times.set(category, (times.get(category) ?? 0) + 1);
  const [[most] = ['']] = [...times].filter(([name]) => name !== 'total row').sort((a, b) => b[1] - a[1]);
  const example = rejected.find(({ category }) => category === most);
  const rows =
    rejectedCount === 1 ? 'The only row was' : `All ${rejectedCount.toLocaleString('en')} rows were`;
  return `No row can be read. ${rows} refused, mostly for “${most}”: line ${example?.line}, ${example?.reason}. See what the columns are taken for.`;
}

/** The whole reading by these decisions, or how far the job has come with it. */
async function readWhole(deps: Deps, account: Account, file: ReportFile, decisions: ReadDecisions) {
  const known = await findWholeReading(deps.db, account.id, file.id);
  if (known && sameDecisions(known.decisions, decisions)) return known;
  await deps.db.transaction(async (trx) => {
    await startWholeReading(trx, account.id, file.id, decisions);
    await deps.enqueue(trx, { name: 'read-report', accountId: account.id, reportFileId: file.id });
  });
  return { rowsRead: 0, reading: null };
}

/**
 * The job that reads a whole file by the decisions asked for. It stops when other decisions are asked for meanwhile.
 */
export async function readWholeReport(deps: Deps, accountId: number, reportFileId: number): Promise<void> {
  const { currency } = await requireAccountById(deps.db, accountId);
  const file = await findReportFile(deps.db, accountId, reportFileId);
  const asked = await findWholeReading(deps.db, accountId, reportFileId);
  if (!file || !asked || asked.reading) return;
  const { decisions } = asked;
  const superseded = new Error('something else was asked for');
  let [rowsRead, noted] = [0, 0];
  const count = async (rows: readonly unknown[]) => {
    rowsRead += rows.length;
    if (rowsRead - noted < NOTE_EVERY) return;
    noted = rowsRead;
    if (!(await noteWholeReading(deps.db, accountId, reportFileId, decisions, { rowsRead })))
      throw superseded;
  };
  try {
    const reading = await readReportFile(pathOf(deps, file), {
      ...{ ...decisions, currency, onRows: count, onIdeas: count, onElements: count, onRejected: count },
    });
    const kept = { ...reading, rejected: reading.rejected.slice(0, SHOWN_REJECTED) };
    await noteWholeReading(deps.db, accountId, reportFileId, decisions, {
      rowsRead: reading.rows,
      reading: kept,
    });
  } catch (error) {
    if (error !== superseded) throw error;
    await deps.enqueue(deps.db, { name: 'read-report', accountId, reportFileId });
  }
}

/** Whether two persons' decisions are the same, in whatever order they were written. */
function sameDecisions(a: ReadDecisions, b: ReadDecisions): boolean {
  const plain = (value: unknown): unknown =>
    value !== null && typeof value === 'object'
      ? Object.entries(value)
          .filter(([, v]) => v !== undefined)
          .map(([key, v]) => [key, plain(v)])
          .sort()
      : value;
  return JSON.stringify(plain(a)) === JSON.stringify(plain(b));
}
