import { SIFT_VIEWS, type SiftView } from '@/contracts/sift';
import type { Workbench } from '../workbench';
import { derivedFrom } from '../derived';

/** On which pile each row of a window lies, and on which piles each term has rows. */
export type Views = {
  /** of row r: an index into SIFT_VIEWS */
  ofRow: Uint8Array;
  /** of term t: bit v is set when a row of it lies on pile v */
  ofTerm: Uint8Array;
};

const INDEX = Object.fromEntries(SIFT_VIEWS.map((view, v) => [view, v])) as Record<SiftView, number>;

/** The piles of a workbench; made when they are first asked for. */
export const viewsOf: (bench: Workbench) => Views = derivedFrom(fileRows);

/**
 * Every row lies on one pile: stopped by the account, stopped by the draft, or open; and an open one is kept, set aside
 * or remaining, as its term is.
 */
function fileRows({ snapshot, standing, draft, verdictOf }: Workbench): Views {
  const { rows, terms } = snapshot;
  const ofRow = new Uint8Array(rows.count);
  const ofTerm = new Uint8Array(terms.count);
  const stopped = INDEX.stopped;
  const already = INDEX.already;
  for (let r = 0; r < rows.count; r++) {
    const t = rows.termOf[r]!;
    if (draft.gate.stopCount(r) > 0) ofRow[r] = standing.stopCount(r) > 0 ? already : stopped;
    else if (verdictOf.size > 0) ofRow[r] = INDEX[verdictOf.get(t) ?? 'remaining'];
    ofTerm[t]! |= 1 << ofRow[r]!;
  }
  return { ofRow, ofTerm };
}

export const viewIndex = (view: SiftView): number => INDEX[view];
