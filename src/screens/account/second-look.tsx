'use client';

import type { AccountView } from '@/contracts/account';
import { NO_LIMITS, type LookRules } from '@/contracts/second-look';
import { mayDo } from '@/contracts/roles';
import { plainAmount } from '@/core';
import { useRoutes } from '@/screens/frame/data/routes';
import { Check } from '@/ui/check';
import { InlineField } from '@/ui/form';
import { Setting } from './setting';
import { typedLook } from './typed';
import { useSettingForm } from './use-setting-form';

const said = (value: number | null) => (value === null ? '' : String(value));

/** When a tray is looked at by another person before it is sent: by the account, and by who sends it. */
export function SecondLook({ view }: { view: AccountView }) {
  const { call } = useRoutes();
  const { people, secondLook: was } = view;
  const { currency } = view.settings;
  const set = (body: LookRules) => call('PUT account/second-look', { body });
  const senders = people.filter(({ role }) => mayDo(role, 'send'));
  const bounds = new Map(was.people.map((one) => [one.person, one]));
  const form = useSettingForm(
    typedLook(currency),
    {
      always: was.always,
      changes: said(was.changes),
      cost: was.costMicros === null ? '' : plainAmount(was.costMicros, currency),
      people: senders.map(({ id }) => {
        const { atOnce, in30Days } = bounds.get(id) ?? NO_LIMITS;
        return { person: id, atOnce: said(atOnce), in30Days: said(in30Days) };
      }),
    },
    ({ cost, ...wanted }) =>
      async () => {
        const { said } = await set({ ...wanted, costMicros: cost });
        return { said, undo: () => set(was) };
      },
  );
  const { register, watch } = form.fields;
  const isAlways = watch('always');
  return (
    <Setting
      name="Second look"
      says="Where one is needed, the tray is put up, and another person who may send goes through it and says yes to what is in it. An empty field is no bound. The same bounds hold for handing the tray over."
      form={form}
    >
      <label className="flex items-center gap-1">
        <Check {...register('always')} />
        Another person looks at every tray
      </label>
      {!isAlways && (
        <>
          <span>or at one of more than</span>
          <InlineField
            label="Second look above so many changes"
            inputMode="numeric"
            className="w-16 text-right"
            {...register('changes')}
          />
          changes, or one that stops more than
          <InlineField
            label={`Second look above so much stopped, ${currency}`}
            inputMode="decimal"
            className="w-20 text-right"
            {...register('cost')}
          />
          {currency}
        </>
      )}
      <ul className="basis-full" aria-label="What each may send without a second look">
        {senders.map(({ id, name }, i) => (
          <li key={id} className="flex min-h-7 items-center gap-1.5">
            <span className="w-56 truncate max-[1180px]:w-36">{name}</span>
            without it up to
            <InlineField
              label={`Changes at once without a second look: ${name}`}
              inputMode="numeric"
              className="w-16 text-right"
              {...register(`people.${i}.atOnce`)}
            />
            changes at once,
            <InlineField
              label={`Changes in 30 days without a second look: ${name}`}
              inputMode="numeric"
              className="w-16 text-right"
              {...register(`people.${i}.in30Days`)}
            />
            in 30 days
          </li>
        ))}
      </ul>
    </Setting>
  );
}
