import type { Metadata } from 'next';
import { LanesScreen } from '@/screens/lanes/lanes-screen';

export const metadata: Metadata = { title: 'Lanes' };

export default function Page() {
  return <LanesScreen />;
}
