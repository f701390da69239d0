import { notFound } from 'next/navigation';
import { KitScreen } from '@/screens/kit/kit-screen';

/** The kit in its states, for those who build screens; not served elsewhere. */
export default function KitPage() {
  if (process.env.NODE_ENV !== 'development') notFound();
  return <KitScreen />;
}
