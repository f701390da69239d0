'use client';

import { useState } from 'react';
import { plainAmount, counted } from '@/core';
import type { AccountView, OwnTargetView, TargetsRequest } from '@/contracts/account';
import { Button } from '@/ui/button';
import { Check } from '@/ui/check';
import { NumberField, percentOf } from './simple-settings';
import { FIELD, Setting } from './setting';
import { useSaving } from './use-settings';
import { useRoutes } from '@/screens/frame/data/routes';

/** Targets of campaigns and of product groups, which go before the account's own (rules 7.3). */
export function OwnTargets({ view }: { view: AccountView }) {
  const { call } = useRoutes();
  const { steersBy, currency } = view.settings;
  const saving = useSaving();
  const typedOf = ({ targetMicros, targetAcos }: OwnTargetView) =>
    steersBy === 'ACoS'
      ? percentOf(targetAcos)
      : targetMicros === null
        ? ''
        : plainAmount(targetMicros, currency);
  const asSet = (): TargetsRequest => ({
    campaigns: view.campaigns.map((c) => ({ campaignId: c.id, target: typedOf(c) })),
    productGroups: view.productGroups.map((g) => ({
      ...{ name: g.name, adGroupIds: g.adGroupIds, target: typedOf(g) },
    })),
  });
  const [typed, setTyped] = useState(asSet);
  const ofAccount = typedOf(view.settings);
  const own = typed.campaigns.filter(({ target }) => target !== '').length;
  const put = (body: TargetsRequest) => call('PUT account/targets', { body });
  const setGroup = (at: number, change: Partial<TargetsRequest['productGroups'][number]>) =>
    setTyped({
      ...typed,
      productGroups: typed.productGroups.map((g, i) => (i === at ? { ...g, ...change } : g)),
    });
  return (
    <Setting
      name="Own targets"
      says="A term is read against the target of its product group, else of its campaign, else of the account. A product group is a set of ad groups, of any campaigns, that sell the same."
      saving={saving}
      isChanged={JSON.stringify(typed) !== JSON.stringify(asSet())}
      onSave={() =>
        void saving.save(async () => {
          const before = asSet();
          const { said } = await put(typed);
          return { said, undo: () => put(before) };
        })
      }
      onLeave={() => setTyped(asSet())}
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
                <NumberField
                  label={`Target of ${name}`}
                  wide
                  value={typed.campaigns[i]!.target}
                  placeholder={ofAccount}
                  onChange={(target) =>
                    setTyped({
                      ...typed,
                      campaigns: typed.campaigns.with(i, { campaignId: id, target }),
                    })
                  }
                />
                {steersBy === 'CPA' ? currency : '%'}
              </li>
            ))}
          </ul>
        </details>
      )}
      {typed.productGroups.map((group, i) => (
        <details key={i} className="basis-full" open={i >= view.productGroups.length}>
          <summary className="cursor-pointer">
            Product group {group.name || '(new)'}: {counted(group.adGroupIds.length, 'ad group')}
          </summary>
          <div className="flex items-center gap-1.5 py-1">
            <input
              aria-label={`Name of product group ${i + 1}`}
              className={`${FIELD} w-56`}
              maxLength={80}
              placeholder="A name"
              value={group.name}
              onChange={(e) => setGroup(i, { name: e.target.value })}
            />
            with a target of
            <NumberField
              label={`Target of product group ${i + 1}`}
              wide
              value={group.target}
              onChange={(target) => setGroup(i, { target })}
            />
            {steersBy === 'CPA' ? currency : '%'}
            <Button
              tone="quiet"
              onClick={() =>
                setTyped({ ...typed, productGroups: typed.productGroups.filter((_, at) => at !== i) })
              }
            >
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
                    checked={group.adGroupIds.includes(id)}
                    onChange={(e) =>
                      setGroup(i, {
                        adGroupIds: e.target.checked
                          ? [...group.adGroupIds, id]
                          : group.adGroupIds.filter((other) => other !== id),
                      })
                    }
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
        <Button
          onClick={() =>
            setTyped({
              ...typed,
              productGroups: [...typed.productGroups, { name: '', target: '', adGroupIds: [] }],
            })
          }
        >
          New product group
        </Button>
      )}
    </Setting>
  );
}
