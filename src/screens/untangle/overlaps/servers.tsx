'use client';

import { formatConversions, formatCount } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import { SideBySide } from '../side-by-side';
import { useCost } from '../use-cost';
import type { OverlapInHand } from './use-overlap';

const HEADS = ['ad group', 'clicks', 'cost', 'conv.', 'cost a conv.', 'to expect'];

/** The ad groups that serve the term in hand, side by side: one of them keeps it. */
export function Servers({ overlap: { line, at, choose } }: { overlap: OverlapInHand }) {
  const cost = useCost();
  if (!line) return null;
  return (
    <SideBySide
      label="Who keeps it"
      title={`“${line.term}”: who keeps it`}
      heads={HEADS}
      at={at}
      onChoose={choose}
      choices={line.servers.map((one) => ({
        key: one.adGroupId,
        says: (
          <>
            {one.campaign} · {one.adGroup}{' '}
            {one.saidAs.length > 0 && <span className="text-small text-soft">has it as </span>}
            {one.saidAs.map((match) => (
              <MatchChip key={match} match={match} />
            ))}
          </>
        ),
        figures: [
          ...[formatCount(one.clicks), cost.orDash(one.costMicros), formatConversions(one.conversions)],
          ...[cost.ofConversion(one), cost.orDash(one.expectedMicros)],
        ],
      }))}
    />
  );
}
