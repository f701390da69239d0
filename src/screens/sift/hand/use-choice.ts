'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import {
  compileGate,
  positionsOfRun,
  type Gate,
  type MatchType,
  type NegativeText,
  type Place,
} from '@/core';
import type { ChoiceAnswer, MatchChoice, PlaceChoice, TermDetail, VariantsAnswer } from '@/contracts/hand';
import type { TermLine } from '@/contracts/sift';
import type { DraftOutcome } from '@/contracts/tray';
import { useAccount } from '@/screens/frame/account-context';
import { useWaitingTerms } from '@/screens/frame/decide';
import { useTrayActions } from '@/screens/tray/use-tray';
import { ask } from '@/ui/ask';
import {
  clicksToWait,
  matchInHand,
  nextMatch,
  nextPlace,
  placeInHand,
  textInHand,
  togglePosition,
  type Chosen,
  type WantedPlace,
} from './choice-state';
import { useVerdict } from './use-verdict';

const NOTHING: Chosen = { positions: [], match: null };

export type Choice = {
  chosen: Chosen;
  /** the negative in hand, known before the server has weighed it */
  match: MatchType;
  text: string;
  /** what the negative in hand stops, for marking rows; null while no word is chosen */
  gate: Gate | null;
  answer: ChoiceAnswer | undefined;
  detail: TermDetail | undefined;
  isStale: boolean;
  error: Error | null;
  ofMatch: MatchChoice | undefined;
  atPlace: PlaceChoice | undefined;
  /** why the negative in hand is no case for one; null when it is */
  isNoCase: string | null;
  /** other forms of what was stopped last, which would still pass; null where there is none */
  variants: VariantsAnswer | null;
  takeVariants(offers: VariantsAnswer['offers']): Promise<void>;
  leaveVariants(): void;
  /** what was held back, and waits for a reason or another choice */
  heldBack: Extract<DraftOutcome, { outcome: 'held back' }> | null;
  /** clicks more after which a term that is set aside comes back */
  moreClicks: number;
  setMoreClicks(clicks: number): void;
  /** ids of terms of which a decision waits for the connection */
  waiting: ReadonlySet<number>;
  toggle(position: number): void;
  setMatch(match: MatchType): void;
  turnMatch(): void;
  setPlace(place: WantedPlace): void;
  turnPlace(): void;
  put(forcedBecause?: string): Promise<void>;
  stopWhole(): Promise<void>;
  keep(): Promise<void>;
  setAside(): Promise<void>;
  letGo(): Promise<void>;
};

type View = { days: number | null; holding: string; campaign: string };

