'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { SOURCE_FAULTS, type SourceFault } from '@/contracts/ideas';
import { useRoutes } from '@/screens/frame/data/routes';
import { sayFailure } from '@/screens/tray/use-tray';
import { optionsOf, Select, type Option } from '@/ui/select';

/** How many requests meet a fault that is switched on here. */
const TIMES = 3;

const NONE: Option<SourceFault | ''> = { key: '', says: 'works' };

/** What is to go wrong on the stand-in idea source, for those who want to see what comes of it. */
export function SourceFaults() {
  const { call, query } = useRoutes();
  const client = useQueryClient();
  const asked = query('GET research/source/faults');
  const { data } = useQuery({ ...asked, retry: false });
  const on = data?.faults[0];
  if (!data) return null; // a real source has no such switch
  const switchTo = async (fault: SourceFault | '') => {
    try {
      const faults = fault === '' ? [] : [{ fault, times: TIMES }];
      client.setQueryData(asked.queryKey, await call('PUT research/source/faults', { body: { faults } }));
    } catch (error) {
      sayFailure(error);
    }
  };
  return (
    <p className="text-small text-soft">
      The stand-in idea source{' '}
      <Select<SourceFault | ''>
        label="What goes wrong on the stand-in idea source"
        look="quiet"
        options={[NONE, ...optionsOf(SOURCE_FAULTS)]}
        value={on?.fault ?? ''}
        onChange={(fault) => void switchTo(fault)}
      />
      {on && `, ${on.times} ×`}
    </p>
  );
}
