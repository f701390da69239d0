'use client';

import { useDraggable, useDroppable } from '@dnd-kit/core';
import { ChevronDown, ChevronRight, GripVertical } from 'lucide-react';
import { useMemo, type KeyboardEvent, type ReactNode } from 'react';
import { useMoney, useUnits } from '@/screens/frame/money';
import { formatCount } from '@/ui/format';
import type { Column } from '@/ui/table/column';
import { DataTable } from '@/ui/table/data-table';
import { marksByKey } from '@/ui/table/row-marks';
import { useLayout } from '@/ui/table/use-layout';
import { keyOfGroup, keyOfRow, LEFT, type GroupRow } from './group-rows';
import type { Groups } from './use-groups';

type Look = { isOpen: boolean };

/** Groups, a row each; those that are open with their ideas below them, and what is left over at the end. */
export function GroupsTable({ groups, onKey }: { groups: Groups; onKey: (event: KeyboardEvent) => boolean }) {
  const { rows, opened, marks, at } = groups;
  const columns = useColumns();
  const layout = useLayout('groups', columns, rows, null);
  return (
    <DataTable<GroupRow, Look>
      id="groups"
      label="Groups"
      layout={layout}
      count={rows.length}
      rowAt={(index) => rows[index]}
      cursor={at}
      onCursor={groups.setCursor}
      sort={null}
      marks={marksByKey(rows, keyOfRow, marks, groups.setMarks)}
      lookOf={(row) => ({ isOpen: row !== undefined && opened.has(keyOfRow(row)) })}
      onPress={(target, index) => {
        if (!target.closest('[data-opens]')) return false;
        groups.setCursor(index);
        groups.turn(keyOfRow(rows[index]!));
        return true;
      }}
      onKey={onKey}
      isStale={groups.isStale}
      view={groups.asked}
      keysHelp="Arrows move; right opens a group and left closes it; Enter takes a proposed group, n names it, m moves or merges, p parts the marked ideas off, w makes each idea its own group, s stops it, x drops it."
      empty={groups.view && <p>Nothing stays to be grouped under these filters.</p>}
    />
  );
}

function useColumns(): readonly Column<GroupRow, Look>[] {
  const money = useMoney();
  const units = useUnits();
  return useMemo((): Column<GroupRow, Look>[] => {
    const bidOf = (row: GroupRow) => (row.kind === 'group' ? row.group.openingBidMicros : null);
    return [
      {
        ...{ id: 'name', name: 'group', px: 220, share: 1, isText: true },
        value: nameOfRow,
        cell: (row, { isOpen }, { isLight }) =>
          isLight ? nameOfRow(row) : <RowName row={row} isOpen={isOpen} />,
      },
      {
        ...{ id: 'ideas', name: 'ideas', px: 62 },
        value: ideasOf,
        cell: (row) => (row.kind === 'idea' ? '' : formatCount(ideasOf(row) ?? 0)),
      },
      {
        ...{ id: 'searches', name: 'searches', fullName: 'searches a month', px: 92 },
        value: volumeOf,
        cell(row) {
          const volume = volumeOf(row);
          return volume === null ? '–' : formatCount(volume);
        },
      },
      {
        ...{ id: 'bid', name: 'bid', fullName: 'opening bid', px: 64, yields: true },
        value: (row) => units(bidOf(row)),
        cell: (row) => (bidOf(row) === null ? '' : money(bidOf(row))),
      },
    ];
  }, [money, units]);
}

function nameOfRow(row: GroupRow): string {
  if (row.kind === 'left') return 'Left over';
  return row.kind === 'group' ? row.group.name : row.idea.text;
}
function ideasOf(row: GroupRow): number | null {
  if (row.kind === 'left') return row.count;
  return row.kind === 'group' ? row.group.ideas.length : null;
}
function volumeOf(row: GroupRow): number | null {
  if (row.kind === 'left') return null;
  return row.kind === 'group' ? row.group.volume : row.idea.volume;
}

function RowName({ row, isOpen }: { row: GroupRow; isOpen: boolean }) {
  if (row.kind === 'idea')
    return (
      <span className="flex items-center gap-1.5 pl-6">
        <Grip row={row} /> <span className="truncate text-ink">{row.idea.text}</span>
      </span>
    );
  const key = row.kind === 'left' ? LEFT : keyOfGroup(row.group);
  return (
    <DropPlace row={row} id={key}>
      <span data-opens className="inline-flex size-5 shrink-0 items-center justify-center text-soft">
        {isOpen ? <ChevronDown size={14} aria-hidden /> : <ChevronRight size={14} aria-hidden />}
      </span>
      {row.kind === 'group' && <Grip row={row} />}
      <b className={`truncate ${row.kind === 'left' ? 'text-soft' : ''}`}>{nameOfRow(row)}</b>
      {row.kind === 'group' && row.group.isProposed && <span className="text-small text-soft">proposed</span>}
    </DropPlace>
  );
}

/** What a row is drawn by; the keys do the same, so that it takes no stop of Tab. */
function Grip({ row }: { row: GroupRow }) {
  const { setNodeRef, listeners } = useDraggable({ id: keyOfRow(row), data: { row } });
  return (
    <span
      ref={setNodeRef}
      {...listeners}
      className="cursor-grab touch-none text-soft/60"
      title="Draw it onto a group"
    >
      <GripVertical size={13} aria-hidden />
    </span>
  );
}

function DropPlace({ row, id, children }: { row: GroupRow; id: string; children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: `into ${id}`, data: { row } });
  return (
    <span
      ref={setNodeRef}
      className={`flex items-center gap-1.5 rounded ${isOver ? 'bg-straw outline-2 outline-pine' : ''}`}
    >
      {children}
    </span>
  );
}