/** The decision about one term: words, match type, place, what they would do, and doing it. */
export function useChoice(line: TermLine | undefined, { days, holding, campaign }: View): Choice {
  const { summary, api } = useAccount();
  const { draft } = useTrayActions();
  const setVerdict = useVerdict();
  const waiting = useWaitingTerms();
  const [byTerm, setByTerm] = useState<{ id: number; chosen: Chosen }>({ id: -1, chosen: NOTHING });
  const [wanted, setWanted] = useState<WantedPlace>({ kind: 'campaign', listId: null });
  const [variants, setVariants] = useState<VariantsAnswer | null>(null);
  const [held, setHeld] = useState<{ id: number; outcome: Choice['heldBack'] }>({ id: -1, outcome: null });
  const [clicks, setClicks] = useState<{ id: number; more: number }>({ id: -1, more: 0 });

  const id = line?.id ?? -1;
  // The words that the list is narrowed to are those at fault, until others are chosen.
  const first = useMemo<Chosen>(
    () =>
      line && holding !== '' ? { positions: positionsOfRun(line.words, holding), match: null } : NOTHING,
    [line, holding],
  );
  const chosen = byTerm.id === id ? byTerm.chosen : first;
  const match = matchInHand(chosen, summary.defaultMatch);
  const text = line ? textInHand(line, chosen, match) : '';
  const gate = useMemo(
    () => (chosen.positions.length > 0 && text !== '' ? compileGate([{ text, match }]) : null),
    [chosen.positions.length, text, match],
  );

  const words = chosen.positions.join(',');
  const looked = new URLSearchParams({ campaign, ...(days ? { days: String(days) } : {}) }).toString();
  const query = useQuery({
    queryKey: ['choice', summary.slug, id, words, looked],
    queryFn: ({ signal }) =>
      ask<ChoiceAnswer>(api(`sift/choice?term=${id}&words=${words}&${looked}`), { method: 'GET', signal }),
    enabled: line !== undefined,
    placeholderData: keepPreviousData,
    gcTime: 60_000,
  });
  const about = useQuery({
    queryKey: ['term', summary.slug, id, looked],
    queryFn: ({ signal }) =>
      ask<TermDetail>(api(`sift/term?term=${id}&${looked}`), { method: 'GET', signal }),
    enabled: line !== undefined,
    gcTime: 60_000,
  });
  const answer = query.data?.id === id ? query.data : undefined;
  const detail = about.data;
  const ofMatch = answer?.choices.find((c) => c.match === match);
  const atPlace = placeInHand(ofMatch, wanted);
  const moreClicks = clicks.id === id ? clicks.more : clicksToWait(line);
  const isNoCase =
    detail?.ownKeyword && match === 'exact'
      ? `“${detail.words.join(' ')}” is a live exact keyword: a case for its bid, not for a negative.`
      : null;

  const choose = (next: Chosen) => {
    setByTerm({ id, chosen: next });
    setHeld({ id: -1, outcome: null });
  };

  async function putNegative(negative: NegativeText, place: PlaceChoice | undefined, forcedBecause?: string) {
    if (!line || !place) return;
    const change = { kind: 'add negative' as const, ...negative, place: place.place };
    const said = `stop “${negative.text}” (${negative.match}) in ${place.name}`;
    const [outcome] = await draft([{ change, forcedBecause, why: `seen in “${line.raw}”`, from: line.raw }], {
      ...{ said, about: line.id },
    });
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

  const verdict = (wantedVerdict: Parameters<typeof setVerdict>[1]) =>
    line ? setVerdict(line, wantedVerdict, detail?.verdict.is) : Promise.resolve();

  return {
    ...{
      chosen,
      match,
      text,
      gate,
      answer,
      detail,
      ofMatch,
      atPlace,
      isNoCase,
      variants,
      takeVariants,
      waiting,
    },
    leaveVariants: () => setVariants(null),
    isStale: query.isPlaceholderData,
    error: query.error ?? about.error,
    heldBack: held.id === id ? held.outcome : null,
    moreClicks,
    setMoreClicks: (more) => setClicks({ id, more }),
    toggle: (position) => {
      if (line && position < line.words.length)
        choose({ ...chosen, positions: togglePosition(chosen.positions, position) });
    },
    setMatch: (next) => choose({ ...chosen, match: next }),
    turnMatch: () => choose({ ...chosen, match: nextMatch(match, chosen.positions) }),
    setPlace: setWanted,
    turnPlace: () => setWanted(nextPlace(ofMatch, atPlace) ?? wanted),
    put: async (forcedBecause) => {
      if (!isNoCase) await putNegative({ text, match }, atPlace, forcedBecause);
    },
    stopWhole: async () => {
      if (!line || detail?.ownKeyword) return choose({ positions: [], match: 'exact' });
      const exact = answer?.choices.find((c) => c.match === 'exact');
      await putNegative({ text: line.words.join(' '), match: 'exact' }, placeInHand(exact, wanted));
    },
    keep: () => verdict({ is: 'kept' }),
    setAside: () => verdict({ is: 'aside', moreClicks }),
    letGo: () => verdict({ is: 'open' }),
  };
}
