'use client';

import { ChevronRight, X } from 'lucide-react';
import { useState, type KeyboardEvent } from 'react';
import { counted, doesWhat } from '@/core';
import type { TrayChange } from '@/contracts/tray';
import { useMoney } from '@/screens/frame/money';
import { formatDay } from '@/ui/format';
import { StateIcon } from '@/ui/state-icon';
import { useRoving } from '@/ui/use-roving';
import { effectOf, groupChanges, sayGroup, type ChangeGroup } from './groups';

/** More changes of a group than that nobody reads here: the page before sending lists them all. */
const MOST_SHOWN = 100;

type Props = { changes: readonly TrayChange[]; onRemove: (ids: readonly number[]) => void };
type Item = { kind: 'group'; group: ChangeGroup } | { kind: 'change'; change: TrayChange; isInside: boolean };

/** The changes of the tray: what one action put in is one group, which opens. Delete takes the one with the focus out. */
export function TrayList({ changes, onRemove }: Props) {
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const groups = groupChanges(changes);
  const items = groups.flatMap((group): Item[] => {
    if (group.changes.length === 1) return [{ kind: 'change', change: group.changes[0]!, isInside: false }];
    const inside = opened.has(group.key) ? group.changes.slice(0, MOST_SHOWN) : [];
    return [
      { kind: 'group', group },
      ...inside.map((change): Item => ({ kind: 'change', change, isInside: true })),
    ];
  });
  const roving = useRoving(items.length);
  const turn = (key: string) => {
    const next = new Set(opened);
    if (!next.delete(key)) next.add(key);
    setOpened(next);
  };
  function onKeyDown(event: KeyboardEvent<HTMLElement>) {
    const item = items[roving.at];
    const isOnItem = event.target instanceof HTMLElement && event.target.matches('[data-item]');
    if (event.key === 'Delete' && item && isOnItem) {
      event.preventDefault();
      onRemove(item.kind === 'group' ? item.group.changes.map(({ id }) => id) : [item.change.id]);
    } else roving.list.onKeyDown(event);
  }
  return (
    <ul className="-mx-4 mt-2 border-t border-line" onKeyDown={onKeyDown} onFocus={roving.list.onFocus}>
      {items.map((item, index) =>
        item.kind === 'group' ? (
          <GroupRow
            key={item.group.key}
            group={item.group}
            item={roving.itemOf(index)}
            isOpen={opened.has(item.group.key)}
            onTurn={() => turn(item.group.key)}
            onRemove={onRemove}
          />
        ) : (
          <ChangeRow
            key={item.change.id}
            change={item.change}
            item={roving.itemOf(index)}
            isInside={item.isInside}
            onRemove={onRemove}
          />
        ),
      )}
    </ul>
  );
}

type RowProps = {
  item: ReturnType<ReturnType<typeof useRoving>['itemOf']>;
  onRemove: Props['onRemove'];
};

type GroupProps = RowProps & { group: ChangeGroup; isOpen: boolean; onTurn: () => void };

function GroupRow({ group: { changes }, item, isOpen, onTurn, onRemove }: GroupProps) {
  const { title, first } = sayGroup(changes);
  const hurts = changes.some(({ touched, heldBackBy }) => touched.length > 0 || heldBackBy.count > 0);
  return (
    <li className="flex items-start gap-2 border-b border-line px-4 py-1 text-table">
      <StateIcon kind={hurts ? 'hurting' : ICON_OF[doesWhat(changes[0]!.change)]} className="mt-0.5" />
      <button
        type="button"
        {...item}
        aria-expanded={isOpen}
        className="min-w-0 flex-1 text-left"
        onClick={onTurn}
      >
        <span className="flex items-center gap-0.5 font-semibold">
          {title}
          <ChevronRight size={13} aria-hidden className={isOpen ? 'rotate-90' : ''} />
        </span>
        <span className="block truncate text-small text-soft">{first}</span>
        {isOpen && changes.length > MOST_SHOWN && (
          <span className="block text-small text-soft">
            the first {MOST_SHOWN} of {changes.length}; the page before sending lists all
          </span>
        )}
      </button>
      <EffectCell changes={changes} />
      <TakeOut said={`${title}: ${first}`} onPress={() => onRemove(changes.map(({ id }) => id))} />
    </li>
  );
}

const ICON_OF = { stops: 'stopped', opens: 'open', neither: 'post' } as const;

type ChangeProps = RowProps & { change: TrayChange; isInside: boolean };

function ChangeRow({ change, item, isInside, onRemove }: ChangeProps) {
  const hurts = change.touched.length > 0 || change.heldBackBy.count > 0;
  return (
    <li
      {...item}
      className={`flex items-start gap-2 border-b border-line py-1 pr-4 text-table ${isInside ? 'bg-sheet pl-9' : 'pl-4'}`}
    >
      <StateIcon kind={hurts ? 'hurting' : ICON_OF[doesWhat(change.change)]} className="mt-0.5" />
      <span className="min-w-0 flex-1 leading-[17px] break-words">
        <Said text={change.said} />
        {change.reaches && (
          <span className="line-clamp-1 text-small text-soft" title={change.reaches}>
            {change.reaches}
          </span>
        )}
        {change.failedBefore && (
          <span className="block text-small text-rust">Failed before: {change.failedBefore}</span>
        )}
        {change.endsOn && (
          <span className="block text-small text-soft">until {formatDay(change.endsOn, true)}</span>
        )}
        {change.forcedBecause && (
          <span className="block text-small text-rust">Forced: {change.forcedBecause}</span>
        )}
      </span>
      <EffectCell changes={[change]} />
      <TakeOut said={change.said} onPress={() => onRemove([change.id])} />
    </li>
  );
}

/** What a change does, and below it where. */
function Said({ text }: { text: string }) {
  const [, does, where] = /^(.* “.*” \([a-z]+\)) in (.+)$/.exec(text) ?? [];
  if (does === undefined) return text;
  return (
    <>
      {does} <span className="block text-small text-soft">in {where}</span>
    </>
  );
}

function EffectCell({ changes }: { changes: readonly TrayChange[] }) {
  const money = useMoney();
  const { terms, costMicros, opens } = effectOf(changes);
  if (terms === 0) return <span className="shrink-0 text-small text-soft">nothing more</span>;
  return (
    <span className="shrink-0 text-right text-small leading-[17px] text-soft">
      {opens && 'opens '}
      {counted(terms, 'term')}
      <br />
      {money(costMicros)}
    </span>
  );
}

function TakeOut({ said, onPress }: { said: string; onPress: () => void }) {
  return (
    <button
      type="button"
      tabIndex={-1} // Delete does it, too
      aria-label={`Take out: ${said}`}
      className="-mr-1.5 flex min-h-6 min-w-6 items-center justify-center text-soft hover:text-ink"
      onClick={onPress}
    >
      <X size={14} aria-hidden />
    </button>
  );
}
