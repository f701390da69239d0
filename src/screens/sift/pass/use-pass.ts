'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { PassAnswer } from '@/contracts/pass';
import { counted } from '@/core';
import { inDays } from '@/screens/frame/data/days';
import { useDecide } from '@/screens/frame/data/decide';
import { useUndoable } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { sayFailure } from '@/screens/tray/use-tray';
import { useVerdict } from '../hand/use-verdict';
import { useWordTag } from '../words/use-word-tag';
import { itemsOf, type PassItem, type Step } from './pass-items';

/** Clicks more after which a term comes back that is left for now. */
const LEFT_FOR_CLICKS = 20;

export type Pass = {
  answer: PassAnswer | undefined;
  error: Error | null;
  items: PassItem[];
  at: number;
  item: PassItem | undefined;
  /** index of the place of the word in hand */
  placeAt: number;
  isBusy: boolean;
  move(to: number): void;
  setPlace(index: number): void;
  turnPlace(): void;
  put(): Promise<void>;
  putStep(step: Step): Promise<void>;
  /** lets what is in hand be: a word is neutral from now on, a term is set aside */
  leave(): Promise<void>;
  keep(): Promise<void>;
};

/** The guided pass: what it offers, and what is in hand of it. After something was decided, the next is in hand. */
export function usePass(days: number | null): Pass {
  const routes = useRoutes();
  const decide = useDecide();
  const undoable = useUndoable();
  const tag = useWordTag();
  const setVerdict = useVerdict();
  const { data: answer, error } = useQuery({
    ...routes.query('GET sift/pass', { query: inDays(days) }),
    placeholderData: keepPreviousData,
  });
  const [wanted, setWanted] = useState(0);
  const [place, setPlace] = useState<{ key: string; index: number }>({ key: '', index: 0 });
  const [isBusy, setBusy] = useState(false);
  const items = answer ? itemsOf(answer) : [];
  const at = Math.max(0, Math.min(wanted, items.length - 1));
  const item = items[at];
  const places = item?.step === 'words' ? item.word.places : [];
  const placeAt = place.key === item?.key ? Math.min(place.index, Math.max(0, places.length - 1)) : 0;

  async function run(work: () => Promise<void>) {
    if (isBusy) return;
    setBusy(true);
    try {
      await work();
    } catch (failure) {
      sayFailure(failure);
    } finally {
      setBusy(false);
    }
  }

  async function draft(chosen: readonly PassItem[], said: string) {
    const words = chosen.flatMap((one) =>
      one.step === 'words'
        ? [{ ngram: one.word.ngram, ...(one.key === item?.key && { place: places[placeAt]!.place }) }]
        : [],
    );
    const terms = chosen.flatMap((one) => (one.step === 'words' ? [] : [one.term.id]));
    const body = { words, ...(terms.length > 0 && { terms }), ...(days && { days }) };
    const sent = await decide('POST sift/pass/draft', { said }, { body });
    if (sent.state === 'waits') return;
    const { outcomes } = sent.answer;
    const ids = outcomes.flatMap((o) => (o.outcome === 'drafted' ? [o.changeId] : []));
    const out = outcomes.flatMap((o) =>
      o.outcome === 'held back' || o.outcome === 'refused' ? [o.said] : [],
    );
    const left = out.length > 0 ? `; ${out.length} left out. ${out[0]}` : '';
    await undoable(`${counted(ids.length, 'change')} put in the tray: ${said}${left}`, async () => {
      if (ids.length > 0) await routes.call('DELETE tray', { body: { changeIds: ids } });
    });
  }

  return {
    ...{ answer, error, items, at, item, placeAt, isBusy },
    move: (to) => setWanted(Math.max(0, Math.min(items.length - 1, to))),
    setPlace: (index) => item && setPlace({ key: item.key, index }),
    turnPlace: () =>
      item && places.length > 1 && setPlace({ key: item.key, index: (placeAt + 1) % places.length }),
    put: () =>
      run(async () => {
        if (item) await draft([item], `stop “${nameOf(item)}”`);
      }),
    putStep: (step) =>
      run(async () => {
        const chosen = items.filter((one) => one.step === step);
        if (chosen.length === 0) return;
        await draft(
          chosen,
          `stop ${counted(chosen.length, step === 'words' ? 'word at fault' : 'term', step === 'words' ? 'words at fault' : 'terms')}`,
        );
      }),
    leave: () =>
      run(async () => {
        if (item?.step === 'words') await tag(item.word.ngram, 'neutral');
        else if (item) await setVerdict(item.term, { is: 'aside', moreClicks: LEFT_FOR_CLICKS });
      }),
    keep: () =>
      run(async () => {
        if (item && item.step !== 'words') await setVerdict(item.term, { is: 'kept' });
      }),
  };
}

export const nameOf = (item: PassItem) => (item.step === 'words' ? item.word.ngram : item.term.raw);
