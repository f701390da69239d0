import type { Metadata } from 'next';
import { ResearchScreen } from '@/screens/research/research-screen';

export const metadata: Metadata = { title: 'Research' };

export default function Page() {
  return <ResearchScreen />;
}
