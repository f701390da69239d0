'use client';

import { useController } from 'react-hook-form';
import { exampleAmount, MATCH_TYPES, plainAmount } from '@/core';
import type { AccountView } from '@/contracts/account';
import { STEERS_BY } from '@/screens/start/account-form';
import { Check } from '@/ui/check';
import { InlineField, SelectField } from '@/ui/form';
import { optionsOf, Select } from '@/ui/select';
import { Setting } from './setting';
import {
  TypedDays,
  TypedKeeper,
  TypedMatch,
  TypedName,
  TypedSteering,
  TypedFileDays,
  TypedLogDays,
  TypedTolerance,
} from './typed';
import { useSettingForm } from './use-setting-form';
import { useSetting } from './use-settings';

type Props = { view: AccountView };

/** A fraction as the percentage that is typed. @example percentOf(0.24) // '24' */
export const percentOf = (fraction: number | null) =>
  fraction === null ? '' : String(Number((fraction * 100).toFixed(2)));

export function NameAndCurrency({ view: { settings, hasFigures } }: Props) {
  const setting = useSetting();
  const was = { name: settings.name, currency: settings.currency };
  const form = useSettingForm(TypedName, was, (wanted) => setting(wanted, was));
  const { register } = form.fields;
  return (
    <Setting
      name="Name"
      says={
        hasFigures
          ? `Stands in the top strip. Figures in ${settings.currency} are loaded, so the currency stays.`
          : 'Stands in the top strip. Amounts are read and written with the currency’s own decimal places.'
      }
      form={form}
    >
      This account is called
      <InlineField label="Name of the account" className="w-64" maxLength={80} {...register('name')} />
      and counts in
      <InlineField
        label="Currency"
        className="w-16 uppercase"
        maxLength={3}
        readOnly={hasFigures}
        {...register('currency')}
      />
    </Setting>
  );
}

export function Steering({ view: { settings } }: Props) {
  const setting = useSetting();
  const { currency } = settings;
  const targetOf = (by: 'CPA' | 'ACoS') =>
    by === 'ACoS'
      ? percentOf(settings.targetAcos)
      : settings.targetMicros === null
        ? ''
        : plainAmount(settings.targetMicros, currency);
  const was = { steersBy: settings.steersBy, target: targetOf(settings.steersBy) };
  const form = useSettingForm(TypedSteering, was, (wanted) => setting(wanted, was));
  const { register, setValue, control } = form.fields;
  const { field } = useController({ control, name: 'steersBy' });
  return (
    <Setting
      name="Steering"
      says="Terms over the target are shown as such, and evidence says how sure a term misses it; bids that pay are reckoned from it. Without a target there is no evidence."
      form={form}
    >
      It steers by
      <Select
        label="Steers by"
        options={STEERS_BY}
        value={field.value}
        onChange={(by) => {
          field.onChange(by);
          setValue('target', targetOf(by), { shouldDirty: true });
        }}
      />
      with a target of
      <InlineField
        label="Target"
        inputMode="decimal"
        className="w-24 text-right"
        placeholder={field.value === 'CPA' ? exampleAmount(currency) : '24'}
        {...register('target')}
      />
      {field.value === 'CPA' ? currency : '%'}
    </Setting>
  );
}

export function LookBack({ view: { settings } }: Props) {
  const setting = useSetting();
  const { windowDays, lagDays } = settings;
  const form = useSettingForm(
    TypedDays,
    { windowDays: String(windowDays), lagDays: String(lagDays) },
    (wanted) => setting(wanted, { windowDays, lagDays }),
  );
  const { register } = form.fields;
  return (
    <Setting
      name="Days"
      says="The window that every screen opens with. The newest days are left out because their conversions are still to come: with them, terms would look worse than they are."
      form={form}
    >
      Screens look back
      <InlineField
        inputMode="decimal"
        className="w-14 text-right"
        label="Days of the window"
        {...register('windowDays')}
      />
      days and leave out the newest
      <InlineField
        inputMode="decimal"
        className="w-14 text-right"
        label="Days of lag"
        {...register('lagDays')}
      />
      days
    </Setting>
  );
}

