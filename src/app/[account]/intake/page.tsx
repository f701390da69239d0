import type { Metadata } from 'next';
import { IntakeScreen } from '@/screens/intake/intake-screen';

export const metadata: Metadata = { title: 'Intake' };

export default function Page() {
  return <IntakeScreen />;
}
