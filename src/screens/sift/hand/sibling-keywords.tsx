'use client';

import { useMoney } from '@/screens/frame/money';
import { useQuery } from '@tanstack/react-query';
import { formatConversions, formatCount } from '@/ui/format';
import { useRoutes } from '@/screens/frame/data/routes';
import { inDays } from '@/screens/frame/data/days';
import { ErrorText } from '@/ui/said';

/** The keywords of the ad group that served a term, to compare it with. */
export function SiblingKeywords({
  adGroup,
  served,
  days,
}: {
  adGroup: string;
  served: string | null;
  days: string | null;
}) {
  const formatMoney = useMoney();
  const { query } = useRoutes();
  const { data, error } = useQuery(query('GET sift/keywords', { query: { adGroup, ...inDays(days) } }));
  if (error) return <ErrorText error={error} />;
  if (!data) return <p>…</p>;
  return (
    <div
      className="my-1 max-h-36 overflow-y-auto border-y border-line"
      tabIndex={0}
      role="group"
      aria-label={`Keywords of ${data.adGroup}`}
    >
      <table className="w-full text-small">
        <thead>
          <tr>
            <th className="text-left font-normal">keywords of {data.adGroup}</th>
            <th className="text-right font-normal">clicks</th>
            <th className="text-right font-normal">cost</th>
            <th className="text-right font-normal">conv.</th>
          </tr>
        </thead>
        <tbody>
          {data.keywords.map((k) => (
            <tr key={k.id} className={k.text === served ? 'text-ink' : ''}>
              <td className="max-w-36 truncate" title={`${k.text} (${k.match}, ${k.status})`}>
                <span className={k.text === served ? 'font-semibold' : ''}>{k.text || 'automatic'}</span>{' '}
                {k.text !== '' && k.match}
                {k.status !== 'live' && `, ${k.status}`}
              </td>
              <td className="text-right">{formatCount(k.clicks)}</td>
              <td className="text-right">{formatMoney(k.costMicros)}</td>
              <td className="text-right">{formatConversions(k.conversions)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
