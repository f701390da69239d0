'use client';

import { useEffect, useEffectEvent } from 'react';

const SAVED = 'gatepost:saved';

/** Tells that a file was offered as a download. */
export function tellSaved(name: string): void {
  window.dispatchEvent(new CustomEvent(SAVED, { detail: name }));
}

/** Hears of every file that this page makes and offers as a download. */
export function useSavedFiles(heard: (name: string) => void): void {
  const onSaved = useEffectEvent(heard);
  useEffect(() => {
    const listener = (event: Event) => onSaved((event as CustomEvent<string>).detail);
    window.addEventListener(SAVED, listener);
    return () => window.removeEventListener(SAVED, listener);
  }, []);
}
