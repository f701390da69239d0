'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { median } from 'd3';
import { useState } from 'react';
import * as v from 'valibot';
import { counted, listed, parseAmount, plainAmount } from '@/core';
import type { Group } from '@/contracts/groups';
import { useAccount } from '@/screens/frame/account-context';
import { useRoutes } from '@/screens/frame/data/routes';
import { useTrayActions } from '@/screens/tray/use-tray';
import { Button } from '@/ui/button';
import { Check } from '@/ui/check';
import { DialogFrame } from '@/ui/dialog-frame';
import { Fault, firstFault, InlineField, SelectField, useValidForm } from '@/ui/form';
import { formatCount } from '@/ui/format';
import { StateIcon } from '@/ui/state-icon';
import { saveCells, type FileKind } from '@/ui/table/cells';
import { changesOfGroups, keywordsOfGroups, MATCHES } from './changes-of-groups';
import { keyOfGroup } from './group-rows';

const NEW = 'new';
const USUAL_BID_MICROS = 500_000;
const MOST_CHANGES = 10_000;

function makingSchema(currency: string) {
  const isAmount = (text: string) => (parseAmount(text, currency) ?? 0) > 0;
  return v.pipe(
    v.object({
      campaign: v.string(),
      name: v.string(),
      budget: v.string(),
      bid: v.pipe(v.string(), v.check(isAmount, 'Give the bid as an amount above 0.')),
      matches: v.pipe(v.array(v.picklist(MATCHES)), v.minLength(1, 'Choose a match type.')),
    }),
    v.forward(
      v.check(({ campaign, name }) => campaign !== NEW || name.trim() !== '', 'A new campaign needs a name.'),
      ['name'],
    ),
    v.forward(
      v.check(
        ({ campaign, budget }) => campaign !== NEW || isAmount(budget),
        'Give the daily budget as an amount above 0.',
      ),
      ['budget'],
    ),
  );
}

type Props = { sheet: { name: string }; groups: readonly Group[]; onClose: () => void };

