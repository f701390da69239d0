import type { Metadata } from 'next';
import { SiftScreen } from '@/screens/sift/sift-screen';

export const metadata: Metadata = { title: 'Sift' };

export default function Page() {
  return <SiftScreen />;
}
