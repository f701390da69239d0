import { addFigures, noFigures, stops, type MatchType } from '@/core';
import type { HandsOverView } from '@/contracts/duplicates';
import { derivedFrom } from '../../../compute/derived';
import { draftGateOf } from '../../../compute/draft-gate';
import type { Snapshot } from '../../../compute/snapshot';
import { figuresAt, keyAt, kindAt } from '../../../compute/window-columns';
import { few } from '../../../compute/workbench';
import type { Open } from '../../open-workbench';

/** Rows of each keyword, by its id. */
const rowsByKeyword = derivedFrom(({ rows }: Snapshot): ReadonlyMap<number, number[]> => {
  const byKeyword = new Map<number, number[]>();
  for (let r = 0; r < rows.count; r++) {
    const id = rows.keywordId[r]!;
    const of = byKeyword.get(id);
    if (of) of.push(r);
    else byKeyword.set(id, [r]);
  }
  return byKeyword;
});

/**
 * What each of some keywords would take over from the others: their terms, less those that its match type does not reach
 * (phrase and exact taken literally, rules 4) and those that a negative stops where it stands.
 */
export function handOver(open: Open, ids: readonly string[]): HandsOverView {
  const { snapshot } = open;
  const { rows, terms } = snapshot;
  const byKeyword = rowsByKeyword(snapshot);
  const known = ids.flatMap((id) => snapshot.keyword.get(id) ?? []);
  return {
    keywords: known.map(({ id, text, match, adGroupId }) => {
      const [others, takesOver] = [newSum(), newSum()];
      const [stopped, outOfReach] = [new Set<string>(), new Set<string>()];
      for (const other of known) {
        if (other.id === id) continue;
        for (const r of byKeyword.get(Number(other.id)) ?? []) {
          const t = rows.termOf[r]!;
          if (kindAt(terms, t) !== 'query') continue;
          const query = keyAt(terms, t);
          add(others, t, snapshot, r);
          if (!reaches(match, text, query)) outOfReach.add(query);
          else if (draftGateOf(open).stoppers(query, adGroupId).length > 0) stopped.add(query);
          else add(takesOver, t, snapshot, r);
        }
      }
      return {
        ...{ id, others: sumOf(others), takesOver: sumOf(takesOver) },
        ...{ stopped: few([...stopped]), outOfReach: few([...outOfReach]) },
      };
    }),
  };
}

const reaches = (match: string, text: string, query: string) =>
  (match !== 'phrase' && match !== 'exact') || stops({ text, match: match as MatchType }, query);

type Sum = { terms: Set<number>; figures: ReturnType<typeof noFigures> };
const newSum = (): Sum => ({ terms: new Set(), figures: noFigures() });

function add({ terms, figures }: Sum, t: number, { rows }: Snapshot, r: number): void {
  terms.add(t);
  addFigures(figures, figuresAt(rows, r));
}

const sumOf = ({ terms, figures: { clicks, costMicros, conversions } }: Sum) => ({
  ...{ terms: terms.size, clicks: clicks ?? 0, costMicros: costMicros ?? 0 },
  conversions: conversions ?? 0,
});
