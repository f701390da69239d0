'use client';

import { useSyncExternalStore } from 'react';

const QUERY = '(max-width: 900px)';

function subscribe(listener: () => void): () => void {
  const query = window.matchMedia(QUERY);
  query.addEventListener('change', listener);
  return () => query.removeEventListener('change', listener);
}

/** Whether the page is narrow: a small window, or one that is zoomed to 200 %. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    subscribe,
    () => window.matchMedia(QUERY).matches,
    () => false,
  );
}
