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
export function usePass(days: string | null): Pass {
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
  /** what was decided and is not answered yet: the next is in hand at once, and keys pressed fast are all heard */
  const [decided, setDecided] = useState<readonly string[]>([]);
  const items = answer ? itemsOf(answer).filter(({ key }) => !decided.includes(key)) : [];
  const at = Math.max(0, Math.min(wanted, items.length - 1));
  const item = items[at];
  const places = item?.step === 'words' ? item.word.places : [];
  const placeAt = place.key === item?.key ? Math.min(place.index, Math.max(0, places.length - 1)) : 0;

  /** Decides about some of the pass; should it fail, they stand there again. What waits for the connection is decided. */
  async function run(about: readonly PassItem[], work: () => Promise<unknown>) {
    if (about.length === 0) return;
    const keys = new Set(about.map(({ key }) => key));
    setDecided((before) => [...before, ...keys]);
    const outcome = await work().catch(sayFailure);
    if (outcome !== 'waits') setDecided((before) => before.filter((key) => !keys.has(key)));
  }

  async function draft(chosen: readonly PassItem[], said: string): Promise<'waits' | undefined> {
    const words = chosen.flatMap((one) =>
      one.step === 'words'
        ? [{ ngram: one.word.ngram, ...(one.key === item?.key && { place: places[placeAt]!.place }) }]
        : [],
    );
    const terms = chosen.flatMap((one) => (one.step === 'words' ? [] : [one.term.id]));
    const body = { words, ...(terms.length > 0 && { terms }), ...(days && { days }) };
    const sent = await decide('POST sift/pass/draft', { said }, { body });
    if (sent.state === 'waits') return 'waits';
    const { outcomes } = sent.answer;
    const ids = outcomes.flatMap((o) => (o.outcome === 'drafted' ? [o.changeId] : []));
    const out = outcomes.flatMap((o) =>
      o.outcome === 'held back' || o.outcome === 'refused' ? [o.said] : [],
    );
    const left = out.length > 0 ? `; ${out.length} left out. ${out[0]}` : '';
    await undoable(`${counted(ids.length, 'change')} put in the tray: ${said}${left}`, async () => {
      if (ids.length > 0) await routes.call('DELETE tray', { body: { changeIds: ids } });
    });
    return undefined;
  }

  return {
    ...{ answer, error, items, at, item, placeAt },
    move: (to) => setWanted(Math.max(0, Math.min(items.length - 1, to))),
    setPlace: (index) => item && setPlace({ key: item.key, index }),
    turnPlace: () =>
      item && places.length > 1 && setPlace({ key: item.key, index: (placeAt + 1) % places.length }),
    put: () => (item ? run([item], () => draft([item], `stop “${nameOf(item)}”`)) : Promise.resolve()),
    putStep: (step) => {
      const chosen = items.filter((one) => one.step === step);
      const [one, many] = step === 'words' ? ['word at fault', 'words at fault'] : ['term', 'terms'];
      return run(chosen, () => draft(chosen, `stop ${counted(chosen.length, one, many)}`));
    },
    leave: async () => {
      if (!item) return;
      await run([item], () =>
        item.step === 'words'
          ? tag(item.word.ngram, 'neutral')
          : setVerdict(item.term, { is: 'aside', moreClicks: LEFT_FOR_CLICKS }),
      );
    },
    keep: async () => {
      if (item && item.step !== 'words') await run([item], () => setVerdict(item.term, { is: 'kept' }));
    },
  };
}

export const nameOf = (item: PassItem) => (item.step === 'words' ? item.word.ngram : item.term.raw);
