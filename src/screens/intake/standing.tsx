'use client';

import type { IntakeView } from '@/contracts/intake';
import { useAccount } from '@/screens/frame/account-context';
import { sayFailure } from '@/screens/tray/use-tray';
import { useRefresh } from '@/screens/frame/data/refresh';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';

/** What goes on by itself: the daily fetching of the newest report, and the recipes. */
export function Standing({ view: { fetchesDaily, recipes } }: { view: IntakeView }) {
  const { summary } = useAccount();
  const { call } = useRoutes();
  const refresh = useRefresh();
  async function change(work: Promise<unknown>) {
    try {
      await work;
      await refresh();
    } catch (error) {
      sayFailure(error);
    }
  }
  return (
    <div className="mt-3 border-t border-line pt-2 text-table">
      {summary.platformDay !== null && (
        <label className="flex min-h-6 items-center gap-2">
          <input
            type="checkbox"
            className="size-4 accent-pine"
            checked={fetchesDaily}
            onChange={(event) =>
              void change(call('POST platform/daily', { body: { daily: event.target.checked } }))
            }
          />
          Fetch the newest report every day
        </label>
      )}
      <p className="mt-2 font-semibold">Recipes</p>
      {recipes.length === 0 && (
        <p className="text-soft">
          None yet. A reading can be kept as one; files with the same columns use it.
        </p>
      )}
      <ul>
        {recipes.map(({ id, name, columns }) => (
          <li key={id} className="flex items-center gap-2">
            <span className="min-w-0 truncate">{name}</span>
            <span className="text-soft">{counted(columns, 'column')}</span>
            <button
              type="button"
              className="ml-auto min-h-6 text-pine hover:underline"
              aria-label={`Forget the recipe ${name}`}
              onClick={() => void change(call('DELETE intake/recipes/[recipe]', { params: { recipe: id } }))}
            >
              Forget
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
