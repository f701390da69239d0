import {
  compileLeftOpen,
  daysBeforeForce,
  daysBetween,
  findConflicts as findInShape,
  findProtectedHits,
  findRouting,
  matchTexts,
  placeKey,
  PRIORITIES,
  type AccountShape,
  type Conflict,
  type ConflictsQuestion,
  type NegativeText,
  type Place,
  type Window,
} from '@/core';
import { derivedLater } from '../../compute/derived';
import { progressOf } from '../../compute/progress';
import type { LiveKeyword, Snapshot } from '../../compute/snapshot';
import { conversionsAt, figuresAt, keyAt, kindAt } from '../../compute/window-columns';
import { findTerm } from '../../compute/workbench';
import { shapeOf, type Campaign, type Negative } from '../../repositories/structure/structure';
import { sumBefore, type BeforeDays, type BeforeSums } from '../../repositories/sums-before';
import { Refusal, type Deps } from '../deps';
import type { Open } from '../open-workbench';

/** A conflict of the account as the platform has it (rules 4), with what it cost. */
export type FoundConflict = {
  /** the same for the same conflict, whatever the ids of its rows */
  key: string;
  negative: Negative;
  severity: Conflict['severity'] | 'protected';
  /** null where it hits protected terms alone */
  keyword: LiveKeyword | null;
  /** protected terms that it stops */
  protectedTexts: string[];
  /** the keyword for which the negative keeps its queries (rules 4.1) */
  seat: LiveKeyword | null;
  /** what it stops of the keyword's terms, or of the protected ones, in the days before it came into force; null: not known */
  lost: Omit<BeforeSums, 'group'> | null;
};

/** What of an account's data is asked: all of it, and by how many days a negative is judged. */
export type Judged = {
  all: Snapshot;
  shape: AccountShape;
  /** null where that is not known */
  daysBefore: (negativeId: string, adGroupId: string) => Window | null;
};

const NOTHING_LOST = {
  ...{ terms: 0, clicks: 0, costMicros: 0, valueMicros: 0 },
  ...{ returningTerms: 0, conversions: 0, wastedMicros: 0 },
};

/** All days of the account, and the days by which its negatives are judged: as many as the window has. */
export async function judge(deps: Deps, open: Open): Promise<Judged> {
  const { snapshot, account } = open;
  const { dataDays, window } = snapshot;
  const all = dataDays ? await deps.snapshots.get(deps.db, account, 0, dataDays) : snapshot;
  const shape = shapeOf(snapshot.mirror);
  const days = daysBetween(window.from, window.to) + 1;
  const daysBefore = dataDays ? daysBeforeForce(shape, { days, firstDay: dataDays.from }) : () => null;
  return { all, shape, daysBefore };
}

/** @example conflictKey({ text: 'free', match: 'broad', place: { kind: 'account', id: null } }, '7') // 'account · broad free → 7' */
export const conflictKey = (negative: NegativeText & { place: Place }, against: string) =>
  `${placeKey(negative.place)} · ${negative.match} ${negative.text} → ${against}`;

const ofKeywords = derivedLater<Snapshot, FoundConflict[]>();
/** by the protected terms of people, which are read anew whenever one of them is another */
const ofProtected = derivedLater<Open['protectedOwn'], FoundConflict[]>();

/** The conflicts of an account, found once for a window: with live keywords first, then with protected terms. */
export async function findConflicts(deps: Deps, open: Open): Promise<FoundConflict[]> {
  const { snapshot, protectedOwn } = open;
  const keywords = await ofKeywords(snapshot, async () => withKeywords(deps, open, await judge(deps, open)));
  const hits = await ofProtected(protectedOwn, async () =>
    withProtected(deps, open, await judge(deps, open), keywords),
  );
  // Twins are one conflict: platforms take them away together.
  return [...new Map([...keywords, ...hits].map((one) => [one.key, one])).values()];
}

/** @throws Refusal when there is no such conflict any more */
export async function requireConflict(deps: Deps, open: Open, key: string): Promise<FoundConflict> {
  const conflict = (await findConflicts(deps, open)).find((one) => one.key === key);
  if (!conflict) throw new Refusal('This conflict is not there any more. Look again.', 404);
  return conflict;
}

