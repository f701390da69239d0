import { MapPinOff } from 'lucide-react';
import type { NameKind } from '@/contracts/locations';

/** Marks the name of a location that is not served; one that is an ordinary word as well, only perhaps. */
export function NotServed({ name, kind }: { name: string; kind: NameKind }) {
  const says = kind === 'perhaps' ? `${name}: perhaps a place that is not served` : `${name}: not served`;
  return (
    <span
      title={says}
      className={`inline-flex shrink-0 items-center ${kind === 'perhaps' ? 'text-soft' : 'text-rust'}`}
    >
      <MapPinOff size={13} aria-hidden />
      <span className="sr-only">{says}</span>
    </span>
  );
}
