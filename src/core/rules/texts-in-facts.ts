import { buildTermTable, matchTexts, type TermTable } from '../mining';
import type { TermFacts } from './trial';

/** Texts among facts by term: the facts of text t stand from `begin[t]` to before `end[t]`. */
export type Texts = {
  count: number;
  begin: Int32Array;
  end: Int32Array;
  table: TermTable;
  /** the texts that a phrase negative of an n-gram stops, ascending */
  holding(ngram: string): Uint32Array;
};

/** @param textOf what a term says; null for terms that are left out */
export function textsIn({ count, termId }: TermFacts, textOf: (termId: number) => string | null): Texts {
  const [said, begins, ends] = [[] as string[], [] as number[], [] as number[]];
  for (let begin = 0; begin < count;) {
    let end = begin + 1;
    while (end < count && termId[end] === termId[begin]) end++;
    const text = textOf(termId[begin]!);
    if (text !== null) {
      said.push(text);
      begins.push(begin);
      ends.push(end);
    }
    begin = end;
  }
  const table = buildTermTable(said);
  return {
    ...{ count: said.length, table, begin: Int32Array.from(begins), end: Int32Array.from(ends) },
    holding: (ngram) => matchTexts(table, { text: ngram, match: 'phrase' }),
  };
}
