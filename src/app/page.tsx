import { redirect } from 'next/navigation';
import { webDeps } from '@/server/web';
import { listAccountsAndPeople } from '@/server/use-cases/account/describe-account';
import { StartScreen } from '@/screens/start/start-screen';

export const dynamic = 'force-dynamic';

/** Opens the first account; without one, asks for it. */
export default async function Home() {
  const { accounts, people } = await listAccountsAndPeople(webDeps());
  const [first] = accounts.filter((a) => !a.isRetired);
  if (first) redirect(`/${first.slug}/today`);
  return <StartScreen isFirst={people.length === 0} retired={accounts} />;
}
