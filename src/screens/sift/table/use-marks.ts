'use client';

import { useState } from 'react';
import { addMarks, ALL_MARKED, NO_MARKS, toggleMark, type Marks } from './marks';

/**
 * The marks of a view; another view begins without any.
 * @param view what the marks belong to: the filters
 */
export function useMarks(view: string) {
  const [kept, setKept] = useState<{ view: string; marks: Marks }>({ view, marks: NO_MARKS });
  const marks = kept.view === view ? kept.marks : NO_MARKS;
  const setMarks = (next: Marks) => setKept({ view, marks: next });
  return {
    marks,
    /** Marks a row, or takes its mark off; several rows are marked. */
    mark(ids: readonly number[]) {
      setMarks(ids.length === 1 ? toggleMark(marks, ids[0]!) : addMarks(marks, ids));
    },
    markAll: () => setMarks(ALL_MARKED),
    unmarkAll: () => setMarks(NO_MARKS),
  };
}
