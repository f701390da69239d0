import {
  compareWithUndefinedLast,
  countRuns,
  matchingTexts,
  noFigures,
  normalise,
  ratios,
  spendWithoutReturn,
  type Figures,
  type Ngram,
  type NgramSize,
} from '@/core';
import type { SiftView, TermLine, TermsPage, TermsQuery, WordsQuery } from '@/contracts/sift';
import type { Account } from '../repositories/accounts';
import { weighEvidence } from './evidence';
import { addRow, costAt, keyAt, kindAt, termAt } from './window-columns';
import type { Workbench } from './workbench';

/** A term with the sums of those of its rows that belong to one view. */
type Line = Figures & { term: number; costliestRow: number; rows: number };
type Filters = Omit<WordsQuery, 'n'>;
type Target = Pick<Account, 'steersBy' | 'targetMicros' | 'targetAcos'>;

/** All lines of the view that pass the filters, and how many lines each view has with the same filters. */
export function findLines(bench: Workbench, filters: Filters, target: Target) {
  const candidates = termsThatPass(bench, filters);
  const byView: Record<SiftView, Line[]> = { remaining: [], stopped: [], kept: [], already: [] };
  const kept = new Set(bench.protectedOwn.map((p) => p.text));
  const { rows, terms, served } = bench.snapshot;
  for (const t of candidates) {
    if (kindAt(terms, t) === 'unreported') continue; // shown beside the total, it is no term
    const open: SiftView = kept.size > 0 && kept.has(keyAt(terms, t)) ? 'kept' : 'remaining';
    const lines: Partial<Record<SiftView, Line>> = {};
    for (let r = served.rowStarts[t]!; r < served.rowStarts[t + 1]!; r++) {
      if (filters.campaign !== '' && served.adGroups[served.adGroupOf[r]!]!.campaignId !== filters.campaign)
        continue;
      const view = viewOf(bench, r, open);
      const line = (lines[view] ??= { term: t, costliestRow: r, rows: 0, ...noFigures() });
      line.rows += 1;
      if (costAt(rows, r) > costAt(rows, line.costliestRow)) line.costliestRow = r;
      addRow(line, rows, r);
    }
    for (const [view, line] of Object.entries(lines) as [SiftView, Line][]) {
      if (passesFigures(line, filters, target)) byView[view].push(line);
    }
  }
  return byView;
}

/** Every row is in one view: stopped by the account, stopped by the draft, or open (and then kept or remaining). */
function viewOf({ standing, draft }: Workbench, row: number, open: SiftView): SiftView {
  if (draft.gate.stopCount(row) === 0) return open;
  return standing.stopCount(row) > 0 ? 'already' : 'stopped';
}

/** Terms by their text: a run of words through the posting lists, letters by looking. */
function termsThatPass({ snapshot }: Workbench, { holding, text }: Filters): Iterable<number> {
  const all =
    normalise(holding) === ''
      ? new Uint32Array(snapshot.terms.count).keys()
      : matchingTexts(snapshot.served.table, { text: holding, match: 'phrase' });
  const letters = text.trim().toLowerCase();
  if (letters === '') return all;
  return [...all].filter((t) => {
    const { raw, key } = termAt(snapshot.terms, t);
    return key.includes(letters) || raw.toLowerCase().includes(letters);
  });
}

function passesFigures(line: Figures, { clicks, returns }: Filters, target: Target): boolean {
  if ((line.clicks ?? 0) < clicks) return false;
  if (returns === 'none') return line.conversions === 0;
  if (returns === 'over') return line.conversions === 0 || isOverTarget(line, target);
  return true;
}

/** Rules 7.2: conversions without any value count as over an ACoS target. */
export function isOverTarget(figures: Figures, { steersBy, targetMicros, targetAcos }: Target): boolean {
  if ((figures.conversions ?? 0) <= 0) return false;
  const { cpaMicros, acos } = ratios(figures);
  if (steersBy === 'CPA') return targetMicros !== null && cpaMicros !== null && cpaMicros > targetMicros;
  return targetAcos !== null && (acos === null || acos > targetAcos);
}

/** Sorts lines in place; equals stand costliest first, then by text, so that pages never overlap. */
export function sortLines(
  { snapshot }: Workbench,
  lines: Line[],
  { sort, direction }: Pick<TermsQuery, 'sort' | 'direction'>,
  { steersBy }: Target,
): Line[] {
  const keys = new Map<Line, string>();
  const key = (line: Line) => {
    let text = keys.get(line);
    if (text === undefined) keys.set(line, (text = keyAt(snapshot.terms, line.term)));
    return text;
  };
  const byText = (a: Line, b: Line) => (key(a) < key(b) ? -1 : 1);
  if (sort === 'term') return lines.sort((a, b) => (direction === 'asc' ? byText(a, b) : byText(b, a)));
  const measure = (line: Line): number | null => {
    switch (sort) {
      case 'without':
        return spendWithoutReturn(line);
      case 'cost':
        return line.costMicros;
      case 'clicks':
        return line.clicks;
      case 'impressions':
        return line.impressions;
      case 'conversions':
        return line.conversions;
      case 'target':
        return steersBy === 'CPA' ? ratios(line).cpaMicros : ratios(line).acos;
    }
  };
  const measured = new Map(lines.map((line) => [line, measure(line)]));
  return lines.sort(
    (a, b) =>
      compareWithUndefinedLast(measured.get(a)!, measured.get(b)!, direction) ||
      (b.costMicros ?? 0) - (a.costMicros ?? 0) ||
      byText(a, b),
  );
}

/** A line as the screen shows it. */
export function toTermLine(bench: Workbench, line: Line, target: Target): TermLine {
  const { snapshot, protectedOwn } = bench;
  const term = termAt(snapshot.terms, line.term);
  const keyword = snapshot.keyword.get(String(snapshot.rows.keywordId[line.costliestRow]!));
  const { impressions, clicks, costMicros, conversions, valueMicros } = line;
  return {
    id: term.id,
    raw: term.raw,
    words: term.kind === 'query' ? term.key.split(' ') : [],
    kind: term.kind,
    servedBy: { keyword: keyword?.text || null, match: keyword?.match ?? 'unknown' },
    others: line.rows - 1,
    isProtected: snapshot.hasConverted.has(term.key) || protectedOwn.some((p) => p.text === term.key),
    evidence: weighEvidence(snapshot, target, line),
    ...{ impressions, clicks, costMicros, conversions, valueMicros },
  };
}

/** Runs of n words in the lines, the most spend without return first; product codes are left out (rules 7.5). */
export function findWords({ snapshot }: Workbench, lines: readonly Line[], n: NgramSize): Ngram[] {
  const queries = lines.filter(({ term }) => kindAt(snapshot.terms, term) === 'query');
  return countRuns(snapshot.served.table, queries, { from: n, to: n, by: 'withoutReturnMicros' });
}

/** Cost of the window, and how much of it the platform reports without a term. */
export function costOfWindow({ snapshot }: Workbench): Pick<TermsPage, 'costMicros' | 'unreportedMicros'> {
  let [costMicros, unreportedMicros] = [0, 0];
  const { rows, terms } = snapshot;
  for (let r = 0; r < rows.count; r++) {
    costMicros += costAt(rows, r);
    if (kindAt(terms, rows.termOf[r]!) === 'unreported') unreportedMicros += costAt(rows, r);
  }
  return { costMicros, unreportedMicros };
}
