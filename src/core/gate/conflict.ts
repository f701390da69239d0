import { compileGate } from './compiled/compile-gate';
import type { MatchType, NegativeText } from './negative';
import { stops } from './stops';

/** What a negative in force does to a live keyword of the same ad group (rules 4), worst first. */
export type Severity = 'shut out' | 'narrowed' | 'costly' | 'none';

/**
 * What the texts alone say: whether the keyword's own text is stopped, and whether anything else can reach it.
 * @example textSeverity({ text: 'hive', match: 'exact' }, { text: 'hive', match: 'broad' }) // 'shut out'
 */
export function textSeverity(
  keyword: NegativeText,
  negative: NegativeText,
): 'shut out' | 'narrowed' | 'none' {
  return stops(negative, keyword.text) ? severityOfStopped(keyword.match, negative.match) : 'none';
}

/** The same where it is known that the keyword's text is stopped. @example severityOfStopped('phrase', 'exact') // 'narrowed' */
export function severityOfStopped(keyword: MatchType, negative: MatchType): 'shut out' | 'narrowed' {
  if (keyword === 'exact') return 'shut out';
  return keyword === 'phrase' && negative !== 'exact' ? 'shut out' : 'narrowed';
}

/**
 * Classifies one keyword against one negative in force in its ad group (rules 4).
 * @param terms the search terms that the keyword served in the look-back window
 * @returns the severity, and the indexes of the terms that the negative stops
 * @example classifyConflict({ keyword: { text: 'hive', match: 'broad' }, negative: { text: 'free', match: 'broad' }, terms: [{ text: 'free hive', conversions: 1 }] }) // { severity: 'costly', stoppedTerms: [0] }
 */
export function classifyConflict(input: {
  keyword: NegativeText;
  negative: NegativeText;
  terms: readonly { text: string; conversions: number | null }[];
}): { severity: Severity; stoppedTerms: number[] } {
  const { keyword, negative, terms } = input;
  const gate = compileGate([negative]);
  const stoppedTerms = terms.flatMap((term, index) => (gate.isStopped(term.text) ? [index] : []));
  const severity = textSeverity(keyword, negative);
  if (severity !== 'none') return { severity, stoppedTerms };
  const costly = stoppedTerms.some((index) => (terms[index]!.conversions ?? 0) > 0);
  return { severity: costly ? 'costly' : 'none', stoppedTerms };
}
