'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { compileGate, type Gate, type MatchType } from '@/core';
import type { ChoiceAnswer, MatchChoice, PlaceChoice, TermLine } from '@/contracts/sift';
import type { DraftOutcome } from '@/contracts/tray';
import { useAccount } from '@/screens/frame/account-context';
import { offerUndo } from '@/screens/frame/undo';
import { sayFailure, useRefresh, useTrayActions } from '@/screens/tray/use-tray';
import { ask } from '@/ui/ask';
import {
  matchInHand,
  nextMatch,
  nextPlace,
  placeInHand,
  textInHand,
  togglePosition,
  type Chosen,
  type WantedPlace,
} from './choice-state';

const NOTHING: Chosen = { positions: [], match: null };

export type Choice = {
  chosen: Chosen;
  /** the negative in hand, known before the server has weighed it */
  match: MatchType;
  text: string;
  /** what the negative in hand stops, for marking rows; null while no word is chosen */
  gate: Gate | null;
  answer: ChoiceAnswer | undefined;
  isStale: boolean;
  error: Error | null;
  ofMatch: MatchChoice | undefined;
  atPlace: PlaceChoice | undefined;
  /** what was held back, and waits for a reason or another choice */
  heldBack: Extract<DraftOutcome, { outcome: 'held back' }> | null;
  toggle(position: number): void;
  setMatch(match: MatchType): void;
  turnMatch(): void;
  setPlace(place: WantedPlace): void;
  turnPlace(): void;
  put(forcedBecause?: string): Promise<void>;
  stopWhole(): Promise<void>;
  keep(): Promise<void>;
  letGo(): Promise<void>;
};

/** The decision about one term: words, match type, place, what they would do, and doing it. */
export function useChoice(line: TermLine | undefined, days: number | null): Choice {
  const { summary, api } = useAccount();
  const { draft } = useTrayActions();
  const refresh = useRefresh();
  const [byTerm, setByTerm] = useState<{ id: number; chosen: Chosen }>({ id: -1, chosen: NOTHING });
  const [wanted, setWanted] = useState<WantedPlace>({ kind: 'campaign', listId: null });
  const [held, setHeld] = useState<{ id: number; outcome: Choice['heldBack'] }>({ id: -1, outcome: null });

  const id = line?.id ?? -1;
  const chosen = byTerm.id === id ? byTerm.chosen : NOTHING;
  const match = matchInHand(chosen, summary.defaultMatch);
  const text = line ? textInHand(line, chosen, match) : '';
  const gate = useMemo(
    () => (chosen.positions.length > 0 && text !== '' ? compileGate([{ text, match }]) : null),
    [chosen.positions.length, text, match],
  );

  const words = chosen.positions.join(',');
  const query = useQuery({
    queryKey: ['choice', summary.slug, id, words, days],
    queryFn: () =>
      ask<ChoiceAnswer>(api(`sift/choice?term=${id}&words=${words}${days ? `&days=${days}` : ''}`)),
    enabled: line !== undefined,
    placeholderData: keepPreviousData,
  });
  const answer = query.data?.id === id ? query.data : undefined;
  const ofMatch = answer?.choices.find((c) => c.match === match);
  const atPlace = placeInHand(ofMatch, wanted);

  const choose = (next: Chosen) => {
    setByTerm({ id, chosen: next });
    setHeld({ id: -1, outcome: null });
  };

  async function putNegative(
    negative: { text: string; match: MatchType },
    place: PlaceChoice | undefined,
    forcedBecause?: string,
  ) {
    if (!line || !place) return;
    const change = { kind: 'add negative' as const, ...negative, place: place.place };
    const [outcome] = await draft([{ change, forcedBecause, why: `seen in “${line.raw}”` }]);
    setHeld({ id, outcome: outcome?.outcome === 'held back' ? outcome : null });
    if (outcome?.outcome === 'drafted') setByTerm({ id: -1, chosen: NOTHING }); // should it come back, it comes back undecided
  }

  async function setKept(kept: boolean) {
    if (!line) return;
    const body = { raw: line.raw };
    const [doIt, undoIt] = kept ? (['POST', 'DELETE'] as const) : (['DELETE', 'POST'] as const);
    try {
      await ask(api('kept'), { method: doIt, body });
      await refresh();
      offerUndo(kept ? `“${line.raw}” is kept open` : `“${line.raw}” is no longer kept`, async () => {
        await ask(api('kept'), { method: undoIt, body });
        await refresh();
      });
    } catch (error) {
      sayFailure(error);
    }
  }

  return {
    ...{ chosen, match, text, gate, answer, ofMatch, atPlace },
    isStale: query.isPlaceholderData,
    error: query.error,
    heldBack: held.id === id ? held.outcome : null,
    toggle: (position) => choose({ ...chosen, positions: togglePosition(chosen.positions, position) }),
    setMatch: (next) => choose({ ...chosen, match: next }),
    turnMatch: () => choose({ ...chosen, match: nextMatch(match, chosen.positions) }),
    setPlace: setWanted,
    turnPlace: () => setWanted(nextPlace(ofMatch, atPlace) ?? wanted),
    put: (forcedBecause) => putNegative({ text, match }, atPlace, forcedBecause),
    stopWhole: async () => {
      if (!line) return;
      const exact = answer?.choices.find((c) => c.match === 'exact');
      await putNegative({ text: line.words.join(' '), match: 'exact' }, placeInHand(exact, wanted));
    },
    keep: () => setKept(true),
    letGo: () => setKept(false),
  };
}
