'use client';

import { useMoney } from '@/screens/frame/money';
import type { VariantsAnswer } from '@/contracts/hand';
import { Button } from '@/ui/button';
import { counted } from '@/core';

type Offer = VariantsAnswer['offers'][number];
type Props = { answer: VariantsAnswer; onTake: (offers: readonly Offer[]) => void; onClose: () => void };

/** After a stop: the other forms of it that occur, which a negative lets through. */
export function VariantsInHand({ answer: { negative, offers }, onTake, onClose }: Props) {
  const formatMoney = useMoney();
  return (
    <section
      aria-label="Variants"
      className="mt-1 mb-2 border-l-[3px] border-timber bg-timber/10 px-2.5 py-1.5 text-table"
    >
      <p>
        “{negative.text}” stops as it is written. {offers.length === 1 ? 'This form' : 'These forms'} would
        still pass:
      </p>
      <ul className="max-h-28 overflow-y-auto">
        {offers.map((offer) => (
          <li key={offer.text} className="flex items-center gap-1.5">
            <button
              type="button"
              className="min-h-6 truncate font-semibold text-pine hover:underline"
              onClick={() => onTake([offer])}
            >
              {offer.text}
            </button>
            <span className="text-soft">{offer.how}</span>
            <span className="ml-auto whitespace-nowrap text-soft">
              {counted(offer.weight.terms, 'term')}, {formatMoney(offer.weight.costMicros ?? 0)}
            </span>
          </li>
        ))}
      </ul>
      <div className="mt-1 flex gap-1.5">
        <Button hotkey="v" onClick={() => onTake(offers)}>
          {offers.length === 1 ? 'Stop it too' : `Stop all ${offers.length}`}
        </Button>
        <Button tone="quiet" onClick={onClose}>
          {offers.length === 1 ? 'Leave it' : 'Leave them'}
        </Button>
      </div>
    </section>
  );
}
