import type { Metadata } from 'next';
import { UntangleScreen } from '@/screens/untangle/untangle-screen';

export const metadata: Metadata = { title: 'Untangle' };

export default function Page() {
  return <UntangleScreen />;
}