/** Groups become ad groups with keywords: as changes in the tray, or as a file. */
export function MakeDialog({ sheet, groups, onClose }: Props) {
  const { currency } = useAccount().summary;
  const { query, call } = useRoutes();
  const { data: lists } = useQuery(query('GET lists'));
  const { draft } = useTrayActions();
  const taken = groups.filter(({ isProposed }) => !isProposed);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(
    new Set((taken.length > 0 ? taken : groups).map(keyOfGroup)),
  );
  const [isDrafting, setDrafting] = useState(false);
  const bids = groups.flatMap(({ openingBidMicros }) => openingBidMicros ?? []);
  const form = useValidForm(makingSchema(currency), {
    ...{ campaign: NEW, name: sheet.name, budget: '' },
    ...{ bid: plainAmount(median(bids) ?? USUAL_BID_MICROS, currency), matches: ['exact', 'phrase'] },
  });
  const { campaign, matches } = form.watch();
  const some = groups.filter((group) => chosen.has(keyOfGroup(group)));
  const keywords = some.reduce((sum, { ideas }) => sum + ideas.length, 0) * (matches?.length ?? 0);
  const fault = firstFault(form.formState.errors);
  const campaigns = lists?.campaigns ?? [];
  const checked = {
    campaignId: campaign === NEW ? null : campaign,
    texts: some.flatMap(({ ideas }) => ideas.map(({ text }) => text)).slice(0, MOST_CHANGES),
  };
  const { data: stopped } = useQuery({
    queryKey: ['POST research/check-keywords', checked],
    queryFn: () => call('POST research/check-keywords', { body: checked }),
    placeholderData: keepPreviousData,
  });
  const nameOfCampaign = ({ campaign: id, name }: { campaign: string; name: string }) =>
    campaigns.find((one) => one.id === id)?.name ?? name.trim();
  const isTooMany = keywords + some.length + 1 > MOST_CHANGES;

  const submit = form.handleSubmit(async (given) => {
    setDrafting(true);
    const making = {
      campaign: nameOfCampaign(given),
      budgetMicros: given.campaign !== NEW ? null : parseAmount(given.budget, currency)!,
      matches: given.matches,
      bidMicros: parseAmount(given.bid, currency)!,
    };
    await draft(changesOfGroups(some, making, sheet.name), {
      said: `make ${counted(some.length, 'ad group')}`,
    });
    setDrafting(false);
    onClose();
  });
  const save = (kind: FileKind) => {
    const { bid, matches: wanted, ...given } = form.getValues();
    const micros = parseAmount(bid, currency);
    const cells = keywordsOfGroups(some, {
      matches: wanted,
      campaign: nameOfCampaign(given),
      bid: micros === undefined || micros === null ? null : Number(plainAmount(micros, currency)),
    });
    void saveCells(cells, `groups of ${sheet.name}`, kind);
  };

  return (
    <DialogFrame
      title="Make ad groups"
      says="Each group becomes an ad group, and its ideas keywords of it. A new campaign starts paused: it has no ads yet."
      width={640}
      onClose={onClose}
    >
      <form className="flex flex-col gap-2 text-table" onSubmit={(event) => void submit(event)} noValidate>
        <div className="flex flex-wrap items-baseline gap-x-1.5 gap-y-1">
          In
          <SelectField
            label="Campaign"
            control={form.control}
            name="campaign"
            options={[
              { key: NEW, says: 'a new campaign' },
              ...campaigns.map(({ id, name }) => ({ key: id, says: `campaign ${name}` })),
            ]}
          />
          {campaign === NEW && (
            <>
              called
              <InlineField
                label="Name of the campaign"
                {...form.register('name')}
                fault={form.formState.errors.name?.message}
              />
              with
              <InlineField
                label="Daily budget"
                inputMode="decimal"
                className="w-20 text-right"
                {...form.register('budget')}
                fault={form.formState.errors.budget?.message}
              />
              {currency} a day
            </>
          )}
        </div>
        <fieldset className="flex flex-wrap items-center gap-x-3">
          <legend className="sr-only">Match types</legend>
          as
          {MATCHES.map((match) => (
            <label key={match} className="flex items-center">
              <Check value={match} {...form.register('matches')} /> {match}
            </label>
          ))}
          with a bid of
          <InlineField
            label="Bid"
            inputMode="decimal"
            className="w-16 text-right"
            {...form.register('bid')}
            fault={form.formState.errors.bid?.message}
          />
          {currency}
        </fieldset>
        <ul aria-label="Groups" className="max-h-64 overflow-y-auto border-y border-line" tabIndex={0}>
          {groups.map((group) => (
            <li key={keyOfGroup(group)}>
              <label className="flex items-center gap-1 border-b border-line">
                <Check
                  checked={chosen.has(keyOfGroup(group))}
                  onChange={() => setChosen(turned(chosen, keyOfGroup(group)))}
                />
                <span className="min-w-0 flex-1 truncate">{group.name}</span>
                {group.isProposed && <span className="text-small text-soft">proposed</span>}
                <span className="w-20 text-right text-soft">{counted(group.ideas.length, 'idea')}</span>
              </label>
            </li>
          ))}
        </ul>
        <p>
          {counted(some.length, 'ad group')} with <b>{counted(keywords, 'keyword')}</b>.
          {isTooMany && (
            <span className="text-rust">
              {' '}
              At most {formatCount(MOST_CHANGES)} changes go in at once: choose fewer groups.
            </span>
          )}
        </p>
        {stopped && stopped.count > 0 && (
          <p className="text-rust">
            <StateIcon kind="hurting" /> {counted(stopped.count, 'keyword')} would be stopped there:{' '}
            {listed(
              stopped.first.map(({ text, by }) => `“${text}” by ${by}`),
              stopped.count,
            )}
            .
          </p>
        )}
        {fault && <Fault>{fault}</Fault>}
        <div className="flex flex-wrap gap-1.5">
          <Button tone="main" type="submit" disabled={isDrafting || some.length === 0 || isTooMany}>
            {isDrafting ? 'Putting…' : 'Put in the tray'}
          </Button>
          <Button disabled={keywords === 0} onClick={() => save('csv')}>
            Save as CSV
          </Button>
          <Button disabled={keywords === 0} onClick={() => save('xlsx')}>
            Save as XLSX
          </Button>
          <Button onClick={onClose}>Close</Button>
        </div>
      </form>
    </DialogFrame>
  );
}

function turned(set: ReadonlySet<string>, key: string): ReadonlySet<string> {
  const next = new Set(set);
  if (!next.delete(key)) next.add(key);
  return next;
}
