'use client';

import { useQuery } from '@tanstack/react-query';
import { toast } from 'sonner';
import { counted, listed } from '@/core';
import type { Regret } from '@/contracts/today';
import { useRefresh } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { sayFailure } from '@/screens/tray/use-tray';
import { formatConversions, formatCount, formatDay } from '@/ui/format';

/** Signs that a stop shuts out what is wanted, each with its undo. */
export function RegretWatch() {
  const { query, call } = useRoutes();
  const refresh = useRefresh();
  const { data } = useQuery(query('GET today/regrets'));
  if (!data || data.regrets.length === 0) return null;
  const undo = async (change: number) => {
    try {
      const { outcome, said } = await call('POST ledger/[change]/undo', { params: { change } });
      toast(outcome === 'drafted' ? `In the tray: ${said}` : said);
      await refresh();
    } catch (error) {
      sayFailure(error);
    }
  };
  return (
    <section aria-label="Regret watch" className="mt-4 text-table">
      <h2 className="font-semibold">
        Worth looking at again <span className="font-normal text-soft">stops that may cost conversions</span>
      </h2>
      <ul className="mt-1 border-t border-line">
        {data.regrets.map((regret) => (
          <li
            key={`${regret.kind} ${regret.changeId} ${'keyword' in regret ? regret.keyword : ''}`}
            className="flex items-start gap-3 border-b border-line py-1"
          >
            <span className="min-w-0 flex-1">
              {regret.said}: {sayRegret(regret)}
              <span className="block text-small text-soft">sent {formatDay(regret.sentDay)}</span>
            </span>
            <button
              type="button"
              className="min-h-6 font-semibold text-pine hover:underline"
              aria-label={`Undo: ${regret.said}`}
              onClick={() => void undo(regret.changeId)}
            >
              Undo
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A sign, in words. */
export function sayRegret(regret: Regret): string {
  switch (regret.kind) {
    case 'neighbours convert':
      return `terms like it convert now, ${formatConversions(regret.conversions)} × since: ${listed(
        regret.terms.map((term) => `“${term}”`),
        regret.terms.length,
      )}`;
    case 'stops more':
      return `it matches ${counted(regret.is - regret.was, 'term')} that began to convert elsewhere, ${formatConversions(regret.conversions)} × since`;
    case 'keyword fell':
      return `${regret.keyword} in ${regret.adGroup} was shown ${formatCount(regret.since)} × in ${counted(regret.days, 'day')}, before ${formatCount(regret.before)} ×, by terms that it does not stop`;
  }
}
