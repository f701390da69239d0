'use client';

import { useRef } from 'react';
import { toast } from 'sonner';
import { counted, type Window } from '@/core';
import { sayDays } from '@/contracts/days';
import type { TermLine } from '@/contracts/sift';
import { useRoutes } from '@/screens/frame/data/routes';
import { sayFailure } from '@/screens/tray/use-tray';
import { saveCells, toCells, type Cells, type FileKind } from '@/ui/table/cells';
import { toFilters, type SiftUrl } from '../sift-url';
import type { TermColumn } from './columns';
import { isMarked, type Marks } from './marks';

/** The most that the server gives at once. */
const AT_ONCE = 1_000;
/** A workbook is made whole in the browser's memory. */
const MOST_IN_WORKBOOK = 200_000;

/** The terms that the filters show as cells: all of them in a file, or those that are marked for the clipboard. */
export function useTermFiles(
  url: SiftUrl,
  beside: Window | null,
  total: number,
  columns: readonly TermColumn[],
) {
  const { call } = useRoutes();
  const stopped = useRef(false);

  /** Lines in their order, page by page. @throws Error where terms change meanwhile */
  async function* pages(): AsyncGenerator<TermLine[]> {
    const query = {
      ...{ ...toFilters(url), sort: url.sort, direction: url.direction, most: String(AT_ONCE) },
      ...(beside && { beside: sayDays(beside) }),
    };
    for (let offset = 0; offset < total && !stopped.current; offset += AT_ONCE) {
      const page = await call('GET sift/terms', { query: { ...query, offset: String(offset) } });
      if (page.total !== total)
        throw new Error('The terms changed meanwhile, so nothing was saved. Save them again.');
      yield page.lines;
    }
  }

  async function save(kind: FileKind): Promise<void> {
    if (kind === 'xlsx' && total > MOST_IN_WORKBOOK) {
      toast(
        `${counted(total, 'term')} are too many for a workbook made here: save them as CSV, or narrow them to ${counted(MOST_IN_WORKBOOK, 'term')}.`,
      );
      return;
    }
    stopped.current = false;
    const note = toast.loading('Saving the terms');
    try {
      const cells: Cells = toCells(columns, []);
      for await (const lines of pages()) {
        cells.rows.push(...toCells(columns, lines).rows);
        toast.loading(`${counted(cells.rows.length, 'term')} of ${total}`, {
          ...{ id: note, action: { label: 'Cancel', onClick: () => (stopped.current = true) } },
        });
      }
      if (stopped.current) return;
      await saveCells(cells, 'search terms', kind);
      toast(`${counted(cells.rows.length, 'term')} saved as “search terms.${kind}”`);
    } catch (error) {
      sayFailure(error);
    } finally {
      toast.dismiss(note);
    }
  }

  /** Those that are marked, else the one in hand. */
  async function copy(marks: Marks, marked: number, inHand: TermLine | undefined): Promise<Cells> {
    if (marked === 0) return toCells(columns, inHand ? [inHand] : []);
    stopped.current = false;
    const found: TermLine[] = [];
    for await (const lines of pages()) {
      found.push(...lines.filter(({ id }) => isMarked(marks, id)));
      if (found.length >= marked) break;
    }
    return toCells(columns, found);
  }

  return { save, copy };
}
