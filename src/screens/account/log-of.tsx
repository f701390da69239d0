import type { ReactNode } from 'react';
import { formatMoment } from '@/ui/format';
import { settingId } from './setting';

type Props = {
  name: string;
  /** undefined until they are known */
  lines: { id: string; at: string; by: string; what: string }[] | undefined;
  /** in the place of lines, where there are none */
  none: string;
  /** what stands in the list, below it */
  says: string;
  /** above the list */
  children?: ReactNode;
};

/** What people did, the newest first, under the name of a setting. */
export function LogOf({ name, lines, none, says, children }: Props) {
  const id = settingId(name);
  return (
    <section aria-labelledby={id} className="flex items-start gap-4 border-b border-line px-4 py-2.5">
      <h2 id={id} className="w-[112px] shrink-0 pt-0.5 font-semibold">
        {name}
      </h2>
      <div className="min-w-0 flex-1">
        {children}
        {lines?.length === 0 && <p className="pt-0.5">{none}</p>}
        {lines && lines.length > 0 && (
          <ul aria-label={name} className="max-h-44 overflow-y-auto" tabIndex={0}>
            {lines.map(({ id, at, by, what }) => (
              <li key={id} className="flex min-h-6 gap-3">
                <span className="w-28 shrink-0 text-soft">{formatMoment(at)}</span>
                <span className="w-40 shrink-0 truncate">{by}</span>
                <span className="truncate" title={what}>
                  {what}
                </span>
              </li>
            ))}
          </ul>
        )}
        <p className="mt-0.5 text-table text-soft">{says}</p>
      </div>
    </section>
  );
}
