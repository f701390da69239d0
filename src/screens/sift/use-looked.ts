'use client';

import { useEffect, useRef } from 'react';
import { useRoutes } from '@/screens/frame/data/routes';

/** In hand for that long, a term was looked at; passing over it is not looking. */
const LOOK_MS = 600;
const SEND_EVERY_MS = 3_000;
const MOST_AT_ONCE = 1_000;

/** Notes which terms were in hand, for the progress of the pass; sent a few at a time, and again when it failed. */
export function useLooked(termId: number | undefined): void {
  const { call } = useRoutes();
  const waiting = useRef(new Set<number>());
  useEffect(() => {
    if (termId === undefined) return;
    const timer = setTimeout(() => waiting.current.add(termId), LOOK_MS);
    return () => clearTimeout(timer);
  }, [termId]);
  useEffect(() => {
    const send = () => {
      const terms = [...waiting.current].slice(0, MOST_AT_ONCE);
      if (terms.length === 0) return;
      for (const id of terms) waiting.current.delete(id);
      call('POST sift/looked', { body: { terms } }).catch(() => {
        for (const id of terms) waiting.current.add(id);
      });
    };
    const timer = setInterval(send, SEND_EVERY_MS);
    return () => {
      clearInterval(timer);
      send();
    };
  }, [call]);
}
