import type { Metadata } from 'next';
import { GateScreen } from '@/screens/gate/gate-screen';

export const metadata: Metadata = { title: 'Gate check' };

export default function Page() {
  return <GateScreen />;
}
