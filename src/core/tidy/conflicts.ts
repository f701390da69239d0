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
  const negative = new Map(account.negatives.map((n) => [n.id, n]));
  const termsOf = group(served, (term) => term.keywordId);
  const conflicts: Record<Conflict['severity'], Conflict[]> = { 'shut out': [], narrowed: [], costly: [] };
  for (const keyword of keywords) {
    const stoppers = gate.stoppers(keyword.text, keyword.adGroupId);
    const terms = termsOf.get(keyword.id) ?? [];
    if (stoppers.length === 0 && terms.length === 0) continue;
    const found = new Map<
      string,
      { severity: Conflict['severity']; terms: number; lost: Figures; converts: boolean }
    >();
    const enter = (negativeId: string, severity: Conflict['severity']) => {
      let conflict = found.get(negativeId);
      if (!conflict) {
        conflict = { severity, terms: 0, lost: noFigures(), converts: false };
        found.set(negativeId, conflict);
      }
      return conflict;
    };
    for (const id of stoppers) enter(id, severityOfStopped(keyword.match, negative.get(id)!.match));
    for (const term of terms) {
      for (const id of gate.stoppers(term.text, keyword.adGroupId)) {
        const conflict = enter(id, 'costly');
        conflict.terms += 1;
        addFigures(conflict.lost, term);
        conflict.converts ||= (term.conversions ?? 0) > 0;
      }
    }
    for (const [negativeId, { severity, terms: stopped, lost, converts }] of found) {
      // A term that is stopped and never converted hurts nothing by itself.
      if (severity !== 'costly' || converts)
        conflicts[severity].push({ keywordId: keyword.id, negativeId, severity, terms: stopped, lost });
    }
  }
  const costliest = (a: Conflict, b: Conflict) => (b.lost.costMicros ?? 0) - (a.lost.costMicros ?? 0);
  return Object.values(conflicts).flatMap((alike) => alike.sort(costliest));
}
