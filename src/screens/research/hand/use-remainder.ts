'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState, type KeyboardEvent } from 'react';
import type { Place } from '@/core';
import type { RemainderLine } from '@/contracts/research';
import { useRefresh, useUndoable } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { useSingleKeys } from '@/screens/frame/keys/keys';
import { useTrayActions } from '@/screens/tray/use-tray';
import { counted } from '@/core';
import { toQuery, type ResearchUrl } from '../research-url';

const MATCHES = ['phrase', 'broad', 'exact'] as const;
export type Match = (typeof MATCHES)[number];

/** What is chosen of the remainder in hand, and what can be done with it. */
export function useRemainder(sheetId: number, line: RemainderLine | undefined, url: ResearchUrl) {
  const { query, call } = useRoutes();
  const tray = useTrayActions();
  const undoable = useUndoable();
  const refresh = useRefresh();
  const [single] = useSingleKeys();
  const [match, setMatch] = useState<Match>('phrase');
  const [takesForms, setTakesForms] = useState(true);
  const [place, setPlace] = useState<Place>({ kind: 'account', id: null });
  const [reason, setReason] = useState('');
  const params = { sheet: sheetId };
  const texts = line ? (takesForms ? line.forms : line.forms.slice(0, 1)) : [];
  const isOn = line !== undefined;

  const weighed = useQuery({
    queryKey: ['POST research/[sheet]/weigh', sheetId, texts, match, place],
    queryFn: () => call('POST research/[sheet]/weigh', { params, body: { texts, match, place } }),
    placeholderData: keepPreviousData,
    enabled: isOn,
  });
  const { sort: _, ...filters } = toQuery(url);
  const holding = useQuery({
    ...query('GET research/[sheet]/ideas', { params, query: { ...filters, remainder: line?.text ?? '-' } }),
    placeholderData: keepPreviousData,
    enabled: isOn,
  });

  async function put() {
    if (!line) return;
    const changes = texts.map((text) => ({
      change: { kind: 'add negative' as const, text, match, place },
      why: `found by research: ${counted(line.ideas, 'idea')} hold it`,
      ...(reason !== '' && { forcedBecause: reason }),
    }));
    const outcomes = await tray.draft(changes, { said: `stop “${line.text}”` });
    if (outcomes.some(({ outcome }) => outcome === 'drafted')) setReason('');
  }

  async function decide(verdict: 'kept' | 'dropped' | null) {
    const keys = holding.data?.ideas.map(({ key }) => key) ?? [];
    if (!line || keys.length === 0) return;
    const body = { keys, verdict };
    const { was } = await call('POST research/[sheet]/decide', { params, body });
    const done = { kept: 'kept', dropped: 'dropped', open: 'open again' }[verdict ?? 'open'];
    await undoable(`${counted(keys.length, 'idea')} ${done}`, async () => {
      for (const one of was) await call('POST research/[sheet]/decide', { params, body: one });
      await refresh();
    });
  }

  return {
    ...{ line, match, setMatch, takesForms, setTakesForms, place, setPlace, reason, setReason },
    weighed: isOn ? weighed.data : undefined,
    ideas: isOn ? holding.data?.ideas : undefined,
    ...{ put, decide },
    onKey(event: KeyboardEvent): boolean {
      if (event.key === 'Enter') {
        void put();
        return true;
      }
      if (!single || event.ctrlKey || event.metaKey || event.altKey) return false;
      const does: Record<string, () => void> = {
        m: () => setMatch(MATCHES[(MATCHES.indexOf(match) + 1) % MATCHES.length]!),
        v: () => setTakesForms(!takesForms),
        o: () => void decide('kept'),
        x: () => void decide('dropped'),
        f: () => document.getElementById('first-filter')?.focus(),
      };
      does[event.key]?.();
      return event.key in does;
    },
  };
}
export type RemainderChoice = ReturnType<typeof useRemainder>;
