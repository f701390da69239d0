'use client';

import { useQuery } from '@tanstack/react-query';
import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';
import { Button } from '@/ui/button';
import { mendSearch, type Mended } from './mend-search';
import { useRoutes } from '@/screens/frame/data/routes';

/** Says what of the address made no sense, and takes it out of the address. */
export function MendedNote() {
  const [told, setTold] = useState<readonly Mended[]>([]);
  const search = useSearchParams();
  const pathname = usePathname();
  const router = useRouter();
  const { query } = useRoutes();
  const { data } = useQuery({
    ...query('GET lists'),
  });
  const mended = mendSearch(new URLSearchParams(search), data && new Set(data.campaigns.map((c) => c.id)));
  // What was told stays told when the address is mended.
  const untold = mended.filter((m) => !told.some((t) => t.name === m.name && t.value === m.value));
  if (untold.length > 0) setTold([...told.filter((t) => !untold.some((m) => m.name === t.name)), ...untold]);
  const wrong = mended.map((m) => m.name).join(' ');
  useEffect(() => {
    if (wrong === '') return;
    const given = new URLSearchParams(search);
    for (const name of wrong.split(' ')) given.delete(name);
    router.replace(given.size > 0 ? `${pathname}?${given}` : pathname);
  }, [wrong, search, pathname, router]);
  if (told.length === 0) return null;
  return (
    <div
      role="status"
      className="flex items-baseline gap-3 border-b border-line border-l-[3px] border-l-timber bg-timber/10 px-4 py-1.5 text-table"
    >
      <p className="min-w-0">
        The address asked for something that Sift does not know, and is shown without it:{' '}
        {told.map(({ name, value, why }) => `${name} “${value.slice(0, 40)}” (${why})`).join('; ')}.
      </p>
      <Button tone="quiet" onClick={() => setTold([])}>
        Understood
      </Button>
    </div>
  );
}
