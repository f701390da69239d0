import { redirect } from 'next/navigation';
import { webDeps } from '@/server/web';
import { listAccountsAndPeople } from '@/server/use-cases/describe-account';
import { StartScreen } from '@/screens/start/start-screen';

export const dynamic = 'force-dynamic';

/** Opens the first account; without one, asks for it. */
export default async function Home() {
  const { accounts } = await listAccountsAndPeople(webDeps());
  if (accounts[0]) redirect(`/${accounts[0].slug}/sift`);
  return <StartScreen />;
}
