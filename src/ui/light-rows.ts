'use client';

import { useState } from 'react';

/** Of a virtual table: whether it is being scrolled, and the first and last row that are drawn. */
type Drawn = { isScrolling: boolean; from: number; to: number };

/**
 * Which rows may be drawn light, with their text alone: those that come into sight while a table is scrolled. They are
 * drawn in full as soon as it rests. Who goes through the rows by key, and so keeps the one in hand in sight, sees all
 * of them in full.
 */
export function useLightRows({ isScrolling, from, to }: Drawn, cursor: number): (index: number) => boolean {
  const [rest, setRest] = useState({ from, to });
  if (!isScrolling && (rest.from !== from || rest.to !== to)) setRest({ from, to });
  const mayBeLight = isScrolling && (cursor < from || cursor > to);
  return (index) => mayBeLight && (index < rest.from || index > rest.to);
}
