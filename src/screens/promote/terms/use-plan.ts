'use client';

import { useQuery } from '@tanstack/react-query';
import { useState, type KeyboardEvent } from 'react';
import { counted } from '@/core';
import type { PartLine, PromotionLine } from '@/contracts/promotion';
import { useDecide } from '@/screens/frame/data/decide';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { isPlain, useSingleKeys } from '@/screens/frame/keys/keys';
import { sayFailure, tellHeldBack, useTrayActions } from '@/screens/tray/use-tray';
import { useLeaving } from '@/screens/untangle/leaving/use-leaving';

/** The kinds of parts that many plans have, in the order of their digits. */
export const KINDS = [
  { key: 'keyword exact', says: 'exact keywords' },
  { key: 'keyword phrase', says: 'phrase keywords' },
  { key: 'keyword broad', says: 'broad keywords' },
  { key: 'negative phrase', says: 'negatives in phrase seats' },
  { key: 'negative broad', says: 'negatives in broad seats' },
  { key: 'negative source', says: 'negatives at sources' },
] as const;

/** Names a line of the table. */
export const keyOf = ({ group, term }: PromotionLine) => `${group} → ${term}`;

/** What promoting the term in hand makes, or all that are marked: what is taken out, and what each seat would get. */
export function usePlan(line: PromotionLine | undefined, marked: readonly PromotionLine[]) {
  const { query } = useRoutes();
  const decide = useDecide();
  const { settle } = useTrayActions();
  const [days] = useDays();
  const [single] = useSingleKeys();
  const lines = marked.length > 0 ? marked : line ? [line] : [];
  const about = lines.map(keyOf).join('\n');
  const [out, setOut] = useState<{ of: string; keys: ReadonlySet<string> }>({ of: '', keys: new Set() });
  const [bid, setBid] = useState<{ of: string; micros: number | null }>({ of: '', micros: null });
  const [isBusy, setBusy] = useState(false);
  const without = out.of === about ? out.keys : new Set<string>();
  const bidMicros = bid.of === about ? bid.micros : null;
  const body = {
    terms: lines.map(({ term, group }) => ({ term, group })),
    without: [...without],
    ...(bidMicros !== null && { bidMicros }),
    ...inDays(days),
  };
  const asked = useQuery({
    ...query('POST promotion/plan', { body }),
    enabled: lines.length > 0,
    // While a part is turned the plan before stays; that of other terms does not.
    placeholderData: (before, last) => (isSameTerms(last?.queryKey[2].body, body) ? before : undefined),
    gcTime: 10_000,
  });
  const view = lines.length > 0 ? asked.data : undefined;
  const isStale = asked.isPlaceholderData;
  const isNothing = view !== undefined && !isStale && view.keywords + view.negatives === 0;

  function turn(key: string) {
    const keys = new Set(without);
    if (!keys.delete(key)) keys.add(key);
    setOut({ of: about, keys });
  }

  async function put() {
    // What is turned and not planned anew yet goes in as it was turned: the server plans it.
    if (lines.length === 0 || isNothing || isBusy) return;
    setBusy(true);
    try {
      const said =
        marked.length > 0 ? `promote ${counted(lines.length, 'term')}` : `promote “${lines[0]!.term}”`;
      const sent = await decide('POST promotion/draft', { said }, { body });
      if (sent.state === 'waits') return;
      tellHeldBack(sent.answer.outcomes);
      await settle(sent.answer.outcomes);
    } catch (error) {
      sayFailure(error);
    } finally {
      setBusy(false);
    }
  }

  const leaving = useLeaving(
    'promotion',
    line && marked.length === 0 ? { key: keyOf(line), left: line.left, says: `“${line.term}”` } : undefined,
  );
  /** Out of sight until it brings another conversion; or back. */
  function notForThis() {
    if (line?.left) leaving.turn();
    else void leaving.leave({ why: 'not for this', until: null });
  }

  const parts = view?.parts.filter(({ state }) => isTurnable(state)) ?? [];
  return {
    ...{
      line,
      lines,
      view,
      isStale,
      isNothing,
      isBusy,
      error: asked.error,
      without,
      turn,
      put,
      notForThis,
      parts,
    },
    isMany: marked.length > 0,
    setBid: (micros: number | null) => setBid({ of: about, micros }),
    onKey(event: KeyboardEvent): boolean {
      if (event.key === 'Enter') {
        void put();
        return true;
      }
      if (!isPlain(event, single) || lines.length === 0) return false;
      const keys = marked.length > 0 ? KINDS : parts;
      if (event.key === 'x' && marked.length === 0) notForThis();
      else if (/^[1-9]$/.test(event.key) && Number(event.key) <= keys.length)
        turn(keys[Number(event.key) - 1]!.key);
      else return false;
      return true;
    },
  };
}
export type Plan = ReturnType<typeof usePlan>;

const isSameTerms = (one: { terms: unknown } | undefined, other: { terms: unknown }) =>
  one !== undefined && JSON.stringify(one.terms) === JSON.stringify(other.terms);

/** Whether a part can be taken out, or put in again. */
export const isTurnable = (state: PartLine['state']) =>
  state === 'new' || state === 'runs again' || state === 'out';
