import type { Metadata } from 'next';
import { ForClientScreen } from '@/screens/today/for-client-screen';

export const metadata: Metadata = { title: 'For the client' };

export default function Page() {
  return <ForClientScreen />;
}
