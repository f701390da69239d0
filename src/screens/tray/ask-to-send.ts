'use client';

import { useEffect, useEffectEvent } from 'react';

const ASKED = 'gatepost:send';

/** Opens the page from which the tray is sent, for those who do not want to wait after putting something in it. */
export function askToSend(): void {
  window.dispatchEvent(new Event(ASKED));
}

export function useAskedToSend(open: () => void): void {
  const onAsked = useEffectEvent(open);
  useEffect(() => {
    const listener = () => onAsked();
    window.addEventListener(ASKED, listener);
    return () => window.removeEventListener(ASKED, listener);
  }, []);
}
