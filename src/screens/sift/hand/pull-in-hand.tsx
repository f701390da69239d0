'use client';

import { useMoney } from '@/screens/frame/money';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { PullWay } from '@/contracts/decisions';
import type { TermDetail } from '@/contracts/hand';
import { useTrayActions } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { StateIcon } from '@/ui/state-icon';
import { useVerdict } from './use-verdict';
import { Check } from '@/ui/check';
import { useRoutes } from '@/screens/frame/data/routes';
import { inDays } from '@/screens/frame/data/days';
import { counted, listed } from '@/core';
import { ErrorText } from '@/ui/said';

/** A term that the tray stops: by what, and the ways to let it through again. */
export function PullInHand({ detail, days }: { detail: TermDetail; days: string | null }) {
  return (
    <section aria-label="Pull it out" className="mt-2 border-y border-line py-2 text-table">
      {detail.draftedStops.map((stop) => (
        <Ways key={stop.changeId} detail={detail} stop={stop} days={days} />
      ))}
    </section>
  );
}

function Ways({
  detail,
  stop,
  days,
}: {
  detail: TermDetail;
  stop: TermDetail['draftedStops'][number];
  days: string | null;
}) {
  const formatMoney = useMoney();
  const { query } = useRoutes();
  const { draft } = useTrayActions();
  const setVerdict = useVerdict();
  const [keeps, setKeeps] = useState(false);
  const ids = { term: String(detail.id), change: String(stop.changeId) };
  const { data, error } = useQuery(query('GET sift/pull', { query: { ...ids, ...inDays(days) } }));

  async function take(way: PullWay) {
    await draft(way.changes.map((change) => ({ change, why: `“${detail.raw}” is let through` })));
    if (keeps) await setVerdict(detail, { is: 'kept' }, detail.verdict.is);
  }

  return (
    <div className="mb-1">
      <p>
        <StateIcon kind="drafted" /> {stop.said} would stop it. Pull it out:
      </p>
      <ErrorText error={error} />
      {data?.ways.map((way) => (
        <div key={way.said} className="mt-1.5">
          <Button className="text-left" onClick={() => void take(way)}>
            {way.said}
          </Button>
          <p className="text-small text-soft">
            {way.left.terms === 0
              ? 'leaves nothing else unstopped'
              : `leaves ${counted(way.left.terms, 'other term')} unstopped, ${formatMoney(way.left.costMicros)}: ${listed(way.left.first, way.left.terms)}`}
          </p>
        </div>
      ))}
      <label className="mt-1.5 flex min-h-6 items-center gap-1.5">
        <Check checked={keeps} onChange={(e) => setKeeps(e.target.checked)} />
        and keep it open from now on
      </label>
    </div>
  );
}
