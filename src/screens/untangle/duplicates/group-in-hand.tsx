'use client';

import { counted } from '@/core';
import type { HandsOverView } from '@/contracts/duplicates';
import { InHand } from '@/screens/frame/in-hand';
import { useMoney } from '@/screens/frame/money';
import { Button, Key } from '@/ui/button';
import { conversionsOf, formatCount, formatShare } from '@/ui/format';
import { LeaveButton, LeftOrLeaving } from '../leaving/leave';
import type { GroupInHand as Group } from './use-duplicates';

/** Who stays and why, in numbers, and what becomes of the others. */
export function GroupInHand({ group, marked }: { group: Group; marked: number }) {
  const { line, at, inHand, end, leaving } = group;
  if (!line) {
    return (
      <InHand>
        <p className="mt-1 text-table text-soft">Nothing is in hand.</p>
      </InHand>
    );
  }
  const stays = line.keywords[at]!;
  const over = group.handsOver?.find(({ id }) => id === stays.id);
  return (
    <InHand
      title={marked > 0 ? `${formatCount(marked)} marked` : stays.text}
      actions={
        !leaving.isLeaving && (
          <div className="flex flex-wrap gap-1.5">
            <Button tone="main" onClick={() => void end('pause', inHand)}>
              Pause the others <Key>↵</Key>
            </Button>
            <Button onClick={() => void end('remove', inHand)}>
              Remove them <Key>r</Key>
            </Button>
            {marked === 0 && <LeaveButton leaving={leaving} />}
          </div>
        )
      }
    >
      {marked > 0 ? (
        <p className="mt-1 text-table">
          In each of them the suggested keyword stays{marked > 0 && ' (in the one in hand, the chosen one)'}.
        </p>
      ) : (
        <>
          <p className="mt-1 text-table">
            Stays in <b>{`${stays.campaign} · ${stays.adGroup}`}</b>, {stays.match}.
          </p>
          <Reason group={group} />
          {over && <TakesOver over={over} />}
          <LeftOrLeaving leaving={leaving} />
          {line.keywords.some(({ bidMicros }, i) => i !== at && bidMicros === null) && (
            <p className="mt-1 text-table text-soft">
              One without a known bid can not be put back as it was: it is paused, not removed.
            </p>
          )}
        </>
      )}
    </InHand>
  );
}

/** Why it is suggested, in numbers. */
function Reason({ group: { line, at } }: { group: Group }) {
  const money = useMoney();
  const [first, second] = line!.keywords;
  const stays = line!.keywords[at]!;
  if (at > 0) {
    return (
      <p className="mt-1 text-table text-soft">
        Suggested was “{first!.text}” in {first!.campaign} · {first!.adGroup}.
      </p>
    );
  }
  if (stays.expectedMicros === null)
    return <p className="mt-1 text-table text-soft">None of them converted, so none is surely the better.</p>;
  return (
    <p className="mt-1 text-table">
      A conversion is expected to cost <b>{money(stays.expectedMicros)}</b>
      {second?.expectedMicros != null && `, beside ${money(second.expectedMicros)} for the next`}
      {'; '}
      {line!.sure > 0 ? `sure to ${formatShare(line!.sure)}` : 'nothing is sure yet'}.
    </p>
  );
}

function TakesOver({ over }: { over: HandsOverView['keywords'][number] }) {
  const money = useMoney();
  const { others, takesOver, stopped, outOfReach } = over;
  if (others.terms === 0)
    return <p className="mt-1.5 text-table text-soft">The others served nothing in these days.</p>;
  return (
    <>
      <p className="mt-1.5 text-table">
        Takes over {formatCount(takesOver.terms)} of {counted(others.terms, 'term')} of the others:{' '}
        {counted(takesOver.clicks, 'click')}, {money(takesOver.costMicros)}, {conversionsOf(takesOver)}.
      </p>
      {outOfReach.count > 0 && (
        <p className="mt-1 text-table text-rust">
          Its match type does not reach {formatCount(outOfReach.count)}: {quoted(outOfReach)}
        </p>
      )}
      {stopped.count > 0 && (
        <p className="mt-1 text-table text-rust">
          A negative stops {formatCount(stopped.count)} where it stands: {quoted(stopped)}
        </p>
      )}
    </>
  );
}

/** The first of some texts as the end of a sentence. */
function quoted({ count, first }: HandsOverView['keywords'][number]['stopped']): string {
  const named = first.map((text) => `“${text}”`).join(', ');
  return count > first.length ? `${named} …` : `${named}.`;
}