async function withKeywords(deps: Deps, open: Open, judged: Judged): Promise<FoundConflict[]> {
  const { all, shape, daysBefore } = judged;
  const { snapshot, account } = open;
  const keywords = snapshot.liveKeywords.map(({ id, text, match, adGroup }) => ({
    ...{ id, text, match, adGroupId: adGroup.id },
    turn: turnOf(snapshot.campaign.get(adGroup.campaignId)),
  }));
  const found = findInShape({
    account: shape,
    keywords,
    served: servedIn(all),
    onProgress: progressOf('conflicts'),
  });
  const seats = findRouting(found, shape, keywords);
  const wanted = new Set(found.map(({ keywordId }) => Number(keywordId)));
  const rowsOf = rowsByKeyword(all, wanted);
  const termsOf = termsByNegative(all);
  const days = found.map(({ negativeId, keywordId }) =>
    daysBefore(negativeId, snapshot.liveKeyword.get(keywordId)!.adGroup.id),
  );
  const asked = found.flatMap(({ negativeId, keywordId }, at): BeforeDays[] => {
    const window = days[at];
    if (!window) return [];
    const stopped = termsOf(snapshot.negative.get(negativeId)!);
    const rows = rowsOf.get(Number(keywordId))?.filter((r) => stopped.has(all.rows.termOf[r]!)) ?? [];
    return rows.map((r) => ({ ...rowAt(all, r), group: at, ...window }));
  });
  const lost = byGroup(await sumBefore(deps.db, account.id, asked));
  const inWindow = costlyIn(snapshot, wanted);
  return found.flatMap(({ keywordId, negativeId, severity }, at): FoundConflict[] => {
    const keyword = snapshot.liveKeyword.get(keywordId)!;
    const negative = snapshot.negative.get(negativeId)!;
    const sums = days[at] ? (lost.get(at) ?? NOTHING_LOST) : null;
    if (severity === 'costly' && !(sums ? sums.conversions > 0 : inWindow(negative, keywordId))) return [];
    const seat = seats[at] === null ? null : (snapshot.liveKeyword.get(seats[at]!) ?? null);
    return [
      {
        ...{ key: conflictKey(negative, keywordId), negative, severity, keyword, seat },
        ...{ protectedTexts: [], lost: sums },
      },
    ];
  });
}

/** How early a campaign is asked, 1 first; null where it has no priority. */
function turnOf(campaign: Campaign | undefined): number | null {
  const priority = campaign?.priority ?? null;
  return priority === null ? null : PRIORITIES.indexOf(priority) + 1;
}

/** Negatives that stop protected terms; what a costly conflict tells of a negative is not told again. */
async function withProtected(
  deps: Deps,
  open: Open,
  { all, shape, daysBefore }: Judged,
  told: readonly FoundConflict[],
): Promise<FoundConflict[]> {
  const { snapshot, account, protectedOwn } = open;
  const own = protectedOwn.map(({ text }) => text);
  const texts = [...new Set([...own, ...snapshot.converting])];
  const isOwn = new Set(own);
  const isTold = new Set(told.filter(({ severity }) => severity === 'costly').map((c) => c.negative.id));
  const keywordOf = compileLeftOpen(
    shape,
    snapshot.liveKeywords.map(({ id, text, match, adGroup }) => ({ id, text, match, adGroupId: adGroup.id })),
  );
  /** Of the terms that a negative hits those that no keyword of their own keeps open; where all are, the keyword of the first. */
  const leftOpen = ({ negative, texts: of }: { negative: Negative; texts: string[] }) => {
    const hurt = of.filter((text) => keywordOf(negative, text) === null);
    if (hurt.length > 0) return { negative, texts: hurt, seat: null };
    return { negative, texts: of, seat: snapshot.liveKeyword.get(keywordOf(negative, of[0]!)!) ?? null };
  };
  const hits = findProtectedHits(shape, texts)
    .map(({ negativeId, texts: of }) => ({
      negative: snapshot.negative.get(negativeId)!,
      texts: of.map((i) => texts[i]!).filter((text) => isOwn.has(text) || !isTold.has(negativeId)),
    }))
    .filter((hit) => hit.texts.length > 0)
    .map((hit) => leftOpen(hit));
  const isKnown: boolean[] = [];
  const asked = hits.flatMap(({ negative, texts: of }, at): BeforeDays[] =>
    of.flatMap((text) => {
      const t = findTerm(all, text);
      if (t === undefined) return [];
      return rowsWhere(all, negative.place, t).flatMap((r) => {
        const row = rowAt(all, r);
        const window = daysBefore(negative.id, String(row.adGroupId));
        if (!window) return [];
        isKnown[at] = true;
        return [{ ...row, group: at, ...window }];
      });
    }),
  );
  const lost = byGroup(await sumBefore(deps.db, account.id, asked));
  return hits.map(({ negative, texts: of, seat }, at) => ({
    ...{ key: conflictKey(negative, 'protected'), negative, severity: 'protected', keyword: null, seat },
    ...{ protectedTexts: of, lost: isKnown[at] ? (lost.get(at) ?? NOTHING_LOST) : null },
  }));
}

