'use client';

import { useRouter } from 'next/navigation';
import { PERSON_COOKIE } from '@/contracts/common';

/** Says who one is: from now on decisions stand under this name, with the role that he or she has. */
export function useChoosePerson() {
  const router = useRouter();
  return (personId: number | string) => {
    document.cookie = `${PERSON_COOKIE}=${personId}; path=/; max-age=31536000; samesite=strict`;
    router.refresh();
  };
}
