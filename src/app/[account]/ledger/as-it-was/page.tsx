import type { Metadata } from 'next';
import { AsItWasScreen } from '@/screens/ledger/as-it-was/as-it-was-screen';

export const metadata: Metadata = { title: 'As it was' };

export default function Page() {
  return <AsItWasScreen />;
}
