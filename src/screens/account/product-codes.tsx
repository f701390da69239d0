'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import type { AccountView } from '@/contracts/account';
import { formatCount } from '@/ui/format';
import { FIELD, Setting } from './setting';
import { useSaving, useSetting } from './use-settings';
import { useRoutes } from '@/screens/frame/data/routes';
import { counted } from '@/core';

/** The pattern of product codes, with the codes that it catches in the data as one types. */
export function ProductCodes({ view: { settings } }: { view: AccountView }) {
  const saving = useSaving();
  const setting = useSetting();
  const was = settings.productCodePattern;
  const [pattern, setPattern] = useState(was);
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
      saving={saving}
      isChanged={pattern !== was}
      onSave={() => void saving.save(setting({ productCodePattern: pattern }, { productCodePattern: was }))}
      onLeave={() => setPattern(was)}
    >
      <label htmlFor="code-pattern">A term is a product code when it matches</label>
      <input
        id="code-pattern"
        className={`${FIELD} w-64 font-mono text-table`}
        placeholder="[A-Z]{2}-\d{4}"
        maxLength={200}
        spellCheck={false}
        value={pattern}
        onChange={(e) => setPattern(e.target.value)}
      />
      <p role="status" className="basis-full text-table" data-testid="codes">
        {pattern.trim() === '' && 'No term is taken for a product code.'}
        {pattern.trim() !== '' && error && <span className="text-rust">{error.message}</span>}
        {pattern.trim() !== '' && !error && data && (
          <>
            Catches {formatCount(data.caught)} of {counted(data.of, 'term')}
            {data.caught > 0 && `: ${data.first.join(', ')}${data.caught > data.first.length ? ' …' : ''}`}
          </>
        )}
      </p>
    </Setting>
  );
}
