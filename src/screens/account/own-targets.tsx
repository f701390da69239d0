'use client';

import { useFieldArray } from 'react-hook-form';
import { plainAmount, counted } from '@/core';
import {
  TargetsSchema,
  type AccountView,
  type OwnTargetView,
  type TargetsRequest,
} from '@/contracts/account';
import { Button } from '@/ui/button';
import { Check } from '@/ui/check';
import { InlineField } from '@/ui/form';
import { percentOf } from './simple-settings';
import { Setting } from './setting';
import { useSettingForm } from './use-setting-form';
import { useRoutes } from '@/screens/frame/data/routes';

/** Targets of campaigns and of product groups, which go before the account's own (rules 7.3). */
export function OwnTargets({ view }: { view: AccountView }) {
  const { call } = useRoutes();
  const { steersBy, currency } = view.settings;
  const typedOf = ({ targetMicros, targetAcos }: OwnTargetView) =>
    steersBy === 'ACoS'
      ? percentOf(targetAcos)
      : targetMicros === null
        ? ''
        : plainAmount(targetMicros, currency);
  const asSet: TargetsRequest = {
    campaigns: view.campaigns.map((c) => ({ campaignId: c.id, target: typedOf(c) })),
    productGroups: view.productGroups.map((g) => ({
      ...{ name: g.name, adGroupIds: g.adGroupIds, seats: g.seats, target: typedOf(g) },
    })),
  };
  const put = (body: TargetsRequest) => call('PUT account/targets', { body });
  const form = useSettingForm(TargetsSchema, asSet, (wanted) => async () => {
    const { said } = await put(wanted);
    return { said, undo: () => put(asSet) };
  });
  const { register, control, watch, setValue } = form.fields;
  const groups = useFieldArray({ control, name: 'productGroups' });
  const typed = watch();
  const ofAccount = typedOf(view.settings);
  const own = typed.campaigns.filter(({ target }) => target !== '').length;
  return (
    <Setting
      name="Own targets"
      says="A term is read against the target of its product group, else of its campaign, else of the account. A product group is a set of ad groups, of any campaigns, that sell the same."
      form={form}
    >
      {view.campaigns.length === 0 && 'No campaign is known yet: bring a report first'}
      {view.campaigns.length > 0 && (
        <details className="basis-full">
          <summary className="cursor-pointer">
            {own === 0 ? 'No campaign has' : `${counted(own, 'campaign')} ${own === 1 ? 'has' : 'have'}`} a
            target of {own > 1 ? 'their' : 'its'} own
          </summary>
          <ul className="max-h-56 overflow-y-auto" tabIndex={0} aria-label="Targets of campaigns">
            {view.campaigns.map(({ id, name, status }, i) => (
              <li key={id} className="flex min-h-7 items-center gap-2">
                <span className="w-72 truncate" title={name}>
                  {name} {status !== 'live' && <span className="text-soft">{status}</span>}
                </span>
                <InlineField
                  label={`Target of ${name}`}
                  inputMode="decimal"
                  className="w-20 text-right"
                  placeholder={ofAccount}
                  {...register(`campaigns.${i}.target`)}
                />
                {steersBy === 'CPA' ? currency : '%'}
              </li>
            ))}
          </ul>
        </details>
      )}
      {groups.fields.map(({ id: key }, i) => (
        <details key={key} className="basis-full" open={i >= view.productGroups.length}>
          <summary className="cursor-pointer">
            Product group {typed.productGroups[i]?.name || '(new)'}:{' '}
            {counted(typed.productGroups[i]?.adGroupIds.length ?? 0, 'ad group')}
          </summary>
          <div className="flex items-center gap-1.5 py-1">
            <InlineField
              label={`Name of product group ${i + 1}`}
              className="w-56"
              maxLength={80}
              placeholder="A name"
              {...register(`productGroups.${i}.name`)}
            />
            with a target of
            <InlineField
              label={`Target of product group ${i + 1}`}
              inputMode="decimal"
              className="w-20 text-right"
              {...register(`productGroups.${i}.target`)}
            />
            {steersBy === 'CPA' ? currency : '%'}
            <Button tone="quiet" onClick={() => groups.remove(i)}>
              Remove
            </Button>
          </div>
          <ul
            className="max-h-44 overflow-y-auto border-y border-line"
            tabIndex={0}
            aria-label="Its ad groups"
          >
            {view.adGroups.map(({ id, name, campaign }) => (
              <li key={id}>
                <label className="flex items-center gap-1">
                  <Check
                    checked={typed.productGroups[i]?.adGroupIds.includes(id) ?? false}
                    onChange={(e) => {
                      const of = typed.productGroups[i]?.adGroupIds ?? [];
                      setValue(
                        `productGroups.${i}.adGroupIds`,
                        e.target.checked ? [...of, id] : of.filter((other) => other !== id),
                        { shouldDirty: true },
                      );
                    }}
                  />
                  <span className="truncate">
                    {name} <span className="text-soft">{campaign}</span>
                  </span>
                </label>
              </li>
            ))}
          </ul>
        </details>
      ))}
      {view.adGroups.length > 0 && (
        <Button onClick={() => groups.append({ name: '', target: '', adGroupIds: [] })}>
          New product group
        </Button>
      )}
    </Setting>
  );
}
