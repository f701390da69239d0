import type { Metadata } from 'next';
import { LedgerScreen } from '@/screens/ledger/ledger-screen';

export const metadata: Metadata = { title: 'Ledger' };

export default function Page() {
  return <LedgerScreen />;
}
