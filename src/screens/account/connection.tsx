'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { AccountView } from '@/contracts/account';
import { Button } from '@/ui/button';
import { SelectField } from '@/ui/form';
import { Setting } from './setting';
import { TypedPlatform } from './typed';
import { useSettingForm } from './use-setting-form';
import { useSetting } from './use-settings';
import { useRoutes } from '@/screens/frame/data/routes';

/** The account on the platform that this one is brought from and sent to, or none. */
export function Connection({ view: { settings } }: { view: AccountView }) {
  const setting = useSetting();
  const was = settings.platformAccountId;
  const form = useSettingForm(TypedPlatform, { platformAccountId: was ?? '' }, ({ platformAccountId: id }) =>
    setting({ platformAccountId: id === '' ? null : id }, { platformAccountId: was }),
  );
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
      form={form}
    >
      {was === null ? 'No platform is connected' : `It is connected to ${was} on the platform`}
      {!looks && <Button onClick={() => setLooks(true)}>{was === null ? 'Connect…' : 'Change…'}</Button>}
      {looks && (
        <SelectField
          label="Account on the platform"
          autoFocus
          control={form.fields.control}
          name="platformAccountId"
          options={[
            { key: '', says: 'none' },
            ...(data?.accounts ?? []).map(({ id, name, currency, takenBy }) => {
              const isTaken = takenBy !== null && id !== was;
              return {
                key: id,
                says: `${name}, ${currency}${isTaken ? ` (is ${takenBy})` : ''}`,
                isDisabled: isTaken || currency !== settings.currency,
              };
            }),
          ]}
        />
      )}
      {error && <span className="basis-full text-table text-rust">{error.message}</span>}
    </Setting>
  );
}
