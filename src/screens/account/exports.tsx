'use client';

import { useQuery } from '@tanstack/react-query';
import { useMay } from '@/screens/frame/account-context';
import { useRoutes } from '@/screens/frame/data/routes';
import { ErrorText } from '@/ui/said';
import { LogOf } from './log-of';

/** Which files people saved from the account; its owners see it. */
export function Exports() {
  const { may } = useMay('own');
  const { query } = useRoutes();
  const { data, error } = useQuery({ ...query('GET exports'), enabled: may, staleTime: 0 });
  if (!may) return null;
  return (
    <LogOf
      name="Saved files"
      none="Nobody has saved a file yet."
      lines={data?.lines.map(({ name, ...line }) => ({ ...line, what: name }))}
      says="Every file that somebody saves is noted with its name, also those that the browser makes of a table. What is copied as cells is not."
    >
      <ErrorText error={error} />
    </LogOf>
  );
}
