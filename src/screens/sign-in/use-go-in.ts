'use client';

import { useRouter } from 'next/navigation';
import { ownPath } from './own-path';

/** Opens Gate Post for who has just signed in: where the address says (`?to=`), else at the first account. */
export function useGoIn() {
  const router = useRouter();
  return () => {
    router.push(ownPath(new URLSearchParams(window.location.search).get('to')));
    router.refresh();
  };
}
