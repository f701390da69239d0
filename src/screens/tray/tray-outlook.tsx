'use client';

import { useQuery } from '@tanstack/react-query';
import { OutlookSaid } from '@/screens/frame/outlook-said';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { useTrayActions } from './use-tray';

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
  const stopThereToo = () =>
    draft(
      data.back.flatMap(({ place, negatives, name }) =>
        negatives.map((negative) => ({
          change: { kind: 'add negative' as const, ...negative, place },
          why: `its queries would come back in ${name}`,
        })),
      ),
    );
  return (
    <div className="mt-1 border-t border-line pt-1">
      <OutlookSaid outlook={data}>
        <Button className="shrink-0 px-1.5! py-0.5!" onClick={() => void stopThereToo()}>
          Stop it there, too
        </Button>
      </OutlookSaid>
    </div>
  );
}
