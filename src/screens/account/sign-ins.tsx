'use client';

import { useQuery } from '@tanstack/react-query';
import { useAccount, useMay } from '@/screens/frame/account-context';
import { useRoutes } from '@/screens/frame/data/routes';
import { ErrorText } from '@/ui/said';
import { LogOf } from './log-of';

/** Who signed in, and who tried to in vain; the owners see it. */
export function SignIns() {
  const { may } = useMay('own');
  const { isOpen } = useAccount();
  const { query } = useRoutes();
  const { data, error } = useQuery({ ...query('GET sign-ins'), enabled: may && !isOpen, staleTime: 0 });
  if (!may) return null;
  return (
    <LogOf
      name="Sign-ins"
      none={
        isOpen
          ? 'Nobody signs in here: Gate Post listens on this machine alone.'
          : 'Nobody has signed in yet.'
      }
      lines={
        data?.lines.map(({ id, at, who, what }) => ({ id, at, by: who ?? '', what })) ??
        (isOpen ? [] : undefined)
      }
      says="What people of this account did to sign in, and tries in vain with their addresses."
    >
      <ErrorText error={error} />
    </LogOf>
  );
}
