'use client';

import {
  DndContext,
  DragOverlay,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { useState, type KeyboardEvent } from 'react';
import { counted } from '@/core';
import type { Group } from '@/contracts/groups';
import type { RemainderLine } from '@/contracts/research';
import { useSingleKeys } from '@/screens/frame/keys/keys';
import { Button, Key } from '@/ui/button';
import { formatCount } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import { useRemainder } from '../hand/use-remainder';
import type { ResearchUrl } from '../research-url';
import { GroupInHand, FIELD_IDS } from './group-in-hand';
import { keyOfGroup, keyOfRow, LEFT, type GroupRow } from './group-rows';
import { GroupSettings } from './group-settings';
import { GroupsTable } from './groups-table';
import { MakeDialog } from './make-dialog';
import type { Groups } from './use-groups';

type Props = {
  sheet: { id: number; name: string };
  groups: Groups;
  url: ResearchUrl;
  onChange: (change: Partial<ResearchUrl>) => void;
};

/** What stays of a sheet in groups: a table of them that opens, and what is left over always in sight. */
export function GroupsView({ sheet, groups, url, onChange }: Props) {
  const { view, row } = groups;
  const [stops, setStops] = useState(false);
  const [makes, setMakes] = useState(false);
  const [drawn, setDrawn] = useState<GroupRow>();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const inHand = row?.kind === 'group' ? row.group : undefined;
  const stop = useRemainder(sheet.id, stops && inHand ? asRemainder(inHand) : undefined, url);
  const keys = useGroupKeys(
    groups,
    inHand,
    stops ? () => void stop.put().then((isIn) => setStops(!isIn)) : () => setStops(true),
  );
  const proposed = view?.groups.filter(({ isProposed }) => isProposed) ?? [];
  const grouped = view?.groups.reduce((sum, { ideas }) => sum + ideas.length, 0) ?? 0;

  function drop({ active, over }: DragEndEvent) {
    setDrawn(undefined);
    const from = rowIn(active.data.current);
    const onto = rowIn(over?.data.current);
    if (!from || !onto || keyOfRow(from) === keyOfRow(onto)) return;
    const into = onto.kind === 'group' ? onto.group : null;
    if (from.kind === 'idea') {
      const marked = groups.chosen().some(({ text }) => text === from.idea.text)
        ? groups.chosen()
        : [from.idea];
      return void groups.put(marked, into);
    }
    if (from.kind === 'group') return void (into ? groups.merge(from.group, into) : groups.drop(from.group));
  }

  return (
    <>
      <GroupSettings url={url} onChange={onChange} />
      {view && (
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line px-3 py-1 text-table text-soft">
          <span>
            <b className="text-ink">{counted(view.groups.length, 'group')}</b>
            {proposed.length > 0 && `, ${formatCount(proposed.length)} proposed`}, {counted(grouped, 'idea')}{' '}
            in them;{' '}
            <button type="button" className="text-pine underline" onClick={() => groups.turn(LEFT)}>
              {counted(view.left.length, 'idea')} left over
            </button>
          </span>
          <span className="ml-auto flex gap-1.5">
            {proposed.length > 0 && (
              <Button onClick={() => void groups.take(proposed)}>
                Take all {formatCount(proposed.length)} <Key>t</Key>
              </Button>
            )}
            <Button disabled={view.groups.length === 0} onClick={() => setMakes(true)}>
              Make ad groups…
            </Button>
          </span>
        </div>
      )}
      {groups.error ? (
        <ErrorText error={groups.error} isWhole />
      ) : (
        <DndContext
          id="groups-dnd"
          sensors={sensors}
          onDragStart={({ active }) => setDrawn(rowIn(active.data.current))}
          onDragCancel={() => setDrawn(undefined)}
          onDragEnd={drop}
        >
          <GroupsTable groups={groups} onKey={keys} />
          <DragOverlay dropAnimation={null}>
            {drawn && (
              <span className="rounded border border-pine bg-sheet px-2 py-0.5 text-table shadow">
                {drawn.kind === 'idea' ? drawn.idea.text : drawn.kind === 'group' ? drawn.group.name : ''}
              </span>
            )}
          </DragOverlay>
        </DndContext>
      )}
      <GroupInHand groups={groups} stop={stop} stops={stops} onStops={setStops} />
      {makes && view && <MakeDialog sheet={sheet} groups={view.groups} onClose={() => setMakes(false)} />}
    </>
  );
}

const rowIn = (data: Record<string, unknown> | undefined) => data?.row as GroupRow | undefined;

/** A group as what would be stopped: its name. */
const asRemainder = ({ name, ideas, volume, openingBidMicros }: Group): RemainderLine => ({
  ...{ text: name, forms: [name], ideas: ideas.length, volume, openingBidMicros },
  ...{ relatedness: null, fault: null, location: null, example: ideas[0]?.text ?? name },
});

function useGroupKeys(groups: Groups, group: Group | undefined, stop: () => void) {
  const [single] = useSingleKeys();
  const { row, opened } = groups;
  const focus = (id: string) => document.getElementById(id)?.focus();
  const open = (wanted: boolean) => {
    const key = row && (row.kind === 'idea' ? (row.group ? keyOfGroup(row.group) : LEFT) : keyOfRow(row));
    if (key !== undefined && opened.has(key) !== wanted) groups.turn(key);
  };
  return (event: KeyboardEvent): boolean => {
    if (event.ctrlKey || event.metaKey || event.altKey) return false;
    const always: Record<string, (() => void) | undefined> = {
      Enter: () => (group ? void groups.take([group]) : open(true)),
      ArrowRight: () => open(true),
      ArrowLeft: () => open(false),
    };
    const letters: Record<string, (() => void) | undefined> = {
      t: () => void groups.take(groups.view?.groups ?? []),
      n: group && (() => focus(FIELD_IDS.name)),
      m: () => focus(FIELD_IDS.into),
      p: group ? undefined : () => focus(FIELD_IDS.apart),
      w: group && (() => void groups.eachItsOwn(group)),
      s: group && stop,
      x: group ? () => void groups.drop(group) : () => void groups.put(groups.chosen(), null),
      f: () => focus('first-filter'),
    };
    const does = always[event.key] ?? (single ? letters[event.key] : undefined);
    does?.();
    return does !== undefined;
  };
}
