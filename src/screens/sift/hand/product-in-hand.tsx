'use client';

import { useMoney } from '@/screens/frame/money';
import { placeKey, counted } from '@/core';
import type { TermDetail } from '@/contracts/hand';
import { useTrayActions } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { conversionsOf } from '@/ui/format';

/** A product code: it is excluded as a product, in the ad group or the campaign. */
export function ProductInHand({ detail }: { detail: TermDetail }) {
  const formatMoney = useMoney();
  const { draft } = useTrayActions();
  return (
    <section aria-label="Exclude the product" className="mt-2 border-y border-line py-2 text-table">
      <p>
        This is a product code: an ad stood on that product’s page. Keyword negatives never stop it; the
        product itself can be excluded.
      </p>
      {detail.exclusions.map(({ place, name, note, weight, isThere }) => (
        <div key={placeKey(place)} className="mt-1.5 flex items-center gap-2">
          <Button
            disabled={isThere}
            onClick={() =>
              void draft([
                {
                  change: { kind: 'exclude product', code: detail.raw, place },
                  why: `seen as “${detail.raw}”`,
                },
              ])
            }
          >
            Exclude in the {place.kind === 'campaign' ? 'campaign' : 'ad group'}
          </Button>
          <span className="min-w-0 text-small text-soft">
            {isThere
              ? `excluded in ${name} already`
              : `${name}: ${counted(weight.clicks ?? 0, 'click')}, ${formatMoney(weight.costMicros ?? 0)}, ${conversionsOf(weight)}`}
            {note && <span className="block text-timber">{note}</span>}
          </span>
        </div>
      ))}
    </section>
  );
}
