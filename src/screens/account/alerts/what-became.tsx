import Link from 'next/link';
import type { ReactNode } from 'react';
import { listed } from '@/core';
import type { AlertsView } from '@/contracts/alerts';
import { useAccount } from '@/screens/frame/account-context';
import { formatMoment } from '@/ui/format';

/** What came up, the newest first, whether somebody was told of it or not. */
export function CameUp({ alerts }: Pick<AlertsView, 'alerts'>) {
  const { slug } = useAccount().summary;
  return (
    <Lines name="What came up">
      {alerts.map(({ id, at, says, leadsTo }) => (
        <li key={id} className="flex min-h-6 gap-3">
          <span className="w-40 shrink-0 text-soft">{formatMoment(at)}</span>
          <Link className="min-w-0 truncate text-pine underline" href={`/${slug}${leadsTo}`} title={says}>
            {says}
          </Link>
        </li>
      ))}
    </Lines>
  );
}

const STATE_NAMES = { waits: 'is tried at', delivered: 'taken', 'given up': 'given up' } as const;

/** What became of what was sent, the newest first. */
export function Deliveries({ view: { deliveries, targets } }: { view: AlertsView }) {
  const addressOf = new Map(targets.map(({ id, address }) => [id, address]));
  return (
    <Lines name="What was sent">
      {deliveries.map(({ id, targetId, state, at, tries, trouble, alerts }) => (
        <li key={id} className="flex min-h-6 gap-3">
          <span className="w-40 shrink-0 text-soft">
            {STATE_NAMES[state]} {formatMoment(at)}
          </span>
          <span className="w-40 shrink-0 truncate">{addressOf.get(targetId) ?? 'told no more'}</span>
          <span className={`truncate ${trouble === null ? '' : 'text-rust'}`} title={alerts.join('\n')}>
            {trouble === null ? listed(alerts.slice(0, 1), alerts.length) : `${trouble} (${tries} tries)`}
          </span>
        </li>
      ))}
    </Lines>
  );
}

const Lines = ({ name, children }: { name: string; children: ReactNode }) => (
  <>
    <h3 className="mt-1.5 font-semibold">{name}</h3>
    <ul aria-label={name} className="max-h-44 overflow-y-auto" tabIndex={0}>
      {children}
    </ul>
  </>
);
