import { cookies } from 'next/headers';
import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { PERSON_COOKIE } from '@/contracts/common';
import { Frame } from '@/screens/frame/frame';
import { webDeps } from '@/server/web';
import { Refusal } from '@/server/use-cases/deps';
import { describeAccount, listAccountsAndPeople } from '@/server/use-cases/account/describe-account';

export const dynamic = 'force-dynamic';

export default async function AccountLayout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ account: string }>;
}) {
  const { account } = await params;
  const summary = await describeAccount(webDeps(), account).catch((error: unknown) => {
    if (Refusal.is(error)) notFound();
    throw error;
  });
  const known = await listAccountsAndPeople(webDeps());
  const people = known.people.filter((p) => !p.isRetired);
  const accounts = known.accounts.filter((a) => !a.isRetired || a.slug === account);
  const chosen = Number((await cookies()).get(PERSON_COOKIE)?.value);
  const personId = people.find((p) => p.id === chosen)?.id ?? people[0]?.id ?? 0;
  return (
    <Frame summary={summary} accounts={accounts} people={people} personId={personId}>
      {children}
    </Frame>
  );
}
