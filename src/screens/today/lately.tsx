'use client';

import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { useAccount } from '@/screens/frame/account-context';
import { useRoutes } from '@/screens/frame/data/routes';
import { formatMoment } from '@/ui/format';

const MOST = 6;

/** The newest entries of the ledger. */
export function Lately() {
  const { call } = useRoutes();
  const { slug } = useAccount().summary;
  // The Ledger keeps the same answer page by page, so this one is kept under a name of its own.
  const { data } = useQuery({
    queryKey: ['GET ledger', slug, 'newest'],
    queryFn: () => call('GET ledger', { query: {} }),
  });
  if (!data || data.lines.length === 0) return null;
  return (
    <section aria-label="Lately" className="mt-4 text-table">
      <h2 className="font-semibold">Lately</h2>
      <ul>
        {data.lines.slice(0, MOST).map(({ id, at, who, what }) => (
          <li key={id} className="py-0.5 text-soft">
            <Link href={`/${slug}/ledger?entry=${id}`} prefetch={false} className="hover:underline">
              {formatMoment(at)} {who}: <span className="text-ink">{what}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
