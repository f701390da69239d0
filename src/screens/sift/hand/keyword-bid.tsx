'use client';

import { useMoney } from '@/screens/frame/money';
import type { OwnKeyword, TermDetail } from '@/contracts/hand';
import { useAccount } from '@/screens/frame/account-context';
import { BidForm } from '@/screens/frame/bid-form';
import { useTrayActions } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { formatShare } from '@/ui/format';

/** A term that is an exact keyword: what a click of it may cost by what is known, and the change to its bid. */
export function KeywordBid({ detail, keyword }: { detail: TermDetail; keyword: OwnKeyword }) {
  const formatMoney = useMoney();
  const { summary } = useAccount();
  const { draft } = useTrayActions();
  const { bidMicros, paysMicros, expectedCvr } = keyword;
  const offered = paysMicros !== null && bidMicros !== null && paysMicros < bidMicros ? paysMicros : null;
  const target =
    summary.steersBy === 'CPA'
      ? `target CPA ${formatMoney(summary.targetMicros)}`
      : `target ACoS ${formatShare(summary.targetAcos)} of a conversion’s value`;
  const why = `“${detail.raw}” is an exact keyword that does not return enough`;
  const pause = (
    <Button onClick={() => void draft([{ change: { kind: 'pause keyword', keywordId: keyword.id }, why }])}>
      Pause the keyword
    </Button>
  );
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
        <>
          {bidMicros !== null && (
            <BidForm
              label="Bid"
              offeredMicros={offered ?? bidMicros}
              wasMicros={bidMicros}
              onSet={(micros) =>
                draft([
                  {
                    change: {
                      ...{ kind: 'set bid', keywordId: keyword.id },
                      ...{ bidMicros: micros, wasMicros: bidMicros },
                    },
                    why,
                  },
                ])
              }
              says="Set it"
            >
              {pause}
            </BidForm>
          )}
          {bidMicros === null && <p className="mt-1.5">{pause}</p>}
        </>
      )}
    </section>
  );
}
