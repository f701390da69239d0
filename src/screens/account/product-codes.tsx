'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue } from 'react';
import type { AccountView } from '@/contracts/account';
import { formatCount } from '@/ui/format';
import { InlineField } from '@/ui/form';
import { Setting } from './setting';
import { TypedPattern } from './typed';
import { useSettingForm } from './use-setting-form';
import { useSetting } from './use-settings';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted, listed } from '@/core';

/** The pattern of product codes, with the codes that it catches in the data as one types. */
export function ProductCodes({ view: { settings } }: { view: AccountView }) {
  const setting = useSetting();
  const was = { productCodePattern: settings.productCodePattern };
  const form = useSettingForm(TypedPattern, was, (wanted) => setting(wanted, was));
  const pattern = form.fields.watch('productCodePattern');
  const asked = useDeferredValue(pattern);
  const { query } = useRoutes();
  const { data, error } = useQuery({
    ...query('GET account/codes', { query: { pattern: asked } }),
    placeholderData: keepPreviousData,
    enabled: asked.trim() !== '',
    gcTime: 10_000,
  });
  return (
    <Setting
      name="Product codes"
      says="A regular expression that must match the whole term, case aside. Negatives never stop a code: it is kept out of words and batches, and its product can be excluded instead. Terms that are loaded are sorted anew."
      form={form}
    >
      <span aria-hidden>A term is a product code when it matches</span>
      <InlineField
        label="A term is a product code when it matches"
        className="w-64 font-mono text-table"
        placeholder="[A-Z]{2}-\d{4}"
        maxLength={200}
        spellCheck={false}
        {...form.fields.register('productCodePattern')}
      />
      <p role="status" className="basis-full text-table" data-testid="codes">
        {pattern.trim() === '' && 'No term is taken for a product code.'}
        {pattern.trim() !== '' && error && <span className="text-rust">{error.message}</span>}
        {pattern.trim() !== '' && !error && data && (
          <>
            Catches {formatCount(data.caught)} of {counted(data.of, 'term')}
            {data.caught > 0 && `: ${listed(data.first, data.caught)}`}
          </>
        )}
      </p>
    </Setting>
  );
}
