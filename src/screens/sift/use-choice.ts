'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { compileGate, type Gate, type MatchType, type NegativeText, type Place } from '@/core';
import type { ChoiceAnswer, MatchChoice, PlaceChoice, TermLine, VariantsAnswer } from '@/contracts/sift';
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
  /** other forms of what was stopped last, which would still pass; null where there is none */
  variants: VariantsAnswer | null;
  takeVariants(offers: VariantsAnswer['offers']): Promise<void>;
  leaveVariants(): void;
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
  const [variants, setVariants] = useState<VariantsAnswer | null>(null);
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
    if (outcome?.outcome !== 'drafted') return;
    setByTerm({ id: -1, chosen: NOTHING }); // should it come back, it comes back undecided
    await lookForVariants(negative, place.place);
  }

  /** A failure to look is no failure of what was done. */
  async function lookForVariants({ text: stopped, match: by }: NegativeText, place: Place) {
    setVariants(null);
    const search = new URLSearchParams({ text: stopped, match: by, kind: place.kind });
    if (place.id !== null) search.set('id', place.id);
    if (days) search.set('days', String(days));
    const found = await ask<VariantsAnswer>(api(`sift/variants?${search}`)).catch(() => null);
    setVariants(found && found.offers.length > 0 ? found : null);
  }

  async function takeVariants(offers: VariantsAnswer['offers']) {
    if (!variants) return;
    const { negative, place } = variants;
    setVariants(null);
    await draft(
      offers.map((offer) => ({
        change: { kind: 'add negative' as const, text: offer.text, match: negative.match, place },
        why: `${offer.how} of “${negative.text}”`,
      })),
    );
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
    ...{ chosen, match, text, gate, answer, ofMatch, atPlace, variants, takeVariants },
    leaveVariants: () => setVariants(null),
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
