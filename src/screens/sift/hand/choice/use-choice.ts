'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { toast } from 'sonner';
import {
  compileGate,
  positionsOfNgram,
  type Gate,
  type MatchType,
  type NegativeText,
  type Place,
  textOfChosen,
} from '@/core';
import type { ChoiceAnswer, MatchChoice, PlaceChoice, TermDetail, VariantsAnswer } from '@/contracts/hand';
import type { TermLine } from '@/contracts/sift';
import type { Outlook } from '@/contracts/outlook';
import type { DraftOutcome } from '@/contracts/tray';
import { useAccount } from '@/screens/frame/account-context';
import { useWaitingTerms } from '@/screens/frame/data/decide';
import { doing } from '@/screens/frame/data/undo';
import { sayFailure, useTrayActions } from '@/screens/tray/use-tray';
import {
  clicksToWait,
  matchInHand,
  nextMatch,
  nextPlace,
  placeInHand,
  sortPlaces,
  toWanted,
  togglePosition,
  type Chosen,
  type SortedPlaces,
  type WantedPlace,
} from './choice-state';
import { useVerdict } from '../use-verdict';
import { useOutlook } from './use-outlook';
import { useWeighed } from './use-weighed';
import { useRoutes } from '@/screens/frame/data/routes';
import { inDays } from '@/screens/frame/data/days';

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
  /** the places as a person looks for them */
  places: SortedPlaces;
  /** why the place in hand is proposed; null where a person has turned to it, or nothing is proposed */
  proposedBecause: string | null;
  /** what the negative in hand is likely to bring; undefined while that is under way, or nothing would be stopped */
  outlook: Outlook | undefined;
  /** stops it in hand, and where its queries are likely to come back */
  stopThereToo(): Promise<void>;
  /** why the negative in hand is no case for one; null when it is */
  isNoCase: string | null;
  /** other forms of what was stopped last, which would still pass; null where there is none */
  variants: VariantsAnswer | null;
  takeVariants(offers: VariantsAnswer['offers']): Promise<void>;
  leaveVariants(): void;
  /** what was held back, and waits for a reason or another choice */
  heldBack: Extract<DraftOutcome, { outcome: 'held back' }> | null;
  /** why what was pressed last does nothing about the row in hand; null where nothing is to be said */
  refused: string | null;
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

type View = { days: string | null; holding: string; campaign: string };

