import type { Metadata } from 'next';
import { ListsScreen } from '@/screens/lists/lists-screen';

export const metadata: Metadata = { title: 'Lists' };

export default function Page() {
  return <ListsScreen />;
}
