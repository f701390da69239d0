'use client';

import { formatConversions, formatCount, formatShare } from '@/ui/format';
import { MatchChip } from '@/ui/match-chip';
import { ErrorText } from '@/ui/said';
import { SideBySide } from '../side-by-side';
import { useCost } from '../use-cost';
import type { DuplicateLine } from '@/contracts/duplicates';
import type { GroupInHand } from './use-duplicates';

const HEADS = ['keyword', 'bid', 'clicks', 'cost', 'conv.', 'cost a conv.', 'to expect', 'takes over'];
const OF_REPORT = ['impr. share', 'quality'];

/** The keywords of the group in hand, side by side: by which figures one of them stays, and what it would take over. */
export function Members({
  group: { line, at, choose, handsOver, error },
  isReported,
}: {
  group: GroupInHand;
  /** whether keyword reports tell these figures */
  isReported: boolean;
}) {
  const cost = useCost();
  if (!line) return null;
  const [first] = line.keywords;
  const kinds = kindsOf(line);
  return (
    <SideBySide
      label="Who stays"
      title={`“${first!.text}”: who stays`}
      heads={isReported ? [...HEADS, ...OF_REPORT, ...kinds] : HEADS}
      at={at}
      onChoose={choose}
      choices={line.keywords.map((one) => {
        const over = handsOver?.find(({ id }) => id === one.id);
        return {
          key: one.id,
          says: (
            <>
              {one.text !== first!.text && <b>{one.text} </b>}
              {one.campaign} · {one.adGroup} <MatchChip match={one.match} />
              {one.status !== 'live' && <span className="text-soft"> {one.status}</span>}
            </>
          ),
          figures: [
            ...[cost.orDash(one.bidMicros), formatCount(one.clicks), cost.orDash(one.costMicros)],
            ...[formatConversions(one.conversions), cost.ofConversion(one), cost.orDash(one.expectedMicros)],
            over ? `${formatCount(over.takesOver.terms)} of ${formatCount(over.others.terms)}` : '…',
            ...(isReported
              ? [
                  ...[formatShare(one.impressionShare), formatConversions(one.quality)],
                  ...kinds.map((kind) => formatConversions(one.otherConversions[kind] ?? 0)),
                ]
              : []),
          ],
        };
      })}
    >
      <ErrorText error={error} />
    </SideBySide>
  );
}

/** Further kinds of conversion that any of the keywords had. */
function kindsOf({ keywords }: DuplicateLine): string[] {
  return [...new Set(keywords.flatMap((one) => Object.keys(one.otherConversions)))].sort();
}
