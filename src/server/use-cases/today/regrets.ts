import { group, sum } from 'd3';
import {
  describeChange,
  makeNeighbours,
  nameKeyword,
  rowsActedOn,
  shiftDay,
  daysBetween,
  type Change,
} from '@/core';
import type { Regret } from '@/contracts/today';
import { derivedFrom, derivedLater } from '../../compute/derived';
import { queryTexts } from '../../compute/history/history';
import { rowsOfTerm, type Snapshot } from '../../compute/snapshot';
import { conversionsAt, keyAt, kindAt } from '../../compute/window-columns';
import type { Account } from '../../repositories/account/accounts';
import { loadKeywordsShown, loadSumsSince, type SumSince } from '../../repositories/facts';
import type { Deps } from '../deps';
import type { ActingChange } from '../ledger/saved/acting';
import { reckonOf, type Saved } from '../ledger/saved/reckon';
import { namesInMirror } from '../names';
import { requireAccount } from '../open-workbench';

/** Regrets that are told of each kind, and terms of each. */
const MOST = 3;
const MOST_TERMS = 2;
/** Trays whose keywords are looked at, days before and after each, and from how many impressions on. */
const MOST_TRAYS = 4;
const MOST_DAYS = 14;
const SHOWN_FROM = 200;
/** A keyword fell when it has less than that of what it was to have. */
const FELL_TO = 0.5;

/** Signs that what was stopped shuts out what is wanted (rules 14), the gravest first of each kind. Cached until something is sent or loaded. */
export async function viewRegrets(deps: Deps, slug: string): Promise<{ regrets: Regret[] }> {
  const account = await requireAccount(deps, slug);
  const saved = await reckonOf(deps, account);
  if (!saved) return { regrets: [] };
  return { regrets: await regretsOf(saved, () => findRegrets(deps, account, saved)) };
}

const regretsOf = derivedLater<Saved, Regret[]>();

async function findRegrets(deps: Deps, account: Account, saved: Saved): Promise<Regret[]> {
  // What routes is to convert elsewhere: that is no regret.
  const standing = saved.changes.filter(
    ({ until, sent: { change } }) => until === Infinity && !('leavesTo' in change && change.leavesTo),
  );
  const names = namesInMirror(
    saved.snapshot.mirror,
    standing.map(({ sent }) => sent.change),
    account.currency,
    new Map(),
  );
  const about = ({ sent }: ActingChange) => ({
    ...{ changeId: sent.id, said: describeChange(sent.change, names), sentDay: sent.sentDay },
  });
  return [
    ...(await neighboursThatConvert(deps, account, saved, standing, about)),
    ...(await keywordsThatFell(deps, account, saved, standing, about)),
  ];
}

type About = (change: ActingChange) => { changeId: number; said: string; sentDay: string };

const neighboursIn = derivedFrom(({ history, liveKeywords }: Snapshot) =>
  makeNeighbours(
    queryTexts(history).filter((text) => text !== ''),
    liveKeywords.map(({ text }) => text),
  ),
);

const textOf = (change: Change) => (change.kind === 'add negative' ? change.text : undefined);

/** Rules 14.1 and 14.2: terms that began to convert since a negative acts, and are like what it stops, or match it. */
async function neighboursThatConvert(
  deps: Deps,
  account: Account,
  saved: Saved,
  standing: readonly ActingChange[],
  about: About,
): Promise<Regret[]> {
  const { snapshot, periods, newest } = saved;
  const isNeighbour = neighboursIn(snapshot);
  const converting = openTermsThatConvert(snapshot);
  const texts = converting.map((t) => keyAt(snapshot.terms, t));
  const found = standing.flatMap((change) => {
    const negative = textOf(change.sent.change);
    if (negative === undefined) return [];
    const near = converting.filter((_, i) => isNeighbour(negative, texts[i]!));
    return near.length > 0 ? [{ change, near }] : [];
  });
  const ids = [...new Set(found.flatMap(({ near }) => near.map((t) => snapshot.terms.ids[t]!)))];
  const sums = group(
    await loadSumsSince(deps.db, account.id, newest, ids, periods.starts),
    ({ termId }) => termId,
  );
  const regrets = found.flatMap(({ change, near }): Regret[] => {
    const start = periods.starts[change.from]!;
    const began = near.flatMap((t) => {
      const conversions = beganConverting(sums.get(snapshot.terms.ids[t]!) ?? [], start);
      return conversions > 0 ? [{ t, conversions }] : [];
    });
    if (began.length === 0) return [];
    const matching = new Set(matchedTerms(snapshot, change.sent.change));
    const matched = began.filter(({ t }) => matching.has(t));
    const told = about(change);
    if (matched.length > 0)
      return [
        {
          ...{ kind: 'stops more', ...told, was: change.sent.before?.terms ?? 0 },
          is: (change.sent.before?.terms ?? 0) + matched.length,
          conversions: sum(matched, ({ conversions }) => conversions),
        },
      ];
    const first = began.sort((a, b) => b.conversions - a.conversions).slice(0, MOST_TERMS);
    return [
      {
        ...{ kind: 'neighbours convert', ...told },
        conversions: sum(began, ({ conversions }) => conversions),
        terms: first.map(({ t }) => keyAt(snapshot.terms, t)),
      },
    ];
  });
  return regrets.sort((a, b) => conversionsOf(b) - conversionsOf(a)).slice(0, MOST);
}

