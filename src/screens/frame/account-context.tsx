'use client';

import { createContext, useContext } from 'react';
import type { AccountSummary } from '@/contracts/common';
import { listed } from '@/core';
import { mayDo, type Member, type Role } from '@/contracts/roles';

export type AccountContextValue = {
  summary: AccountSummary;
  /** those in which the person has a role */
  accounts: readonly { slug: string; name: string }[];
  /** who works here */
  people: readonly Member[];
  /** who has signed in, or was chosen in the top strip */
  me: Member;
  /** nobody signs in here: who one is, is chosen in the top strip */
  isOpen: boolean;
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

/** Whether the person may do what needs a role in this account, and who may. */
export function useMay(needed: Role): { may: boolean; who: string } {
  const { me, people } = useAccount();
  const others = people.filter(({ role }) => mayDo(role, needed));
  return { may: mayDo(me.role, needed), who: listed(others.map(({ name }) => name)) };
}
