import { group } from 'd3-array';
import { addFigures, noFigures, type Figures } from '../figures';
import {
  compileAccountGate,
  severityOfStopped,
  type AccountShape,
  type NegativeText,
  type Severity,
} from '../gate';

export type ConflictsQuestion = {
  account: AccountShape;
  /** effectively live ones, unless others are wanted */
  keywords: readonly (NegativeText & { id: string; adGroupId: string })[];
  /** what was served in the look-back window; a keyword's id, or null for automatic targeting */
  served: readonly ({ text: string; keywordId: string | null } & Partial<Figures>)[];
};

/** A live keyword and a negative in force in its ad group that work against each other (rules 4). */
export type Conflict = {
  keywordId: string;
  negativeId: string;
  severity: Exclude<Severity, 'none'>;
  /** of the keyword's terms in the window that the negative stops: how many, and their sums */
  terms: number;
  lost: Figures;
};

/**
 * All conflicts of an account, the worst first, then the costliest. Each keyword asks one gate about its own text and
 * about its terms; nothing is compared pair by pair.
 * @example findConflicts({ account, keywords: [{ id: 'k1', adGroupId: 'g1', text: 'free hive', match: 'exact' }], served: [] })[0]?.severity // 'shut out'
 */
export function findConflicts({ account, keywords, served }: ConflictsQuestion): Conflict[] {
  const gate = compileAccountGate(account);
  const matchOf = new Map(account.negatives.map(({ id, match }) => [id, match]));
  const termsOf = new Map(group(served, (term) => term.keywordId)); // a plain one, asked for every keyword
  const conflicts: Record<Conflict['severity'], Conflict[]> = { 'shut out': [], narrowed: [], costly: [] };
  for (const keyword of keywords) {
    const terms = termsOf.get(keyword.id);
    const lost = terms && lostTo(terms, (text) => gate.stoppers(text, keyword.adGroupId));
    for (const id of gate.stoppers(keyword.text, keyword.adGroupId)) {
      const severity = severityOfStopped(keyword.match, matchOf.get(id)!);
      const of = lost?.get(id);
      lost?.delete(id);
      conflicts[severity].push(conflictOf(keyword.id, id, severity, of));
    }
    // A term that is stopped and never converted hurts nothing by itself.
    for (const [id, of] of lost ?? [])
      if (of.converts) conflicts.costly.push(conflictOf(keyword.id, id, 'costly', of));
  }
  const costliest = (a: Conflict, b: Conflict) => (b.lost.costMicros ?? 0) - (a.lost.costMicros ?? 0);
  return Object.values(conflicts).flatMap((alike) => alike.sort(costliest));
}

type Lost = { terms: number; sums: Figures; converts: boolean };

/** What of a keyword's terms each negative stops, by its id. */
function lostTo(
  terms: ConflictsQuestion['served'],
  stoppersOf: (text: string) => readonly string[],
): Map<string, Lost> {
  const lost = new Map<string, Lost>();
  for (const term of terms) {
    for (const id of stoppersOf(term.text)) {
      let of = lost.get(id);
      if (!of) lost.set(id, (of = { terms: 0, sums: noFigures(), converts: false }));
      of.terms += 1;
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
): Conflict {
  return { keywordId, negativeId, severity, terms: lost?.terms ?? 0, lost: lost?.sums ?? noFigures() };
}
