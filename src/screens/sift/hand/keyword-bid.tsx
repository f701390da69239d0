'use client';

import { useMoney } from '@/screens/frame/money';
import { useState } from 'react';
import type { OwnKeyword, TermDetail } from '@/contracts/hand';
import { useAccount } from '@/screens/frame/account-context';
import { useTrayActions } from '@/screens/tray/use-tray';
import { parseAmount, plainAmount } from '@/core';
import { Button } from '@/ui/button';
import { formatShare } from '@/ui/format';

/** A term that is an exact keyword: what a click of it may cost by what is known, and the change to its bid. */
export function KeywordBid({ detail, keyword }: { detail: TermDetail; keyword: OwnKeyword }) {
  const formatMoney = useMoney();
  const { summary } = useAccount();
  const { draft } = useTrayActions();
  const { bidMicros, paysMicros, expectedCvr } = keyword;
  const [typed, setTyped] = useState<string | null>(null);
  const offered = paysMicros !== null && bidMicros !== null && paysMicros < bidMicros ? paysMicros : null;
  const text = typed ?? plainAmount(offered ?? bidMicros ?? 0, summary.currency);
  const wanted = parseAmount(text, summary.currency);
  const isBid = wanted !== undefined && wanted > 0 && wanted !== bidMicros;
  const target =
    summary.steersBy === 'CPA'
      ? `target CPA ${formatMoney(summary.targetMicros)}`
      : `target ACoS ${formatShare(summary.targetAcos)} of a conversion’s value`;
  const why = `“${detail.raw}” is an exact keyword that does not return enough`;
  return (
    <section aria-label="Its own keyword" className="mt-2 border-y border-line py-2 text-table">
      <p>
        This is a live exact keyword in {keyword.campaign} / {keyword.adGroup}. A negative would shut it out:
        lower its bid, or pause it.
      </p>
      {paysMicros !== null && expectedCvr !== null && (
        <p className="mt-1 text-soft">
          Expected {(expectedCvr * 100).toFixed(1)} % conversions × {target} ={' '}
          <b className="text-ink">{formatMoney(paysMicros)}</b> a click. The bid is {formatMoney(bidMicros)}
          {offered === null && ', which pays'}.
        </p>
      )}
      {keyword.drafted ? (
        <p className="mt-1 text-pine">In the tray: {keyword.drafted}.</p>
      ) : (
        <form
          className="mt-1.5 flex flex-wrap items-center gap-1.5"
          onSubmit={(event) => {
            event.preventDefault();
            if (isBid && bidMicros !== null)
              void draft([
                {
                  change: { kind: 'set bid', keywordId: keyword.id, bidMicros: wanted, wasMicros: bidMicros },
                  why,
                },
              ]);
          }}
        >
          {bidMicros !== null && (
            <>
              <label className="flex items-center gap-1">
                Bid
                <input
                  inputMode="decimal"
                  className="w-16 rounded border border-line bg-sheet px-1.5 py-0.5 text-right"
                  value={text}
                  onChange={(e) => setTyped(e.target.value)}
                />
              </label>
              <Button type="submit" disabled={!isBid}>
                Set it
              </Button>
            </>
          )}
          <Button
            onClick={() => void draft([{ change: { kind: 'pause keyword', keywordId: keyword.id }, why }])}
          >
            Pause the keyword
          </Button>
        </form>
      )}
    </section>
  );
}
