'use client';

import { ROLES_OF_KIND, type ColumnRole, type ReadDecisions } from '@/core';
import type { ReadingAnswer } from '@/contracts/intake';
import { optionsOf, Select, type Option } from '@/ui/select';
import { withRole } from './reading-state';

type Props = {
  answer: ReadingAnswer;
  chosen: number | null;
  onChoose: (index: number) => void;
  onDecide: (decisions: ReadDecisions) => void;
};

/** Each column of the file, what it was taken for, and why. */
export function ColumnsTable({ answer: { reading, decisions }, chosen, onChoose, onDecide }: Props) {
  const roles: readonly ColumnRole[] = ROLES_OF_KIND[reading.kind];
  const options: Option<ColumnRole | ''>[] = [{ key: '', says: 'left out' }, ...optionsOf(roles)];
  return (
    <table className="w-full table-fixed self-start text-table">
      <caption className="pb-1 text-left text-base font-semibold">Columns</caption>
      <thead className="text-left text-small text-soft">
        <tr>
          <th className="w-[26%] font-normal">in the file</th>
          <th className="w-[116px] font-normal">taken for</th>
          <th className="font-normal">because</th>
          <th className="w-[22%] text-right font-normal">first cell</th>
        </tr>
      </thead>
      <tbody>
        {reading.columns.map((column) => (
          <tr
            key={column.index}
            className={`border-t border-line ${column.index === chosen ? 'bg-straw/50 shadow-[inset_3px_0_0] shadow-pine' : ''}`}
          >
            <td className="py-0.5">
              <button
                type="button"
                className="min-h-6 w-full truncate pl-1.5 text-left font-semibold hover:underline"
                title={column.header}
                aria-pressed={column.index === chosen}
                onClick={() => onChoose(column.index)}
              >
                {column.header}
              </button>
            </td>
            <td>
              <Select
                label={`${column.header} is taken for`}
                value={column.role ?? ''}
                options={options}
                look={column.role === null ? 'quiet' : 'word'}
                onChange={(picked) =>
                  onDecide(withRole(decisions, reading.columns, column.index, picked === '' ? null : picked))
                }
              />
            </td>
            <td className="truncate text-soft" title={column.because}>
              {column.because}
            </td>
            <td className="truncate text-right text-soft" title={column.sample}>
              {column.sample}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
