'use client';

import Link from 'next/link';
import { useAccount } from '@/screens/frame/account-context';
import { useMoney } from '@/screens/frame/money';
import type { TermDetail } from '@/contracts/hand';
import { Key } from '@/ui/button';
import { conversionsOf, formatDay } from '@/ui/format';
import { Explain } from '@/ui/explain';
import { StateIcon } from '@/ui/state-icon';
import { MatchChip } from '@/ui/match-chip';
import { SiblingKeywords } from './sibling-keywords';
import { counted } from '@/core';

type Props = { detail: TermDetail; days: string | null; showsKeywords: boolean; onKeywords: () => void };

/** What stands where no keyword is named: the platform chose, or the report does not say. */
const NO_KEYWORD: Record<string, string> = {
  automatic: 'automatic targeting',
  unknown: 'a keyword that is not given',
};

/** Where a term was served and when, what people said of it, and what stops it already. */
export function TermFacts({ detail, days, showsKeywords, onKeywords }: Props) {
  const formatMoney = useMoney();
  const { slug } = useAccount().summary;
  const { ran, lastDay, verdict, hasConverted, sinceChange } = detail;
  const [first, ...others] = ran;
  const stoppers = [
    ...new Map(
      ran.flatMap((r) => r.stoppedBy).map((s) => [`${s.match} ${s.text} ${s.placeName}`, s]),
    ).values(),
  ];
  return (
    <div className="text-table text-soft">
      {first && (
        <p>
          Served by{' '}
          {first.keyword ? <b className="text-ink">{first.keyword}</b> : (NO_KEYWORD[first.match] ?? '')}{' '}
          {first.match !== 'unknown' && <MatchChip match={first.match} />} in {first.campaign} /{' '}
          {first.adGroup}
          {others.length > 0 && (
            <>
              {' '}
              and in{' '}
              <Explain about="where else it ran" trigger={counted(others.length, 'other place')}>
                <ul>
                  {others.map((r) => (
                    <li key={`${r.adGroupId} ${r.keyword}`}>
                      {r.campaign} / {r.adGroup}: {formatMoney(r.costMicros)}
                    </li>
                  ))}
                </ul>
              </Explain>
            </>
          )}
          , last on {formatDay(lastDay)}.{' '}
          <button
            type="button"
            aria-expanded={showsKeywords}
            className="min-h-6 text-pine hover:underline"
            onClick={onKeywords}
          >
            Its other keywords <Key>k</Key>
          </button>{' '}
          <Link
            href={`/${slug}/ledger?term=${encodeURIComponent(detail.raw)}`}
            prefetch={false}
            className="text-pine underline"
          >
            In the Ledger
          </Link>
        </p>
      )}
      {first && showsKeywords && (
        <SiblingKeywords adGroup={first.adGroupId} served={first.keyword} days={days} />
      )}
      {sinceChange && (
        <p>
          Since its keyword was changed on {formatDay(sinceChange.on)}: {counted(sinceChange.clicks, 'click')}
          , {formatMoney(sinceChange.costMicros)}, {conversionsOf(sinceChange)}.
        </p>
      )}
      {verdict.is === 'kept' && (
        <p className="text-moss">
          <StateIcon kind="kept" /> kept open by {verdict.by}
          {verdict.note && `: ${verdict.note}`}
        </p>
      )}
      {verdict.is === 'aside' && (
        <p>
          <StateIcon kind="post" /> set aside by {verdict.by} on {formatDay(verdict.since)}, until it has{' '}
          {counted(verdict.moreClicks, 'more click')}
        </p>
      )}
      {verdict.is !== 'kept' && hasConverted && (
        <p className="text-moss">
          <StateIcon kind="kept" /> has converted, so it is protected
        </p>
      )}
      {stoppers.map((s) => (
        <p key={`${s.match} ${s.text} ${s.placeName}`} className="text-timber">
          <StateIcon kind="stopped" /> stopped by “{s.text}” ({s.match}) in {s.placeName}
          {s.isSaid && ', said to be done'}
        </p>
      ))}
    </div>
  );
}