export function FilesKept({ view: { settings } }: Props) {
  const setting = useSetting();
  const { fileDays } = settings;
  const form = useSettingForm(TypedFileDays, { fileDays: String(fileDays) }, (wanted) =>
    setting(wanted, { fileDays }),
  );
  return (
    <Setting
      name="Files"
      says="A file that was brought can be looked at, loaded again and read otherwise for so long. Then the file itself goes; what was loaded of it stays, with the rows that were refused and the way back."
      form={form}
    >
      Files that were brought are kept for
      <InlineField
        inputMode="decimal"
        className="w-14 text-right"
        label="Days that files are kept"
        {...form.fields.register('fileDays')}
      />
      days
    </Setting>
  );
}

export function LogsKept({ view: { settings } }: Props) {
  const setting = useSetting();
  const { logDays } = settings;
  const form = useSettingForm(TypedLogDays, { logDays: String(logDays) }, (wanted) =>
    setting(wanted, { logDays }),
  );
  return (
    <Setting
      name="Logs"
      says="Who signed in, who tried in vain, and who saved which file is known for so long. The Ledger stays."
      form={form}
    >
      The logs of sign-ins and of saved files are kept for
      <InlineField
        inputMode="decimal"
        className="w-14 text-right"
        label="Days that logs are kept"
        {...form.fields.register('logDays')}
      />
      days
    </Setting>
  );
}

export function Tolerance({ view: { settings } }: Props) {
  const setting = useSetting();
  const was = { promotionTolerance: settings.promotionTolerance };
  const form = useSettingForm(
    TypedTolerance,
    { promotionTolerance: percentOf(settings.promotionTolerance) },
    (wanted) => setting(wanted, was),
  );
  return (
    <Setting
      name="Promotion"
      says="A term that gets its own exact keyword goes on being served where it was, unless it misses its target there by more than this: percentage points of an ACoS, or per cent of a CPA."
      form={form}
    >
      A promoted term is stopped at a source that misses its target by more than
      <InlineField
        inputMode="decimal"
        className="w-14 text-right"
        label="Tolerance in per cent"
        {...form.fields.register('promotionTolerance')}
      />
      %
    </Setting>
  );
}

export function DefaultMatch({ view: { settings } }: Props) {
  const setting = useSetting();
  const was = { defaultMatch: settings.defaultMatch };
  const form = useSettingForm(TypedMatch, was, (wanted) => setting(wanted, was));
  return (
    <Setting
      name="Match type"
      says="What a choice of words in Sift begins with, and what a pasted line without a match type is read as. What stands already stays as it is."
      form={form}
    >
      A new negative is
      <SelectField
        label="Default match type"
        control={form.fields.control}
        name="defaultMatch"
        options={optionsOf(MATCH_TYPES)}
      />
      at first
    </Setting>
  );
}

export function Keeper({ view: { settings } }: Props) {
  const setting = useSetting();
  const was = settings.keeperConversions;
  const form = useSettingForm(TypedKeeper, { isOn: was !== null, from: String(was ?? 1) }, (wanted) =>
    setting({ keeperConversions: wanted.isOn ? wanted.from : null }, { keeperConversions: was }),
  );
  const { register, watch } = form.fields;
  const [isOn, from] = watch(['isOn', 'from']);
  return (
    <Setting
      name="Protection"
      says="Counted in all days that are kept, not only in the window. A change that would stop a protected term is held back until somebody gives a reason. Terms that people keep are protected whatever is set here."
      form={form}
    >
      <label className="flex items-center gap-1">
        <Check {...register('isOn')} />
        Protect search terms
      </label>
      from
      <InlineField
        inputMode="decimal"
        className="w-14 text-right"
        label="Conversions that protect a term"
        readOnly={!isOn}
        {...register('from')}
      />
      {from === '1' ? 'conversion' : 'conversions'} on
    </Setting>
  );
}
