import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { chosenPerson } from '@/app/api/_handle/chosen-person';
import { Frame } from '@/screens/frame/frame';
import { NoRoleScreen } from '@/screens/start/no-role-screen';
import { webDeps } from '@/server/web';
import { Refusal } from '@/server/use-cases/deps';
import { describeAccount, describeMembers } from '@/server/use-cases/account/describe-account';
import { permit } from '@/server/use-cases/account/permit';

export const dynamic = 'force-dynamic';

export default async function AccountLayout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ account: string }>;
}) {
  const { account } = await params;
  const chosen = await chosenPerson();
  const me = await permit(webDeps(), account, chosen, 'look').catch((error: unknown) => {
    if (Refusal.is(error)) return error;
    throw error;
  });
  if (me instanceof Error) {
    if (me.status !== 403) notFound();
    const { people, accounts } = await describeMembers(webDeps(), account, chosen ?? 0);
    return <NoRoleScreen why={me.message} people={people} accounts={accounts} />;
  }
  const [summary, { people, accounts }] = await Promise.all([
    describeAccount(webDeps(), account),
    describeMembers(webDeps(), account, me.id),
  ]);
  const shown = accounts.filter((a) => !a.isRetired || a.slug === account);
  return (
    <Frame summary={summary} accounts={shown} people={people} me={me}>
      {children}
    </Frame>
  );
}
