'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { FAULTS, type Fault } from '@/contracts/platform';
import { useRoutes } from '@/screens/frame/data/routes';
import { sayFailure } from '@/screens/tray/use-tray';
import { optionsOf, Select, type Option } from '@/ui/select';

/** How many requests meet a fault that is switched on here. */
const TIMES = 3;

const NONE: Option<Fault | ''> = { key: '', says: 'works' };

/** What is to go wrong on the stand-in platform, for those who want to see what comes of it. */
export function PlatformFaults() {
  const { call, query } = useRoutes();
  const client = useQueryClient();
  const asked = query('GET platform/faults');
  const { data } = useQuery(asked);
  const on = data?.faults[0];
  const switchTo = async (fault: Fault | '') => {
    try {
      const faults = fault === '' ? [] : [{ fault, times: TIMES }];
      client.setQueryData(asked.queryKey, await call('PUT platform/faults', { body: { faults } }));
    } catch (error) {
      sayFailure(error);
    }
  };
  return (
    <p className="mt-1">
      It{' '}
      <Select<Fault | ''>
        label="What goes wrong on the stand-in platform"
        look="quiet"
        options={[NONE, ...optionsOf(FAULTS)]}
        value={on?.fault ?? ''}
        onChange={(fault) => void switchTo(fault)}
      />
      {on && `, ${on.times} ×`}
    </p>
  );
}
