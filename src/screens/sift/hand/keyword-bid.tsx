'use client';

import { useMoney } from '@/screens/frame/money';
import * as v from 'valibot';
import type { OwnKeyword, TermDetail } from '@/contracts/hand';
import { useAccount } from '@/screens/frame/account-context';
import { useTrayActions } from '@/screens/tray/use-tray';
import { parseAmount, plainAmount } from '@/core';
import { Button } from '@/ui/button';
import { Fault, InlineField, useValidForm } from '@/ui/form';
import { formatShare } from '@/ui/format';

const bidSchema = (currency: string, bidMicros: number | null) =>
  v.object({
    bid: v.pipe(
      v.string(),
      v.check((text) => (parseAmount(text, currency) ?? 0) > 0, 'Give the bid as an amount above 0.'),
      v.check((text) => parseAmount(text, currency) !== bidMicros, 'That is the bid already.'),
    ),
  });

/** A term that is an exact keyword: what a click of it may cost by what is known, and the change to its bid. */
export function KeywordBid({ detail, keyword }: { detail: TermDetail; keyword: OwnKeyword }) {
  const formatMoney = useMoney();
  const { summary } = useAccount();
  const { draft } = useTrayActions();
  const { bidMicros, paysMicros, expectedCvr } = keyword;
  const offered = paysMicros !== null && bidMicros !== null && paysMicros < bidMicros ? paysMicros : null;
  const { register, handleSubmit, formState } = useValidForm(bidSchema(summary.currency, bidMicros), {
    bid: plainAmount(offered ?? bidMicros ?? 0, summary.currency),
  });
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
          noValidate
          className="mt-1.5 flex flex-wrap items-center gap-1.5"
          onSubmit={(event) =>
            void handleSubmit(({ bid }) => {
              const change = {
                kind: 'set bid',
                keywordId: keyword.id,
                ...{ bidMicros: parseAmount(bid, summary.currency)!, wasMicros: bidMicros! },
              } as const;
              return draft([{ change, why }]);
            })(event)
          }
        >
          {bidMicros !== null && (
            <>
              <span aria-hidden>Bid</span>
              <InlineField
                label="Bid"
                inputMode="decimal"
                className="w-16 text-right"
                fault={formState.errors.bid?.message}
                {...register('bid')}
              />
              <Button type="submit">Set it</Button>
              {formState.errors.bid && <Fault>{formState.errors.bid.message}</Fault>}
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
