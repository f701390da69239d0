'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { AccountView } from '@/contracts/account';
import { Button } from '@/ui/button';
import { FIELD, Setting } from './setting';
import { useSaving, useSetting } from './use-settings';
import { useRoutes } from '@/screens/frame/data/routes';

/** The account on the platform that this one is brought from and sent to, or none. */
export function Connection({ view: { settings } }: { view: AccountView }) {
  const saving = useSaving();
  const setting = useSetting();
  const was = settings.platformAccountId;
  const [id, setId] = useState(was ?? '');
  const [looks, setLooks] = useState(false);
  const { query } = useRoutes();
  const { data, error } = useQuery({
    ...query('GET account/platform'),
    enabled: looks,
  });
  return (
    <Setting
      name="Platform"
      says={
        was === null
          ? 'Without a platform the tray is handed over as a sheet; a person says when it was carried out, and a structure file shows it. Connected, it is sent and read back.'
          : 'The tray is sent there and read back; reports and structure come from there. Disconnected, what is known stays, and structure files change it.'
      }
      saving={saving}
      isChanged={id !== (was ?? '')}
      onSave={() =>
        void saving.save(setting({ platformAccountId: id === '' ? null : id }, { platformAccountId: was }))
      }
      onLeave={() => setId(was ?? '')}
    >
      {was === null ? 'No platform is connected' : `It is connected to ${was} on the platform`}
      {!looks && <Button onClick={() => setLooks(true)}>{was === null ? 'Connect…' : 'Change…'}</Button>}
      {looks && (
        <select
          aria-label="Account on the platform"
          autoFocus
          className={FIELD}
          value={id}
          onChange={(e) => setId(e.target.value)}
        >
          <option value="">none</option>
          {data?.accounts.map((one) => (
            <option
              key={one.id}
              value={one.id}
              disabled={(one.takenBy !== null && one.id !== was) || one.currency !== settings.currency}
            >
              {one.name}, {one.currency}
              {one.takenBy !== null && one.id !== was ? ` (is ${one.takenBy})` : ''}
            </option>
          ))}
        </select>
      )}
      {error && <span className="basis-full text-table text-rust">{error.message}</span>}
    </Setting>
  );
}
