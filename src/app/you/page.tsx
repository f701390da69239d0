import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { whoAsks } from '@/app/api/_handle/who-asks';
import { YouScreen } from '@/screens/you/you-screen';

export const metadata: Metadata = { title: 'How you sign in' };
export const dynamic = 'force-dynamic';

export default async function Page() {
  await whoAsks().catch(() => redirect('/sign-in?to=/you'));
  return <YouScreen />;
}
