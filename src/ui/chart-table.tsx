import type { ReactNode } from 'react';

/** The table behind a chart, folded under what the chart shows. Cells are named by the first of their row. */
export function ChartTable({
  summary,
  label,
  head,
  rows,
}: {
  summary: ReactNode;
  /** of the table, for those who do not see the chart */
  label: string;
  head: readonly string[];
  rows: readonly (readonly [name: string, ...cells: ReactNode[]])[];
}) {
  return (
    <figcaption>
      <details className="text-small text-soft">
        <summary>{summary}</summary>
        <div className="max-h-40 overflow-y-auto" tabIndex={0} role="group" aria-label={label}>
          <table className="w-full text-right">
            <thead>
              <tr>
                {head.map((name, i) => (
                  <th key={name} className={i === 0 ? 'text-left font-normal' : 'font-normal'}>
                    {name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map(([name, ...cells]) => (
                <tr key={name}>
                  <td className="text-left">{name}</td>
                  {cells.map((cell, i) => (
                    <td key={head[i + 1]}>{cell}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </figcaption>
  );
}
