'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef } from 'react';
import { counted, listed } from '@/core';
import { useSingleKeys } from '@/screens/frame/keys/keys';
import { useMoney } from '@/screens/frame/money';
import { Button } from '@/ui/button';
import { Explain } from '@/ui/explain';
import { formatCount } from '@/ui/format';
import { MissingGroups } from './missing-groups';
import { PASS_COLUMNS, PassRow } from './pass-row';
import { onPassKey } from './pass-keys';
import { STEPS, type PassItem, type Step } from './pass-items';
import { PassProgress } from './pass-progress';
import type { Pass } from './use-pass';
import { EmptyState, ErrorText } from '@/ui/said';

const [ROW, HEAD] = [30, 44];

type Line = { kind: 'head'; step: Step } | { kind: 'item'; item: PassItem; index: number };

/** The guided pass through what surely can't pay: words at fault, terms that surely miss, what is left by cost. */
export function PassSurface({ pass }: { pass: Pass }) {
  const [single] = useSingleKeys();
  const scroller = useRef<HTMLDivElement>(null);
  const { answer, items, at, item } = pass;
  const lines = STEPS.flatMap((step): Line[] => [
    { kind: 'head', step },
    ...items.flatMap((one, index): Line[] => (one.step === step ? [{ kind: 'item', item: one, index }] : [])),
  ]);
  const lineInHand = lines.findIndex((line) => line.kind === 'item' && line.index === at);
  const rows = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => (lines[i]!.kind === 'head' ? HEAD : ROW),
    overscan: 12,
  });
  useEffect(() => {
    if (lineInHand >= 0) rows.scrollToIndex(lineInHand);
  }, [lineInHand, rows]);
  if (pass.error) return <ErrorText error={pass.error} isWhole />;
  if (!answer) return <EmptyState>Judging the words of all days that are kept …</EmptyState>;
  return (
    <>
      <PassProgress answer={answer} />
      <div aria-hidden className={`${PASS_COLUMNS} border-b border-line py-1 text-small leading-4 text-soft`}>
        <span>word or term</span>
        <span className="text-right">would have brought</span>
        <span className="text-right">brought</span>
        <span>sure</span>
        <span className="text-right">stops terms</span>
        <span className="text-right">cost</span>
        <span className="text-right">risks conv.</span>
      </div>
      <div
        id="pass"
        ref={scroller}
        role="grid"
        aria-label="What surely can’t pay"
        aria-rowcount={items.length}
        aria-activedescendant={item ? `pass-${at}` : undefined}
        tabIndex={0}
        className="min-h-0 flex-1 overflow-y-auto"
        onKeyDown={(event) => onPassKey(event, pass, single)}
      >
        <div role="rowgroup" className="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map(({ index, key, start }) => {
            const line = lines[index]!;
            return (
              <div key={key} className="absolute inset-x-0" style={{ top: start }}>
                {line.kind === 'head' ? (
                  <StepHead step={line.step} pass={pass} />
                ) : (
                  <PassRow
                    id={`pass-${line.index}`}
                    item={line.item}
                    index={line.index}
                    since={answer.since}
                    isInHand={line.index === at}
                    onChoose={() => pass.move(line.index)}
                  />
                )}
              </div>
            );
          })}
        </div>
      </div>
    </>
  );
}

const NAMES: Record<Step, string> = {
  words: 'Words at fault',
  terms: 'Terms that surely miss, worse than their neighbours',
  left: 'What is left, by cost',
};

/** A step: what it would stop altogether, and one press for all of it. */
function StepHead({ step, pass }: { step: Step; pass: Pass }) {
  const formatMoney = useMoney();
  const { answer, items } = pass;
  const count = items.filter((item) => item.step === step).length;
  const number = STEPS.indexOf(step) + 1;
  const saysOf = (of: Step) => {
    if (of === 'left' && answer!.left.count > 0)
      return `${counted(answer!.left.count, 'term')} without return, ${formatMoney(answer!.left.costMicros)}: read them one by one`;
    if (of === 'left' || count === 0) return 'nothing, or all of it is decided';
    const { costMicros, risks } = answer!.gain[of];
    return `${formatCount(count)}, ${formatMoney(costMicros)}, at the risk of ${risks.toFixed(1)} conversions`;
  };
  return (
    <div
      role="row"
      className="flex h-[44px] items-center gap-2 border-b border-line bg-paper px-3 text-table"
    >
      <span role="gridcell" className="min-w-0 flex-1 truncate">
        <b className="font-title text-hand">
          {number} {NAMES[step]}
        </b>{' '}
        <span className="text-soft">{saysOf(step)}</span>
      </span>
      {step === 'terms' && answer!.groups.length > 0 && (
        <span role="gridcell">
          <MissingGroups groups={answer!.groups} />
        </span>
      )}
      {step === 'words' && answer!.barred.length > 0 && (
        <span role="gridcell" className="text-small">
          <Explain about="words not offered" trigger={`${formatCount(answer!.barred.length)} not offered`}>
            {sayBarred(pass).map((line) => (
              <p key={line}>{line}</p>
            ))}
          </Explain>
        </span>
      )}
      {step !== 'left' && count > 0 && (
        <span role="gridcell">
          <Button hotkey="Shift ↵" tabIndex={-1} onClick={() => void pass.putStep(step)}>
            All in the tray
          </Button>
        </span>
      )}
    </div>
  );
}

const sayBarred = ({ answer }: Pass) =>
  answer!.barred
    .slice(0, 12)
    .map(({ ngram, by, names }) => `“${ngram}” would stop the ${by} ${listed(names.first, names.count)}`);
