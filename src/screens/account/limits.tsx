'use client';

import type * as v from 'valibot';
import type { AccountView } from '@/contracts/account';
import { InlineField } from '@/ui/form';
import { Setting } from './setting';
import { TypedLimits } from './typed';
import { useSettingForm } from './use-setting-form';
import { useSetting } from './use-settings';

const PARTS = [
  ['accountNegatives', 'negatives on the account,'],
  ['listNegatives', 'in a shared list,'],
  ['listPlacements', 'placements in a placement list,'],
  ['listsOnCampaign', 'lists on a campaign; a negative holds up to'],
  ['wordsInNegative', 'words and'],
  ['charactersInNegative', 'characters'],
] as const;

/** What the account's platform allows. */
export function Limits({ view: { settings } }: { view: AccountView }) {
  const setting = useSetting();
  const { limits } = settings;
  const was = Object.fromEntries(PARTS.map(([name]) => [name, String(limits[name])])) as v.InferInput<
    typeof TypedLimits
  >;
  const form = useSettingForm(TypedLimits, was, (wanted) => setting({ limits: wanted }, { limits }));
  return (
    <Setting
      name="Limits"
      says="What your platform allows. What would go over is refused before it is sent or handed over, with what is needless there."
      form={form}
    >
      The platform takes
      {PARTS.map(([name, words]) => (
        <span key={name} className="inline-flex items-center gap-1.5">
          <InlineField
            label={`Limit: ${words.replace(/[,;].*/, '')}`}
            inputMode="numeric"
            className="w-20 text-right"
            {...form.fields.register(name)}
          />
          {words}
        </span>
      ))}
    </Setting>
  );
}
