'use client';

import { useState } from 'react';

/** The columns as they were while they are the same ones: rows are not drawn again for a new array. */
export function useSame<C>(columns: C[]): C[] {
  const [kept, setKept] = useState(columns);
  const isSame = kept.length === columns.length && kept.every((column, i) => column === columns[i]);
  if (!isSame) setKept(columns);
  return isSame ? kept : columns;
}
