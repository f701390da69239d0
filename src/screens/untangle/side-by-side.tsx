'use client';

import type { ReactNode } from 'react';
import { Radio } from '@/ui/radio';

/** More figures than that have heads of two lines where the window is narrow. */
const MOST_ON_A_LINE = 8;
const FIGURE = 'pl-3 text-right whitespace-nowrap';

type Props = {
  /** of the section, for those who hear it */
  label: string;
  title: ReactNode;
  /** what the choices are, and their figures */
  heads: readonly string[];
  choices: readonly { key: string; says: ReactNode; figures: readonly ReactNode[] }[];
  /** the one that is chosen, from 0 */
  at: number;
  onChoose: (at: number) => void;
  children?: ReactNode;
};

/** The choices for what is in hand, with their figures side by side; the first nine have a digit as their key. */
export function SideBySide({
  label,
  title,
  heads: [what, ...heads],
  choices,
  at,
  onChoose,
  children,
}: Props) {
  const wraps = heads.length > MOST_ON_A_LINE ? 'max-2xl:whitespace-normal' : '';
  return (
    <section aria-label={label} className="max-h-[45%] shrink-0 overflow-auto border-t border-line px-4 py-2">
      <h2 className="text-table font-semibold">{title}</h2>
      {children}
      <table className="mt-1 w-full text-table">
        <thead className="text-small text-soft">
          <tr>
            <th className="w-full min-w-36 text-left align-bottom font-normal">{what}</th>
            {heads.map((name) => (
              <th key={name} className={`${FIGURE} align-bottom font-normal ${wraps}`}>
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {choices.map(({ key, says, figures }, i) => (
            <tr key={key} className="border-t border-line">
              <td>
                <label className="flex items-center gap-1">
                  <Radio name={label} checked={i === at} onChange={() => onChoose(i)} />
                  <span className="min-w-0 break-words">
                    {says} <span className="text-small text-soft">{i < 9 && i + 1}</span>
                  </span>
                </label>
              </td>
              {figures.map((figure, f) => (
                <td key={heads[f]} className={FIGURE}>
                  {figure}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
