'use client';

import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';

/** Whether the page is being printed: what is virtual on the screen is drawn whole then. */
export function usePrinted(): boolean {
  const [isPrinted, setPrinted] = useState(false);
  useEffect(() => {
    // The browser lays the page out as soon as the event has ended, so what it prints must stand by then.
    const begin = () => flushSync(() => setPrinted(true));
    const end = () => setPrinted(false);
    window.addEventListener('beforeprint', begin);
    window.addEventListener('afterprint', end);
    return () => {
      window.removeEventListener('beforeprint', begin);
      window.removeEventListener('afterprint', end);
    };
  }, []);
  return isPrinted;
}
