import { headers } from 'next/headers';
import { notFound, redirect } from 'next/navigation';
import type { ReactNode } from 'react';
import { whoAsks } from '@/app/api/_handle/who-asks';
import { PATH_HEADER } from '@/proxy';
import { Frame } from '@/screens/frame/frame';
import { NoRoleScreen } from '@/screens/start/no-role-screen';
import { webDeps } from '@/server/web';
import { Refusal } from '@/server/use-cases/deps';
import { describeAccount, describeMembers } from '@/server/use-cases/account/describe-account';
import { isOpen } from '@/server/use-cases/sign-in/is-open';
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
  const open = await isOpen(webDeps());
  const asks = await orRefusal(whoAsks);
  if (asks instanceof Error) {
    const path = (await headers()).get(PATH_HEADER) ?? '/';
    redirect(`/sign-in?to=${encodeURIComponent(path)}`);
  }
  const me = await orRefusal(() => permit(webDeps(), account, asks, 'look'));
  if (me instanceof Error) {
    if (me.status !== 403) notFound();
    const { people, accounts } = await describeMembers(webDeps(), account, asks ?? 0);
    return <NoRoleScreen why={me.message} people={open ? people : []} accounts={accounts} />;
  }
  const [summary, { people, accounts }] = await Promise.all([
    describeAccount(webDeps(), account),
    describeMembers(webDeps(), account, me.id),
  ]);
  const shown = accounts.filter((a) => !a.isRetired || a.slug === account);
  return (
    <Frame summary={summary} accounts={shown} people={people} me={me} isOpen={open}>
      {children}
    </Frame>
  );
}

/** What the work comes to, or why it was refused. */
async function orRefusal<T>(work: () => Promise<T>): Promise<T | Refusal> {
  try {
    return await work();
  } catch (error) {
    if (Refusal.is(error)) return error;
    throw error;
  }
}
