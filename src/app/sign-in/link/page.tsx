import type { Metadata } from 'next';
import { LinkScreen } from '@/screens/sign-in/link-screen';
import { webSignIns } from '@/server/web';

export const metadata: Metadata = { title: 'Your address and password' };
export const dynamic = 'force-dynamic';

export default function Page() {
  return <LinkScreen company={webSignIns().companyName} />;
}
