import type { ChoiceAnswer } from '@/contracts/sift';
import { formatDay, formatMoney, plural } from '@/ui/format';
import { Mark } from '@/ui/marks';
import { MatchChip } from '@/ui/match-chip';

/** Where a term was served, whether it is kept, and what stops it already. */
export function WhereItRan({
  answer: { ran, lastDay, isKept, keptBy, hasConverted },
}: {
  answer: ChoiceAnswer;
}) {
  const [first, ...others] = ran;
  const stoppers = [
    ...new Map(
      ran.flatMap((r) => r.stoppedBy).map((s) => [`${s.match} ${s.text} ${s.placeName}`, s]),
    ).values(),
  ];
  return (
    <div className="text-[13px] text-soft">
      {first && (
        <p>
          Served by {first.keyword ? <b className="text-ink">{first.keyword}</b> : 'automatic targeting'}{' '}
          <MatchChip match={first.match} /> in {first.campaign} / {first.adGroup}
          {others.length > 0 && (
            <span
              title={others
                .map((r) => `${r.campaign} / ${r.adGroup}: ${formatMoney(r.costMicros)}`)
                .join('\n')}
            >
              {' '}
              and in {plural(others.length, 'other place')}
            </span>
          )}
          , last on {formatDay(lastDay)}
        </p>
      )}
      {isKept && (
        <p className="text-moss">
          <Mark kind="kept" /> kept open by {keptBy}
        </p>
      )}
      {!isKept && hasConverted && (
        <p className="text-moss">
          <Mark kind="kept" /> has converted, so it is protected
        </p>
      )}
      {stoppers.map((s) => (
        <p key={`${s.match} ${s.text} ${s.placeName}`} className="text-timber">
          <Mark kind="stopped" /> stopped by “{s.text}” ({s.match}) in {s.placeName}
        </p>
      ))}
    </div>
  );
}
