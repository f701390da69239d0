'use client';

import { createContext, useContext } from 'react';
import type { AccountSummary } from '@/contracts/common';

export type AccountContextValue = {
  summary: AccountSummary;
  /** all accounts here */
  accounts: readonly { slug: string; name: string }[];
  /** who works here */
  people: readonly { id: number; name: string }[];
  /** the name of the person chosen in the top strip */
  me: string;
  /** where a screen puts what is in hand, and the buttons that decide it */
  inHand: { body: HTMLElement | null; actions: HTMLElement | null };
};

export const AccountContext = createContext<AccountContextValue | null>(null);

/** The account that the screen shows. */
export function useAccount(): AccountContextValue {
  const value = useContext(AccountContext);
  if (!value) throw new Error('useAccount stands inside the frame of an account');
  return value;
}
