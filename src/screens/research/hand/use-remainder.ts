'use client';

import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState, type KeyboardEvent } from 'react';
import { toast } from 'sonner';
import { counted, type MatchType, type Place } from '@/core';
import type { RemainderLine, Weighed } from '@/contracts/research';
import { useAccount } from '@/screens/frame/account-context';
import { useRefresh, useUndoable } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { isPlain, useSingleKeys } from '@/screens/frame/keys/keys';
import { sayFailure, useTrayActions } from '@/screens/tray/use-tray';
import { toQuery, type ResearchUrl } from '../research-url';

/** Ideas that are shown in hand; the others are counted. */
const MOST_SHOWN = 4;
const MATCHES = ['phrase', 'broad', 'exact'] as const satisfies MatchType[];

type Options = {
  /** rows that are marked: what is done is done with all of them */
  marked?: readonly RemainderLine[];
  /** is told which remainders go, before the server says so; null when they stay after all */
  onGoing?: (texts: readonly string[] | null) => void;
  /** the match type, where others than the hand need it, too */
  matching?: [MatchType, (match: MatchType) => void];
  /** it stands for itself: what is decided on it is not decided on other ideas */
  isItself?: boolean;
};

/** What is chosen of the remainder in hand, or of those that are marked, and what can be done with it. */
export function useRemainder(
  sheetId: number,
  line: RemainderLine | undefined,
  url: ResearchUrl,
  { marked = [], isItself = false, onGoing, matching }: Options = {},
) {
  const { summary } = useAccount();
  const { query, call } = useRoutes();
  const client = useQueryClient();
  const tray = useTrayActions();
  const undoable = useUndoable();
  const refresh = useRefresh();
  const [single] = useSingleKeys();
  const own = useState<MatchType>(summary.defaultMatch);
  const [match, setMatch] = matching ?? own;
  const [takesForms, setTakesForms] = useState(true);
  const [place, setPlace] = useState<Place>({ kind: 'account', id: null });
  const [picked, setPicked] = useState<{ of: string; word: number | null }>({ of: '', word: null });
  const [held, setHeld] = useState<{ of: string; said: string }>();
  const params = { sheet: sheetId };
  const lines = marked.length > 0 ? marked : line ? [line] : [];
  const about = lines.map(({ text }) => text).join(', ');
  // What is typed is several texts: none of their words is picked.
  const words = marked.length === 0 && line && !line.text.includes(',') ? line.text.split(' ') : [];
  const word = picked.of === about ? picked.word : null;
  const chosen = word === null ? about : words[word]!;
  const texts =
    word === null ? lines.flatMap((one) => (takesForms ? one.forms : one.forms.slice(0, 1))) : [chosen];
  const isOn = lines.length > 0;

  const body = { texts, withForms: takesForms, match, place };
  const weighing = {
    queryKey: ['POST research/[sheet]/weigh', sheetId, body],
    queryFn: () => call('POST research/[sheet]/weigh', { params, body }),
  };
  const weighed = useQuery({ ...weighing, placeholderData: keepPreviousData, enabled: isOn });
  const { sort: _, ...filters } = toQuery(url);
  const holding = useQuery({
    ...query('GET research/[sheet]/ideas', {
      params,
      query: { ...filters, remainder: chosen || '-', most: String(MOST_SHOWN) },
    }),
    placeholderData: keepPreviousData,
    enabled: isOn && !isItself && marked.length === 0,
  });

  /** Puts it in the tray. What would stop ideas that are kept, or protected terms, is held back unless there is a reason. */
  async function put(forcedBecause?: string): Promise<boolean> {
    if (!isOn) return false;
    try {
      const { negatives } = await client.fetchQuery({ ...weighing, staleTime: 60_000 });
      const fit = negatives.filter(({ refusal }) => refusal === null);
      const going = forcedBecause === undefined ? fit.filter(({ kept }) => kept === 0) : fit;
      const kept = fit.length - going.length;
      const changes = going.map(({ text, ideas }) => ({
        change: { kind: 'add negative' as const, text, match, place },
        why: `found by research: ${counted(ideas, 'idea')} hold it`,
        ...(forcedBecause !== undefined && { forcedBecause }),
      }));
      const outcomes = changes.length > 0 ? await tray.draft(changes, { said: `stop “${chosen}”` }) : [];
      const said = outcomes.flatMap((one) => (one.outcome === 'held back' ? one.said : []));
      if (kept > 0) said.push(`Held back: ${counted(kept, 'negative')} would stop ideas that are kept.`);
      setHeld(said.length > 0 ? { of: about, said: said.join(' ') } : undefined);
      return said.length === 0;
    } catch (error) {
      sayFailure(error);
      return false;
    }
  }

  async function decide(verdict: 'kept' | 'dropped' | null) {
    if (!isOn) return;
    if (word === null) onGoing?.(lines.map(({ text }) => text));
    const what = isItself
      ? { keys: lines.flatMap(({ forms }) => forms) }
      : { holding: { remainders: word === null ? lines.map(({ text }) => text) : [chosen], filters } };
    try {
      const { was } = await call('POST research/[sheet]/decide', { params, body: { ...what, verdict } });
      const count = was.reduce((sum, { keys }) => sum + keys.length, 0);
      const done = { kept: 'kept', dropped: 'dropped', open: 'open again' }[verdict ?? 'open'];
      await undoable(`${counted(count, 'idea')} ${done}`, async () => {
        for (const one of was) await call('POST research/[sheet]/decide', { params, body: one });
        await refresh();
      });
    } catch (error) {
      onGoing?.(null);
      sayFailure(error);
    }
  }

  async function copy() {
    const { negatives } = await client.fetchQuery({ ...weighing, staleTime: 60_000 });
    await navigator.clipboard.writeText(negatives.map(({ text }) => text).join('\n'));
    toast(`${counted(negatives.length, 'line')} copied`);
  }

  const pick = (position: number | null) =>
    setPicked({ of: about, word: position === word ? null : position });
  const verdictNow = url.shown === 'kept' || url.shown === 'dropped';
  return {
    ...{
      sheetId,
      line,
      lines,
      about,
      words,
      word,
      pick,
      match,
      setMatch,
      takesForms,
      setTakesForms,
      place,
      setPlace,
    },
    weighed: isOn ? weighed.data : undefined,
    holding: isOn && !isItself && marked.length === 0 ? holding.data : undefined,
    /** what is shown of it is of what was chosen before, or not known yet */
    isStale:
      isOn &&
      (weighed.isPending || weighed.isPlaceholderData || (holding.isEnabled && holding.isPlaceholderData)),
    heldBack: held?.of === about ? held.said : undefined,
    /** it was decided on: it can be opened again */
    isDecided: verdictNow,
    ...{ put, decide, copy },
    onKey(event: KeyboardEvent): boolean {
      if (event.key === 'Enter') {
        void put();
        return true;
      }
      if (!isPlain(event, single)) return false;
      if (/^[0-9]$/.test(event.key)) {
        const position = Number(event.key) - 1;
        if (position >= words.length) return false;
        pick(position < 0 ? word : position);
        return true;
      }
      const does: Record<string, () => void> = {
        m: () => setMatch(MATCHES[(MATCHES.indexOf(match) + 1) % MATCHES.length]!),
        v: () => setTakesForms(!takesForms),
        o: () => void decide(url.shown === 'kept' ? null : 'kept'),
        x: () => void decide(url.shown === 'dropped' ? null : 'dropped'),
        y: () => void copy(),
        f: () => document.getElementById('first-filter')?.focus(),
      };
      does[event.key]?.();
      return event.key in does;
    },
  };
}
export type RemainderChoice = ReturnType<typeof useRemainder>;
export type { Weighed };
