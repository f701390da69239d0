import { act, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, test, vi } from 'vitest';
import type { Column } from './column';
import { DataTable, type DataTableProps } from './data-table';
import { useLayout, type Sort } from './use-layout';

type Bee = { name: string; frames: number | null; note: string };
const BEES: Bee[] = [
  { name: 'Carniolan', frames: 9, note: '=calm' },
  { name: 'Buckfast', frames: 12, note: 'steady\there' },
  { name: 'Black', frames: null, note: 'hardy' },
];
const COLUMNS: Column<Bee>[] = [
  {
    ...{ id: 'name', name: 'name', px: 100, share: 1, isText: true, isSortable: true },
    value: ({ name }) => name,
    cell: ({ name }) => name,
  },
  {
    ...{ id: 'frames', name: 'frames', px: 60, isSortable: true, explains: 'Frames that it covers.' },
    value: ({ frames }) => frames,
    cell: ({ frames }) => frames ?? '–',
  },
  {
    ...{ id: 'note', name: 'note', px: 80, isText: true, isOff: true },
    value: ({ note }) => note,
    cell: ({ note }) => note,
  },
];

function Bees({ bees = BEES, ...over }: { bees?: Bee[] } & Partial<DataTableProps<Bee, undefined>>) {
  const [sort, setSort] = useState<Sort | null>(null);
  const [cursor, setCursor] = useState(0);
  const [marked, setMarked] = useState<readonly string[]>([]);
  const layout = useLayout('bees', COLUMNS, bees, sort);
  const { rows } = layout;
  return (
    <DataTable
      id="bees"
      label="Bees"
      layout={layout}
      count={rows.length}
      rowAt={(index) => rows[index]}
      cursor={cursor}
      onCursor={setCursor}
      sort={sort}
      onSort={setSort}
      marks={{
        has: ({ name }) => marked.includes(name),
        all: marked.length === rows.length || (marked.length > 0 && 'mixed'),
        turn: (indexes) => setMarked([...marked, ...indexes.map((i) => rows[i]!.name)]),
        turnAll: () => setMarked(rows.map(({ name }) => name)),
        markAll: () => setMarked(rows.map(({ name }) => name)),
        unmarkAll: () => setMarked([]),
      }}
      saveAs="bees"
      {...over}
    />
  );
}

const grid = () => screen.getByRole('grid', { name: 'Bees' });
const names = () =>
  within(grid())
    .getAllByRole('row')
    .slice(1)
    .map((row) => within(row).getAllByRole('gridcell')[1]!.textContent);
const inHand = () => within(grid()).getByRole('row', { selected: true }).textContent;
/** What was copied; the package of the tests has a clipboard of its own. */
const copied = () => navigator.clipboard.readText();

function showBees(over: Parameters<typeof Bees>[0] = {}) {
  const user = userEvent.setup();
  render(<Bees {...over} />);
  return user;
}

describe('the data table', () => {
  test('has the focus when it appears; one aside has not', () => {
    showBees();
    expect(document.activeElement).toBe(grid());
  });

  test('is one stop of Tab', () => {
    showBees();
    const stops = [...document.querySelectorAll<HTMLElement>('button, [tabindex]')].filter(
      (e) => e.tabIndex >= 0,
    );
    expect(stops).toEqual([grid()]);
  });

  test('goes by arrows, opens by Enter, and hands on the keys that it does not know', async () => {
    const [onOpen, onKey] = [vi.fn(), vi.fn()];
    const user = showBees({ onOpen, onKey });
    await user.keyboard('{ArrowDown}{ArrowDown}{ArrowDown}');
    expect(inHand()).toContain('Black');
    await user.keyboard('{Home}{Enter}x');
    expect(onOpen).toHaveBeenCalledWith(0);
    expect(onKey).toHaveBeenCalledTimes(1);
  });

  test('above the first row, the keys are at the heads: they sort, size, and explain', async () => {
    const user = showBees();
    await user.keyboard('{ArrowUp}{ArrowRight}');
    expect(grid().getAttribute('aria-activedescendant')).toBe('bees-head-frames');
    expect(await screen.findByText('Frames that it covers.')).toBeDefined();
    await user.keyboard('{Enter}');
    expect(names()).toEqual(['Buckfast', 'Carniolan', 'Black']); // what is not known comes last
    await user.keyboard('{Enter}');
    expect(names()).toEqual(['Carniolan', 'Buckfast', 'Black']);
    await user.keyboard('{ArrowDown}');
    expect(grid().getAttribute('aria-activedescendant')).toBe('bees-row-0');
  });

  test('columns are chosen, and the choice is remembered', async () => {
    const user = showBees();
    await user.keyboard('{ArrowUp} ');
    await user.click(await screen.findByRole('checkbox', { name: 'note' }));
    expect(within(grid()).getByRole('columnheader', { name: /note/ })).toBeDefined();
    expect(JSON.parse(localStorage.getItem('gatepost-table-bees')!)).toMatchObject({
      visible: { note: true },
    });
    await user.keyboard('{Escape}');
    await waitFor(() => expect(document.activeElement).toBe(grid()));
  });

  test('copies the row in hand, or those that are marked, as cells that start no formula', async () => {
    localStorage.setItem('gatepost-table-bees', JSON.stringify({ visible: { note: true } }));
    const user = showBees();
    await user.keyboard('{Control>}c{/Control}');
    expect(await copied()).toBe("Carniolan\t9\t'=calm");
    await user.keyboard('{Control>}a{/Control}{Control>}c{/Control}');
    await waitFor(async () =>
      expect(await copied()).toBe("Carniolan\t9\t'=calm\nBuckfast\t12\tsteady here\nBlack\t\thardy"),
    );
  });

  test('is printed whole, and says so where it is not', () => {
    const bees = Array.from({ length: 1_002 }, (_, i) => ({ name: `Bee ${i}`, frames: i, note: '' }));
    showBees({ bees });
    const drawn = () => within(grid()).getAllByRole('row', { hidden: true }).length - 1;
    expect(drawn()).toBeLessThan(100);
    act(() => void window.dispatchEvent(new Event('beforeprint')));
    expect(drawn()).toBe(1_000);
    expect(screen.getByText(/^The first 1,000 rows of 1,002/)).toBeDefined();
    act(() => void window.dispatchEvent(new Event('afterprint')));
    expect(drawn()).toBeLessThan(100);
  });

  test('Shift and an arrow mark what is passed, Esc takes all marks off', async () => {
    const user = showBees();
    await user.keyboard('{Shift>}{ArrowDown}{/Shift}');
    expect(within(grid()).getAllByRole('button', { name: 'Mark', pressed: true })).toHaveLength(2);
    await user.keyboard('{Escape}');
    expect(within(grid()).queryAllByRole('button', { name: 'Mark', pressed: true })).toHaveLength(0);
  });
});