const conversionsOf = (regret: Regret) => ('conversions' in regret ? regret.conversions : 0);

/** Conversions from a day on of a term that brought none before it; else 0. */
function beganConverting(sums: readonly SumSince[], start: string): number {
  const isBefore = ({ since }: SumSince) => since < start;
  const brought = (some: readonly SumSince[]) => sum(some, ({ conversions }) => conversions ?? 0);
  return brought(sums.filter(isBefore)) > 0 ? 0 : brought(sums.filter((one) => !isBefore(one)));
}

/** Queries that converted where nothing stops them. */
function openTermsThatConvert(snapshot: Snapshot): number[] {
  const terms: number[] = [];
  for (let t = 0; t < snapshot.terms.count; t++) {
    if (kindAt(snapshot.terms, t) !== 'query') continue;
    const isOpen = (r: number) => conversionsAt(snapshot.rows, r) > 0 && snapshot.gate.stopCount(r) === 0;
    if (rowsOfTerm(snapshot, t).some(isOpen)) terms.push(t);
  }
  return terms;
}

function matchedTerms(snapshot: Snapshot, change: Change): number[] {
  return change.kind === 'add negative'
    ? snapshot.gate.matched(change).map((r) => snapshot.rows.termOf[r]!)
    : [];
}

/** Rules 14.3: live keywords that lost impressions of terms that nothing stops, since a tray acts. */
async function keywordsThatFell(
  deps: Deps,
  account: Account,
  saved: Saved,
  standing: readonly ActingChange[],
  about: About,
): Promise<Regret[]> {
  const { snapshot, newest } = saved;
  const termsOf = (rows: readonly number[]) => rows.map((r) => snapshot.terms.ids[snapshot.rows.termOf[r]!]!);
  const rowsOf = new Map(standing.map((one) => [one, rowsActedOn(one.sent.change, snapshot.gate)]));
  const stopped = [...new Set([...rowsOf.values()].flatMap(termsOf))];
  const trays = [...group(standing, ({ sent }) => sent.setId).values()].slice(-MOST_TRAYS);
  const regrets: Extract<Regret, { kind: 'keyword fell' }>[] = [];
  for (const tray of trays) {
    const turn = shiftDay(tray[0]!.sent.sentDay, 1);
    const days = Math.min(MOST_DAYS, daysBetween(turn, newest) + 1);
    if (days < 3) continue; // too few to say anything
    const shown = await loadKeywordsShown(
      deps.db,
      account.id,
      { from: shiftDay(turn, -days), turn, to: shiftDay(turn, days - 1) },
      stopped,
    );
    const all = sum(shown, ({ since }) => since) / (sum(shown, ({ before }) => before) || 1);
    for (const { keywordId, before, since } of shown) {
      const keyword = snapshot.liveKeyword.get(String(keywordId));
      if (!keyword || before < SHOWN_FROM || since >= FELL_TO * before * Math.min(1, all)) continue;
      const by = tray.find((one) => rowsOf.get(one)!.some((r) => snapshot.rows.keywordId[r] === keywordId));
      if (!by) continue;
      regrets.push({
        ...{ kind: 'keyword fell', ...about(by), keyword: nameKeyword(keyword)! },
        ...{ adGroup: keyword.adGroup.name, before, since, days },
      });
    }
  }
  return regrets.sort((a, b) => b.before - b.since - (a.before - a.since)).slice(0, MOST);
}