/** Rows of a term within a place. */
export function rowsWhere({ served, gate }: Snapshot, place: Place, t: number): number[] {
  const rows: number[] = [];
  for (let r = served.rowStarts[t]!; r < served.rowStarts[t + 1]!; r++)
    if (gate.isWithin(place, served.adGroups[served.adGroupOf[r]!]!)) rows.push(r);
  return rows;
}

export const rowAt = ({ terms, rows }: Snapshot, r: number) => ({
  termId: terms.ids[rows.termOf[r]!]!,
  adGroupId: rows.adGroupId[r]!,
  keywordId: rows.keywordId[r]!,
});

/** What was served and is met by a negative anywhere, as the core asks for it. */
function servedIn({
  terms,
  rows,
  served: { rowStarts },
  accountGate,
}: Snapshot): ConflictsQuestion['served'] {
  const served: ConflictsQuestion['served'][number][] = [];
  for (let t = 0; t < terms.count; t++) {
    if (kindAt(terms, t) !== 'query') continue;
    const text = keyAt(terms, t);
    if (accountGate.matching(text).length === 0) continue;
    for (let r = rowStarts[t]!; r < rowStarts[t + 1]!; r++)
      served.push({ text, keywordId: String(rows.keywordId[r]), ...figuresAt(rows, r) });
  }
  return served;
}

/** Rows of some keywords, by their ids. */
function rowsByKeyword(
  { rows }: Snapshot,
  wanted: ReadonlySet<number>,
  isWanted: (row: number) => boolean = () => true,
): Map<number, number[]> {
  const byKeyword = new Map<number, number[]>();
  for (let r = 0; r < rows.count; r++) {
    const id = rows.keywordId[r]!;
    if (!wanted.has(id) || !isWanted(r)) continue;
    const of = byKeyword.get(id);
    if (of) of.push(r);
    else byKeyword.set(id, [r]);
  }
  return byKeyword;
}

/** Indexes of the terms that a negative stops; asked once for each text and match type. */
function termsByNegative({ served }: Snapshot): (negative: NegativeText) => ReadonlySet<number> {
  const known = new Map<string, ReadonlySet<number>>();
  return ({ text, match }) => {
    const key = `${match} ${text}`;
    let terms = known.get(key);
    if (!terms) known.set(key, (terms = new Set(matchTexts(served.table, { text, match }))));
    return terms;
  };
}

/** Whether a negative stops a term of the window that a keyword served and that converted. */
function costlyIn(
  snapshot: Snapshot,
  wanted: ReadonlySet<number>,
): (negative: NegativeText, keywordId: string) => boolean {
  const { rows } = snapshot;
  const termsOf = termsByNegative(snapshot);
  const converting = rowsByKeyword(snapshot, wanted, (r) => conversionsAt(rows, r) > 0);
  return (negative, keywordId) =>
    converting.get(Number(keywordId))?.some((r) => termsOf(negative).has(rows.termOf[r]!)) ?? false;
}

export function byGroup(sums: readonly BeforeSums[]): Map<number, Omit<BeforeSums, 'group'>> {
  return new Map(sums.map(({ group: at, ...sum }) => [at, sum]));
}
