import type { SignInLine } from '@/contracts/sign-in';
import { formatMoment } from '@/ui/format';
import { Part } from './part';

/** What happened around one's signing in, the newest first. */
export function Events({ lines }: { lines: SignInLine[] }) {
  return (
    <Part title="What happened">
      <ul aria-label="What happened" className="max-h-56 overflow-y-auto" tabIndex={0}>
        {lines.map(({ id, what, at }) => (
          <li key={id} className="flex min-h-6 gap-3">
            <span className="w-28 shrink-0 text-soft">{formatMoment(at)}</span>
            {what}
          </li>
        ))}
      </ul>
    </Part>
  );
}
