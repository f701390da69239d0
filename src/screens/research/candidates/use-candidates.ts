'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { counted, listed, type MatchType } from '@/core';
import type { Candidate } from '@/contracts/candidates';
import type { RemainderLine, SheetView } from '@/contracts/research';
import { useAccount } from '@/screens/frame/account-context';
import { useRoutes } from '@/screens/frame/data/routes';
import { useTrayActions } from '@/screens/tray/use-tray';
import { useRemainder } from '../hand/use-remainder';
import type { ResearchUrl } from '../research-url';

const NONE: Candidate[] = [];

/** What a candidate hits of what must stay open, in a word; undefined where it hits nothing. */
export function hitOf({ keywords, protected: terms, refusal }: Candidate): string | undefined {
  if (refusal !== null) return refusal;
  const [worst] = keywords;
  if (worst) return `${counted(worst.count, 'live keyword')} ${worst.severity}`;
  return terms.count > 0 ? counted(terms.count, 'protected term') : undefined;
}

/** The candidates of a sheet: which of them are on, the one in hand, and putting them in the tray. */
export function useCandidates(sheetId: number, view: SheetView | undefined, url: ResearchUrl) {
  const { query } = useRoutes();
  const { draft } = useTrayActions();
  const { defaultMatch } = useAccount().summary;
  // What each would stop and hit is that of the match type in hand.
  const [match, setMatch] = useState<MatchType>(defaultMatch);
  const [cursor, setCursor] = useState(0);
  // Turned against what it is at first: on, unless it hits something.
  const [turned, setTurned] = useState<ReadonlySet<string>>(new Set());
  const isShown = url.shown === 'candidates';
  const asked = query('GET research/[sheet]/candidates', {
    params: { sheet: sheetId },
    query: { match, ...(url.source !== null && { source: String(url.source) }) },
  });
  const { data, error, isPlaceholderData } = useQuery({
    ...asked,
    placeholderData: keepPreviousData,
    enabled: isShown,
  });
  const rows = data?.candidates ?? NONE;
  const at = Math.min(cursor, Math.max(0, rows.length - 1));
  const inHand = isShown ? rows[at] : undefined;
  const hand = useRemainder(sheetId, inHand && asRemainder(inHand), url, {
    ...{ isItself: true, matching: [match, setMatch] },
  });
  const isOn = (candidate: Candidate) => (hitOf(candidate) === undefined) !== turned.has(candidate.text);
  const on = rows.filter(isOn);
  const titles = new Map(view?.sources.map(({ id, title }) => [id, title]));

  return {
    ...{ data, error, isStale: isPlaceholderData, rows, at, setCursor, hand, on },
    sourceOf: ({ sources }: Candidate) => listed(sources.map((id) => titles.get(id) ?? '')),
    onTexts: new Set(on.map(({ text }) => text)),
    setOn(texts: ReadonlySet<string>) {
      setTurned(
        new Set(
          rows.filter((one) => texts.has(one.text) !== (hitOf(one) === undefined)).map(({ text }) => text),
        ),
      );
    },
    /** All that are on, in all their forms. */
    async putAll() {
      const outcomes = await draft(
        on.flatMap(({ forms, sources }) =>
          forms.map((text) => ({
            change: { kind: 'add negative' as const, text, match, place: hand.place },
            why: `from ${titles.get(sources[0]!) ?? 'research'}`,
          })),
        ),
        { said: `stop ${counted(on.length, 'candidate')}` },
      );
      const held = outcomes.filter(({ outcome }) => outcome === 'held back').length;
      if (held > 0)
        toast(
          `${counted(held, 'negative')} held back: protected terms. Put them in one by one, with a reason.`,
        );
    },
  };
}
export type Candidates = ReturnType<typeof useCandidates>;

const asRemainder = ({ text, forms, ideas }: Candidate): RemainderLine => ({
  ...{ text, forms, ideas, volume: null, openingBidMicros: null },
  ...{ relatedness: null, fault: null, location: null, example: text },
});
