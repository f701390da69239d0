import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { SignInScreen } from '@/screens/sign-in/sign-in-screen';
import { doesAnybodySignIn, isOpen } from '@/server/use-cases/sign-in/is-open';
import { webDeps, webSignIns } from '@/server/web';

export const metadata: Metadata = { title: 'Sign in' };
export const dynamic = 'force-dynamic';

export default async function Page() {
  if (await isOpen(webDeps())) redirect('/');
  const isFirst = !(await doesAnybodySignIn(webDeps()));
  return <SignInScreen isFirst={isFirst} company={webSignIns().companyName} />;
}
