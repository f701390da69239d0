import { redirect } from 'next/navigation';
import { webDeps } from '@/server/web';
import { listAccountsAndPeople, listAccountsOf } from '@/server/use-cases/account/describe-account';
import { whoAsks } from '@/app/api/_handle/who-asks';
import { StartScreen } from '@/screens/start/start-screen';

export const dynamic = 'force-dynamic';

/** Opens the first account in which the person has a role, else the first one; without one, asks for it. */
export default async function Home() {
  const { accounts, people } = await listAccountsAndPeople(webDeps());
  const chosen = await whoAsks().catch(() => redirect('/sign-in'));
  const own = chosen === null ? [] : await listAccountsOf(webDeps(), chosen);
  const first = [...own, ...accounts].find((a) => !a.isRetired);
  if (first) redirect(`/${first.slug}/today`);
  return <StartScreen isFirst={people.length === 0} retired={accounts} />;
}
