import type { Days } from '@/contracts/days';
import { describeChange, proposePullOuts, stops, type Change, type PullOut, listed } from '@/core';
import type { PullAnswer, PullWay } from '@/contracts/decisions';
import { costAt, keyAt, termAt } from '../../compute/window-columns';
import { weighRows } from '../../compute/workbench';
import { Refusal, type Deps } from '../deps';
import { openWorkbench, requireAccount, type Open } from '../open-workbench';
import { requireTerm } from './weigh-choice';

/** Of the terms that a change stops, only the costliest are searched for longer phrases. */
const MOST_OTHERS = 5_000;

/**
 * Ways to let one term through that a change of the tray stops: a narrower match type, longer phrases in its place, or
 * nothing, each with what it leaves unstopped.
 * @throws Refusal when the change is not in the tray any more, or does not stop the term
 */
export async function pullOut(
  deps: Deps,
  slug: string,
  query: { term: number; change: number; days?: Days },
): Promise<PullAnswer> {
  const open = await openWorkbench(deps, await requireAccount(deps, slug), query.days);
  const t = requireTerm(open, query.term);
  const stored = open.drafted.find((c) => c.id === query.change);
  if (!stored) throw new Refusal('This change is not in the tray any more. Look again.', 409);
  const { change } = stored;
  const term = termAt(open.snapshot.terms, t);
  const said = describeChange(change, open.names);
  if (change.kind === 'exclude product') {
    const ways: PullWay[] = [
      {
        ...{ how: 'none', said: 'Take the exclusion out', changes: [{ ...change, kind: 'readmit product' }] },
        left: weighLeft(open, []),
      },
    ];
    return { changeId: stored.id, said, ways };
  }
  if (change.kind !== 'add negative')
    throw new Refusal('This change stops the term by a list: take it out of the tray.');
  if (term.kind !== 'query' || !stops(change, term.key))
    throw new Refusal('This change does not stop the term. Look again.', 409);

  const others = otherTerms(open, change, t);
  const ways = proposePullOuts({
    negative: change,
    query: term.key,
    others: others.map(({ term: other, costMicros }) => ({
      text: keyAt(open.snapshot.terms, other),
      costMicros,
    })),
    open: [...open.protectedOwn.map((p) => p.text), ...open.snapshot.converting],
  });
  return {
    changeId: stored.id,
    said,
    ways: ways.map((way) => ({
      how: way.how,
      said: sayWay(way),
      changes: [
        { ...change, kind: 'remove negative' },
        ...way.negatives.map((n): Change => ({ kind: 'add negative', ...n, place: change.place })),
      ],
      left: weighLeft(
        open,
        way.left.flatMap((i) => others[i]!.rows),
      ),
    })),
  };
}

/** What the change alone stops, by term, costliest first. */
function otherTerms(open: Open, change: Extract<Change, { kind: 'add negative' }>, except: number) {
  const { snapshot, draft, standing } = open;
  const byTerm = new Map<number, number[]>();
  for (const r of draft.gate.reached(change, change.place)) {
    if (standing.stopCount(r) > 0 || draft.gate.stopCount(r) > 1) continue; // another stops it too
    const t = snapshot.rows.termOf[r]!;
    if (t !== except) byTerm.set(t, [...(byTerm.get(t) ?? []), r]);
  }
  return [...byTerm]
    .map(([term, rows]) => ({
      ...{ term, rows },
      costMicros: rows.reduce((sum, r) => sum + costAt(snapshot.rows, r), 0),
    }))
    .sort((a, b) => b.costMicros - a.costMicros)
    .slice(0, MOST_OTHERS);
}

function sayWay({ how, negatives }: PullOut): string {
  const named = listed(negatives.map(({ text, match }) => `“${text}” (${match})`));
  switch (how) {
    case 'narrower':
      return `Stop ${named} instead`;
    case 'longer':
      return `Stop ${named} instead`;
    case 'none':
      return 'Take it out, with nothing in its place';
  }
}

function weighLeft({ snapshot }: Open, rows: readonly number[]): PullWay['left'] {
  const terms = [...new Set(rows.map((r) => snapshot.rows.termOf[r]!))];
  return {
    ...weighRows(snapshot, rows),
    first: terms.slice(0, 4).map((t) => termAt(snapshot.terms, t).raw),
  };
}
