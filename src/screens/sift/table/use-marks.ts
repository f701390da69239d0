'use client';

import { useState } from 'react';
import { addMarks, ALL_MARKED, NO_MARKS, toggleMark, type Marks } from './marks';
import type { Lines } from './use-lines';

/**
 * The marks of a view; another view begins without any.
 * @param view what the marks belong to: the filters
 * @param cursor the row in hand, from where a stretch of rows is marked
 */
export function useMarks(view: string, lines: Lines, cursor: number) {
  const [kept, setKept] = useState<{ view: string; marks: Marks }>({ view, marks: NO_MARKS });
  const marks = kept.view === view ? kept.marks : NO_MARKS;
  const setMarks = (next: Marks) => setKept({ view, marks: next });
  return {
    marks,
    /** Marks a row, or takes its mark off; with a stretch, marks all rows from the one in hand to it. */
    mark(index: number, withStretch: boolean) {
      const line = lines.lineAt(index);
      if (!line) return;
      if (!withStretch) return setMarks(toggleMark(marks, line.id));
      const [from, to] = [Math.min(index, cursor), Math.max(index, cursor)];
      const ids = Array.from({ length: to - from + 1 }, (_, i) => lines.lineAt(from + i)?.id);
      setMarks(
        addMarks(
          marks,
          ids.filter((id) => id !== undefined),
        ),
      );
    },
    markAll: () => setMarks(ALL_MARKED),
    unmarkAll: () => setMarks(NO_MARKS),
  };
}
