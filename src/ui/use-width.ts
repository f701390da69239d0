'use client';

import { useCallback, useState } from 'react';

/** The width within the borders of the element that is given the first, px; 0 until it is known. */
export function useWidth(): [ref: (element: HTMLElement) => () => void, width: number] {
  const [width, setWidth] = useState(0);
  const ref = useCallback((element: HTMLElement) => {
    const observer = new ResizeObserver(([entry]) => setWidth(Math.floor(entry!.contentRect.width)));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, width];
}
