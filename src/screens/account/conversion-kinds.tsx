'use client';

import type { AccountView } from '@/contracts/account';
import { Check } from '@/ui/check';
import { Setting } from './setting';
import { TypedKinds } from './typed';
import { useSettingForm } from './use-setting-form';
import { useSetting } from './use-settings';

/** Which kinds of conversion of keyword reports count; there is nothing to set before a report has told of some. */
export function ConversionKinds({ view: { settings, kindsThere } }: { view: AccountView }) {
  const setting = useSetting();
  const { conversionKinds } = settings;
  const form = useSettingForm(TypedKinds, { conversionKinds }, (wanted) =>
    setting(wanted, { conversionKinds }),
  );
  const kinds = [...new Set([...kindsThere, ...conversionKinds])];
  if (kinds.length === 0) return null;
  const counted = form.fields.watch('conversionKinds');
  return (
    <Setting
      name="Conversions of keywords"
      says={`What counts where keywords are compared: the sum of these kinds, by the names of their columns in keyword reports. ${
        counted.length === 0
          ? 'With none of them, what the report itself calls conversions counts.'
          : 'The others stand beside it.'
      }`}
      form={form}
    >
      <span aria-hidden>Of a keyword count</span>
      {kinds.map((kind) => (
        <label key={kind} className="flex items-center gap-1">
          <Check value={kind} {...form.fields.register('conversionKinds')} />
          {kind}
        </label>
      ))}
    </Setting>
  );
}
