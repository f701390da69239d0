import type { Metadata } from 'next';
import { PromoteScreen } from '@/screens/promote/promote-screen';

export const metadata: Metadata = { title: 'Promote' };

export default function Page() {
  return <PromoteScreen />;
}
