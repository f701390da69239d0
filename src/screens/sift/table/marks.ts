import type * as v from 'valibot';
import type { SelectionSchema } from '@/contracts/decisions';
import type { FiltersSchema } from '@/contracts/sift';

/** Rows that are marked for a batch: one by one, or all that the filters show but some. */
export type Marks = { kind: 'some'; ids: ReadonlySet<number> } | { kind: 'all'; except: ReadonlySet<number> };

export const NO_MARKS: Marks = { kind: 'some', ids: new Set() };
export const ALL_MARKED: Marks = { kind: 'all', except: new Set() };

export function isMarked(marks: Marks, id: number): boolean {
  return marks.kind === 'some' ? marks.ids.has(id) : !marks.except.has(id);
}

/** Marks a row, or takes its mark off. */
export function toggleMark(marks: Marks, id: number): Marks {
  const turned = (set: ReadonlySet<number>) => {
    const next = new Set(set);
    if (!next.delete(id)) next.add(id);
    return next;
  };
  return marks.kind === 'some'
    ? { kind: 'some', ids: turned(marks.ids) }
    : { kind: 'all', except: turned(marks.except) };
}

/** Marks several rows at once. */
export function addMarks(marks: Marks, ids: readonly number[]): Marks {
  if (marks.kind === 'some') return { kind: 'some', ids: new Set([...marks.ids, ...ids]) };
  const except = new Set(marks.except);
  for (const id of ids) except.delete(id);
  return { kind: 'all', except };
}

/** @param total rows that the filters show */
export function countMarks(marks: Marks, total: number): number {
  return marks.kind === 'some' ? marks.ids.size : Math.max(0, total - marks.except.size);
}

/** The marks as the server takes them. */
export function toSelection(
  marks: Marks,
  filters: v.InferInput<typeof FiltersSchema>,
): v.InferInput<typeof SelectionSchema> {
  return marks.kind === 'some'
    ? { kind: 'terms', ids: [...marks.ids], filters }
    : { kind: 'filter', filters, except: [...marks.except] };
}
