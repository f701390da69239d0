'use client';

import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { Columns3, GripVertical } from 'lucide-react';
import { Popover } from 'radix-ui';
import { Check } from '../check';
import { PopoverPanel } from '../explain';
import type { FileKind } from './cells';
import { nameOf, type AnyColumn } from './column';
import type { TableLayout } from './use-layout';

type Props<Row, C> = {
  layout: TableLayout<Row, C>;
  isOpen: boolean;
  onOpen: (isOpen: boolean) => void;
  /** the table takes the focus again */
  onClosed: () => void;
  /** undefined where a table is not saved */
  onSave: ((kind: FileKind) => void) | undefined;
};

/** The columns of a table, to choose, to order and to size; and the table as a file. */
export function TableMenu<Row, C extends AnyColumn>({
  layout,
  isOpen,
  onOpen,
  onClosed,
  onSave,
}: Props<Row, C>) {
  return (
    <Popover.Root open={isOpen} onOpenChange={onOpen}>
      <Popover.Trigger
        aria-label="Columns, and saving the table"
        tabIndex={-1}
        className="flex size-6 shrink-0 items-center justify-center hover:text-ink"
      >
        <Columns3 size={13} aria-hidden />
      </Popover.Trigger>
      <PopoverPanel
        label="Columns, and saving the table"
        onCloseAutoFocus={(event) => {
          event.preventDefault();
          onClosed();
        }}
      >
        <ColumnList layout={layout} />
        <p className="mt-1 flex flex-wrap gap-x-3 border-t border-line pt-1">
          {onSave && (
            <>
              <MenuButton onPress={() => onSave('csv')}>Save as CSV</MenuButton>
              <MenuButton onPress={() => onSave('xlsx')}>Save as XLSX</MenuButton>
            </>
          )}
          <MenuButton onPress={layout.reset}>Columns as at first</MenuButton>
        </p>
      </PopoverPanel>
    </Popover.Root>
  );
}

function MenuButton({ onPress, children }: { onPress: () => void; children: string }) {
  return (
    <button type="button" className="min-h-6 text-pine hover:underline" onClick={onPress}>
      {children}
    </button>
  );
}

/** Space takes a column up and puts it down, the arrows move it. */
function ColumnList<Row, C extends AnyColumn>({ layout }: { layout: TableLayout<Row, C> }) {
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = layout.all.map(({ id }) => id);
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        if (!over || active.id === over.id) return;
        layout.order(arrayMove(ids, ids.indexOf(String(active.id)), ids.indexOf(String(over.id))));
      }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ul>
          {layout.all.map((column, at) => (
            <ColumnItem key={column.id} column={column} isFirst={at === 0} layout={layout} />
          ))}
        </ul>
      </SortableContext>
    </DndContext>
  );
}

type ItemProps<Row, C> = { column: C; isFirst: boolean; layout: TableLayout<Row, C> };

/** The first column is what the table is about; it stays where it is. */
function ColumnItem<Row, C extends AnyColumn>({ column, isFirst, layout }: ItemProps<Row, C>) {
  const { id } = column;
  const { setNodeRef, attributes, listeners, transform } = useSortable({ id, disabled: isFirst });
  return (
    <li
      ref={setNodeRef}
      className="flex items-center gap-1 bg-sheet"
      style={transform ? { transform: `translateY(${transform.y}px)` } : undefined}
    >
      <label className="flex min-h-6 flex-1 items-center gap-1 pr-4">
        <Check
          checked={layout.isShown(id)}
          disabled={isFirst}
          onChange={(e) => layout.show(id, e.target.checked)}
        />
        {nameOf(column)}
      </label>
      {!isFirst && (
        <button
          type="button"
          className="flex size-6 cursor-grab touch-none items-center justify-center text-soft hover:text-ink"
          {...attributes}
          {...listeners}
          aria-label={`Move ${nameOf(column)}`}
        >
          <GripVertical size={13} aria-hidden />
        </button>
      )}
    </li>
  );
}
