import { group } from 'd3-array';
import { addFigures, noFigures, shiftDay, type Figures, type Window } from '../figures';
import {
  compileAccountGate,
  severityOfStopped,
  type AccountGate,
  type AccountShape,
  type NegativeText,
  type Severity,
} from '../gate';
import { tellProgress, type OnProgress } from '../progress';

export type ConflictsQuestion = {
  account: AccountShape;
  /** effectively live ones, unless others are wanted */
  keywords: readonly (NegativeText & { id: string; adGroupId: string })[];
  /**
   * What was served; a keyword's id, or null for automatic targeting. Rows of a day (YYYY-MM-DD) are needed where
   * `judged` is given; without it they are the sums of the look-back window.
   */
  served: readonly ({ text: string; keywordId: string | null; day?: string } & Partial<Figures>)[];
  /** judges each negative by so many days before it came into force, where data reaches back to them */
  judged?: { days: number; firstDay: string };
  /** in keywords */
  onProgress?: OnProgress;
};

/** A live keyword and a negative in force in its ad group that work against each other (rules 4). */
export type Conflict = {
  keywordId: string;
  negativeId: string;
  severity: Exclude<Severity, 'none'>;
  /** of the keyword's terms that the negative stops, in the days by which it is judged: how many, and their sums */
  terms: number;
  /** null: not known, since it was in force before the data begins */
  lost: Figures | null;
};

/**
 * All conflicts of an account, the worst first, then the costliest. What a negative costs can be told only by the days
 * before it was in force: where there is no data of them it is not known, and whether it is costly is told by all rows. Each keyword asks one gate about its own text and
 * about its terms; nothing is compared pair by pair.
 * @example findConflicts({ account, keywords: [{ id: 'k1', adGroupId: 'g1', text: 'free hive', match: 'exact' }], served: [] })[0]?.severity // 'shut out'
 */
export function findConflicts({
  account,
  keywords,
  served,
  judged,
  onProgress,
}: ConflictsQuestion): Conflict[] {
  const gate = compileAccountGate(account);
  const matchOf = new Map(account.negatives.map(({ id, match }) => [id, match]));
  const termsOf = new Map(group(served, (term) => term.keywordId)); // a plain one, asked for every keyword
  const daysOf = judged && daysBeforeForce(account, judged);
  const conflicts: Record<Conflict['severity'], Conflict[]> = { 'shut out': [], narrowed: [], costly: [] };
  let read = 0;
  for (const { id: keywordId, text, match, adGroupId } of keywords) {
    tellProgress(onProgress, read++, keywords.length);
    const stoppers = gate.stoppers(text, adGroupId);
    const terms = termsOf.get(keywordId);
    if (stoppers.length === 0 && !terms) continue;
    const lost = terms && lostTo(terms, adGroupId, gate, daysOf);
    for (const id of stoppers) {
      const severity = severityOfStopped(match, matchOf.get(id)!);
      const of = lost?.get(id);
      lost?.delete(id);
      const isKnown = !daysOf || daysOf(id, adGroupId) !== null;
      conflicts[severity].push(conflictOf(keywordId, id, severity, of, isKnown));
    }
    // A term that is stopped and never converted hurts nothing by itself.
    for (const [id, of] of lost ?? []) {
      if (!of.converts) continue;
      const isKnown = !daysOf || daysOf(id, adGroupId) !== null;
      conflicts.costly.push(conflictOf(keywordId, id, 'costly', of, isKnown));
    }
  }
  tellProgress(onProgress, read, keywords.length);
  const costliest = (a: Conflict, b: Conflict) => (b.lost?.costMicros ?? 0) - (a.lost?.costMicros ?? 0);
  return Object.values(conflicts).flatMap((alike) => alike.sort(costliest));
}

/** A row is a term; where rows are of days, several are. */
type Lost = { terms: number; texts: Set<string> | null; sums: Figures; converts: boolean };

/** What of a keyword's terms each negative stops, by its id. */
function lostTo(
  terms: ConflictsQuestion['served'],
  adGroupId: string,
  gate: AccountGate,
  daysOf?: (negativeId: string, adGroupId: string) => Window | null,
): Map<string, Lost> {
  const lost = new Map<string, Lost>();
  for (const term of terms) {
    for (const id of gate.stoppers(term.text, adGroupId)) {
      const days = daysOf?.(id, adGroupId);
      if (days && (term.day === undefined || term.day < days.from || term.day > days.to)) continue;
      let of = lost.get(id);
      if (!of)
        lost.set(
          id,
          (of = { terms: 0, texts: daysOf ? new Set() : null, sums: noFigures(), converts: false }),
        );
      of.terms += 1;
      of.texts?.add(term.text);
      addFigures(of.sums, term);
      of.converts ||= (term.conversions ?? 0) > 0;
    }
  }
  return lost;
}

function conflictOf(
  keywordId: string,
  negativeId: string,
  severity: Conflict['severity'],
  lost: Lost | undefined,
  isKnown: boolean,
): Conflict {
  const terms = lost?.texts?.size ?? lost?.terms ?? 0;
  return { keywordId, negativeId, severity, terms, lost: isKnown ? (lost?.sums ?? noFigures()) : null };
}

/**
 * The days before a negative came into force in an ad group: the later of the day on which it stood and, by a list, of
 * that on which the list hung there.
 * @returns what answers for a negative by its id and an ad group: null where that is not known, or lies before the second
 * day of data
 * @example daysBeforeForce(account, { days: 2, firstDay: '2025-12-01' })('n1', 'g1') // { from: '2025-12-30', to: '2025-12-31' }
 */
export function daysBeforeForce(
  { campaigns, lists, negatives }: AccountShape,
  { days, firstDay }: NonNullable<ConflictsQuestion['judged']>,
): (negativeId: string, adGroupId: string) => Window | null {
  const campaignOf = new Map(campaigns.flatMap((c) => c.adGroups.map((g) => [g.id, c.id] as const)));
  const listOf = new Map(lists.map((list) => [list.id, list]));
  const negativeOf = new Map(negatives.map((negative) => [negative.id, negative]));
  return (negativeId, adGroupId) => {
    const { place, createdAt = '' } = negativeOf.get(negativeId)!;
    let since = createdAt.slice(0, 10);
    if (since !== '' && place.kind === 'list') {
      const list = listOf.get(place.id ?? '');
      const at = list?.hungOn === 'account' ? 'account' : (campaignOf.get(adGroupId) ?? '');
      const hung = list?.since?.get(at) ?? '';
      since = hung === '' || hung > since ? hung : since;
    }
    if (since === '' || since <= firstDay) return null;
    return { from: shiftDay(since, -days), to: shiftDay(since, -1) };
  };
}
