'use client';

import type { AccountView } from '@/contracts/account';
import { InlineField } from '@/ui/form';
import { Setting } from './setting';
import { TypedBrands } from './typed';
import { useSettingForm } from './use-setting-form';
import { useSetting } from './use-settings';

/** Names of the advertiser: no word that holds one is ever offered as a word at fault. */
export function BrandWords({ view: { settings } }: { view: AccountView }) {
  const setting = useSetting();
  const { brandWords } = settings;
  const form = useSettingForm(TypedBrands, { words: brandWords.join(', ') }, ({ words }) =>
    setting({ brandWords: words }, { brandWords }),
  );
  return (
    <Setting
      name="Brand words"
      says="Your own names, separated by commas. Words that hold one of them are never offered as words at fault: who asks for you by name is let through, whatever the figures of a few days say."
      form={form}
    >
      <span aria-hidden>Its own names are</span>
      <InlineField
        label="Its own names are"
        className="w-96 max-w-full"
        placeholder="your brand, your shop"
        maxLength={2_000}
        {...form.fields.register('words')}
      />
    </Setting>
  );
}