/** The decision about one term: words, match type, place, what they would do, and doing it. */
export function useChoice(line: TermLine | undefined, { days, holding, campaign }: View): Choice {
  const { summary } = useAccount();
  const { call } = useRoutes();
  const { draft } = useTrayActions();
  const setVerdict = useVerdict();
  const waiting = useWaitingTerms();
  const [byTerm, setByTerm] = useState<{ id: number; chosen: Chosen }>({ id: -1, chosen: NOTHING });
  const [turned, setTurned] = useState<{ id: number; place: WantedPlace | null }>({ id: -1, place: null });
  const [last, setLast] = useState<WantedPlace | null>(null);
  const [variants, setVariants] = useState<VariantsAnswer | null>(null);
  const [held, setHeld] = useState<{ id: number; outcome: Choice['heldBack'] }>({ id: -1, outcome: null });
  const [refusal, setRefusal] = useState<{ id: number; said: string | null }>({ id: -1, said: null });
  const [clicks, setClicks] = useState<{ id: number; more: number }>({ id: -1, more: 0 });

  const id = line?.id ?? -1;
  const inHand = useRef(id);
  useEffect(() => {
    inHand.current = id;
  }, [id]);
  // The words that the list is narrowed to are those at fault, until others are chosen.
  const first = useMemo<Chosen>(
    () =>
      line && holding !== '' ? { positions: positionsOfNgram(line.words, holding), match: null } : NOTHING,
    [line, holding],
  );
  const chosen = byTerm.id === id ? byTerm.chosen : first;
  const match = matchInHand(chosen, summary.defaultMatch);
  const text = line ? textOfChosen(line.words, chosen.positions, match) : '';
  const gate = useMemo(
    () => (chosen.positions.length > 0 && text !== '' ? compileGate([{ text, match }]) : null),
    [chosen.positions.length, text, match],
  );

  const { answer, detail, isStale, error, whenReady } = useWeighed(line, chosen.positions, {
    days,
    campaign,
  });
  const ofMatch = answer?.choices.find((c) => c.match === match);
  // A place is wanted for this term alone; for another, it is proposed.
  const turnedHere = turned.id === id ? turned.place : null;
  const proposal = proposalOf(answer, match);
  const proposed = proposal && toWanted(proposal.place);
  const atPlace = placeInHand(ofMatch, turnedHere ?? proposed);
  const places = sortPlaces(ofMatch?.places ?? [], proposed, last);
  const setPlace = (place: WantedPlace) => setTurned({ id, place });
  const moreClicks = clicks.id === id ? clicks.more : clicksToWait(line);
  const isNoCase = sayNoCase(detail, match);
  const { outlook, stopThereToo } = useOutlook({
    line,
    negative: { text, match },
    ofMatch,
    atPlace,
    days,
    isNoCase,
  });

  const choose = (next: Chosen) => {
    setByTerm({ id, chosen: next });
    setHeld({ id: -1, outcome: null });
    setRefusal({ id: -1, said: null });
  };

  /** Puts a negative at the wanted place, as soon as it is known which places there are. */
  async function putNegative(negative: NegativeText, forcedBecause?: string) {
    if (!line) return;
    const refuse = (said: string | null) => setRefusal({ id: line.id, said });
    refuse(null);
    if (line.kind !== 'query') return refuse(NOT_STOPPED[line.kind]);
    try {
      const ready = await doing(whenReady());
      const choices = ready.answer.choices.find((c) => c.match === negative.match);
      const kin = proposalOf(ready.answer, negative.match);
      const place = placeInHand(choices, turnedHere ?? (kin && toWanted(kin.place)));
      if (sayNoCase(ready.detail, negative.match)) return refuse('a live exact keyword: see its bid in hand');
      if (!place) return refuse(choices?.refusal ?? 'nothing can be stopped there');
      if (place.isThere) return refuse('it stands there already');
      await draftNegative(line, negative, place, forcedBecause);
    } catch (failure) {
      sayFailure(failure);
    }
  }

  async function draftNegative(
    { id: about, raw }: TermLine,
    negative: NegativeText,
    { place, name }: PlaceChoice,
    forcedBecause?: string,
  ) {
    const change = { kind: 'add negative' as const, ...negative, place };
    const said = `stop “${negative.text}” (${negative.match}) in ${name}`;
    const [outcome] = await draft([{ change, forcedBecause, why: `seen in “${raw}”`, from: raw }], {
      ...{ said, about },
    });
    if (outcome?.outcome === 'held back') {
      setHeld({ id: about, outcome });
      setRefusal({ id: about, said: 'held back: give a reason in hand to force it' });
      if (inHand.current !== about) toast(`Not put in the tray, from “${raw}”. ${outcome.said}`);
    }
    if (outcome?.outcome !== 'drafted') return;
    setLast(toWanted(place));
    // Should it come back, it comes back undecided; what was chosen in another row meanwhile stays.
    setByTerm((now) => (now.id === about ? { id: -1, chosen: NOTHING } : now));
    await lookForVariants(negative, place);
  }

  /** A failure to look is no failure of what was done. */
  async function lookForVariants({ text: stopped, match: by }: NegativeText, place: Place) {
    setVariants(null);
    const query = { text: stopped, match: by, kind: place.kind, id: place.id, ...inDays(days) };
    const found = await call('GET sift/variants', { query }).catch(() => null);
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
      places,
      outlook,
      stopThereToo,
      proposedBecause: turnedHere === null ? (proposal?.because ?? null) : null,
      isNoCase,
      variants,
      takeVariants,
      waiting,
      isStale,
      error,
    },
    leaveVariants: () => setVariants(null),
    heldBack: held.id === id ? held.outcome : null,
    refused: refusal.id === id ? refusal.said : null,
    moreClicks,
    setMoreClicks: (more) => setClicks({ id, more }),
    toggle: (position) => {
      if (line && position < line.words.length)
        choose({ ...chosen, positions: togglePosition(chosen.positions, position) });
    },
    setMatch: (next) => choose({ ...chosen, match: next }),
    turnMatch: () => choose({ ...chosen, match: nextMatch(match, chosen.positions) }),
    setPlace,
    turnPlace: () => {
      const next = nextPlace(places, atPlace);
      if (next) setPlace(next);
    },
    put: (forcedBecause) => putNegative({ text, match }, forcedBecause),
    stopWhole: async () => {
      if (!line) return;
      choose({ positions: [], match: 'exact' }); // should it be held back, this is what is forced
      await putNegative({ text: line.words.join(' '), match: 'exact' });
    },
    keep: () => verdict({ is: 'kept' }),
    setAside: () => verdict({ is: 'aside', moreClicks }),
    letGo: () => verdict({ is: 'open' }),
  };
}

/** A whole term is put where it ran: where kin of some of its words stand is no place for it. */
const proposalOf = (answer: ChoiceAnswer | undefined, match: MatchType) =>
  match === 'exact' ? null : (answer?.proposed ?? null);

const NOT_STOPPED: Record<Exclude<TermLine['kind'], 'query'>, string> = {
  code: 'a product code: it is excluded in hand',
  wordless: 'holds no word, so no negative can stop it',
  unreported: 'the platform does not name these queries',
};

function sayNoCase(detail: TermDetail | undefined, match: MatchType): string | null {
  if (!detail?.ownKeyword || match !== 'exact') return null;
  return `“${detail.words.join(' ')}” is a live exact keyword: a case for its bid, not for a negative.`;
}
