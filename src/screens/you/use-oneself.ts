'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { ownQuery } from '@/screens/frame/data/routes';

/** Sets what concerns oneself, says what was done, and reads it anew. */
export function useOneself() {
  const client = useQueryClient();
  const [fault, setFault] = useState<string | null>(null);
  /** @returns whether it was done */
  async function set(work: () => Promise<unknown>, said: string): Promise<boolean> {
    setFault(null);
    try {
      await work();
    } catch (error) {
      setFault(error instanceof Error ? error.message : 'It did not work.');
      return false;
    }
    toast(said);
    await client.invalidateQueries({ queryKey: ownQuery('GET /you').queryKey });
    return true;
  }
  return { fault, set };
}
