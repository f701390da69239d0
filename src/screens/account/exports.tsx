'use client';

import { useQuery } from '@tanstack/react-query';
import { useMay } from '@/screens/frame/account-context';
import { useRoutes } from '@/screens/frame/data/routes';
import { formatMoment } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import { settingId } from './setting';

/** Which files people saved from the account; its owners see it. */
export function Exports() {
  const { may } = useMay('own');
  const { query } = useRoutes();
  const { data, error } = useQuery({ ...query('GET exports'), enabled: may, staleTime: 0 });
  if (!may) return null;
  const id = settingId('Saved files');
  return (
    <section aria-labelledby={id} className="flex items-start gap-4 border-b border-line px-4 py-2.5">
      <h2 id={id} className="w-[112px] shrink-0 pt-0.5 font-semibold">
        Saved files
      </h2>
      <div className="min-w-0 flex-1">
        <ErrorText error={error} />
        {data?.lines.length === 0 && <p className="pt-0.5">Nobody has saved a file yet.</p>}
        {data && data.lines.length > 0 && (
          <ul aria-label="Saved files" className="max-h-44 overflow-y-auto" tabIndex={0}>
            {data.lines.map(({ id, name, by, at }) => (
              <li key={id} className="flex min-h-6 gap-3">
                <span className="w-28 shrink-0 text-soft">{formatMoment(at)}</span>
                <span className="w-40 shrink-0 truncate">{by}</span>
                <span className="truncate" title={name}>
                  {name}
                </span>
              </li>
            ))}
          </ul>
        )}
        <p className="mt-0.5 text-table text-soft">
          Every file that somebody saves is noted with its name, also those that the browser makes of a table.
          What is copied as cells is not.
        </p>
      </div>
    </section>
  );
}
