import { compileGate } from './compile-gate';
import type { NegativeText } from './negative';
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
  if (!stops(negative, keyword.text)) return 'none';
  if (keyword.match === 'exact') return 'shut out';
  return keyword.match === 'phrase' && negative.match !== 'exact' ? 'shut out' : 'narrowed';
}

/**
 * Classifies one keyword against one negative in force in its ad group (rules 4).
 * @param terms the search terms that the keyword served in the look-back window
 * @returns the severity, and the indexes of the terms that the negative stops
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
