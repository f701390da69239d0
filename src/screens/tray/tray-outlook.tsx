'use client';

import { useQuery } from '@tanstack/react-query';
import { OutlookSaid } from '@/screens/frame/outlook-said';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { tellHeldBack, useTrayActions } from './use-tray';

/** What the whole tray is likely to bring, and the press that stops its queries where they would come back, too. */
export function TrayOutlook() {
  const { query } = useRoutes();
  const [days] = useDays();
  const { draft } = useTrayActions();
  const { data } = useQuery({
    ...query('GET tray/outlook', { query: inDays(days) }),
    placeholderData: (before) => before,
  });
  if (!data) return null;
  const stopThereToo = async () => {
    const outcomes = await draft(
      data.back.flatMap(({ place, negatives, name }) =>
        negatives.map((negative) => ({
          change: { kind: 'add negative' as const, ...negative, place },
          why: `its queries would come back in ${name}`,
        })),
      ),
    );
    tellHeldBack(outcomes);
  };
  return (
    <div className="mt-1 border-t border-line pt-1">
      <OutlookSaid outlook={data}>
        <button
          type="button"
          className="min-h-6 font-semibold whitespace-nowrap text-pine underline-offset-2 hover:underline"
          onClick={() => void stopThereToo()}
        >
          Stop it there, too
        </button>
      </OutlookSaid>
    </div>
  );
}
