import type { Metadata } from 'next';
import { RulesScreen } from '@/screens/rules/rules-screen';

export const metadata: Metadata = { title: 'Rules' };

export default function Page() {
  return <RulesScreen />;
}
