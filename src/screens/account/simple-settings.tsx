'use client';

import { useState } from 'react';
import { exampleAmount, MATCH_TYPES, plainAmount, type MatchType } from '@/core';
import type { AccountView } from '@/contracts/account';
import { Check } from '@/ui/check';
import { FIELD, Setting } from './setting';
import { useSaving, useSetting } from './use-settings';

type Props = { view: AccountView };

/** A fraction as the percentage that is typed. @example percentOf(0.24) // '24' */
export const percentOf = (fraction: number | null) =>
  fraction === null ? '' : String(Number((fraction * 100).toFixed(2)));

export function NameAndCurrency({ view: { settings, hasFigures } }: Props) {
  const saving = useSaving();
  const setting = useSetting();
  const [name, setName] = useState(settings.name);
  const [currency, setCurrency] = useState(settings.currency);
  const isChanged = name !== settings.name || currency !== settings.currency;
  return (
    <Setting
      name="Name"
      says={
        hasFigures
          ? `Stands in the top strip. Figures in ${settings.currency} are loaded, so the currency stays.`
          : 'Stands in the top strip. Amounts are read and written with the currency’s own decimal places.'
      }
      {...{ saving, isChanged }}
      onSave={() =>
        void saving.save(setting({ name, currency }, { name: settings.name, currency: settings.currency }))
      }
      onLeave={() => {
        setName(settings.name);
        setCurrency(settings.currency);
      }}
    >
      This account is called
      <input
        aria-label="Name of the account"
        className={`${FIELD} w-64`}
        maxLength={80}
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      and counts in
      <input
        aria-label="Currency"
        className={`${FIELD} w-16 uppercase`}
        maxLength={3}
        disabled={hasFigures}
        value={currency}
        onChange={(e) => setCurrency(e.target.value.toUpperCase())}
      />
    </Setting>
  );
}

export function Steering({ view: { settings } }: Props) {
  const saving = useSaving();
  const setting = useSetting();
  const { currency } = settings;
  const targetOf = (by: 'CPA' | 'ACoS') =>
    by === 'ACoS'
      ? percentOf(settings.targetAcos)
      : settings.targetMicros === null
        ? ''
        : plainAmount(settings.targetMicros, currency);
  const [steersBy, setSteersBy] = useState(settings.steersBy);
  const [target, setTarget] = useState(targetOf(settings.steersBy));
  const isChanged = steersBy !== settings.steersBy || target !== targetOf(settings.steersBy);
  return (
    <Setting
      name="Steering"
      says="Terms over the target are shown as such, and evidence says how sure a term misses it; bids that pay are reckoned from it. Without a target there is no evidence."
      {...{ saving, isChanged }}
      onSave={() =>
        void saving.save(
          setting({ steersBy, target }, { steersBy: settings.steersBy, target: targetOf(settings.steersBy) }),
        )
      }
      onLeave={() => {
        setSteersBy(settings.steersBy);
        setTarget(targetOf(settings.steersBy));
      }}
    >
      It steers by
      <select
        aria-label="Steers by"
        className={FIELD}
        value={steersBy}
        onChange={(e) => {
          const by = e.target.value as 'CPA' | 'ACoS';
          setSteersBy(by);
          setTarget(targetOf(by));
        }}
      >
        <option value="CPA">the cost of a conversion (CPA)</option>
        <option value="ACoS">cost as a share of value (ACoS)</option>
      </select>
      with a target of
      <input
        aria-label="Target"
        inputMode="decimal"
        className={`${FIELD} w-24 text-right`}
        placeholder={steersBy === 'CPA' ? exampleAmount(currency) : '24'}
        value={target}
        onChange={(e) => setTarget(e.target.value)}
      />
      {steersBy === 'CPA' ? currency : '%'}
    </Setting>
  );
}

export function LookBack({ view: { settings } }: Props) {
  const saving = useSaving();
  const setting = useSetting();
  const [days, setDays] = useState(String(settings.windowDays));
  const [lag, setLag] = useState(String(settings.lagDays));
  const isChanged = days !== String(settings.windowDays) || lag !== String(settings.lagDays);
  return (
    <Setting
      name="Days"
      says="The window that every screen opens with. The newest days are left out because their conversions are still to come: with them, terms would look worse than they are."
      {...{ saving, isChanged }}
      onSave={() =>
        void saving.save(
          setting(
            { windowDays: Number(days), lagDays: Number(lag) },
            { windowDays: settings.windowDays, lagDays: settings.lagDays },
          ),
        )
      }
      onLeave={() => {
        setDays(String(settings.windowDays));
        setLag(String(settings.lagDays));
      }}
    >
      Screens look back
      <NumberField label="Days of the window" value={days} onChange={setDays} />
      days and leave out the newest
      <NumberField label="Days of lag" value={lag} onChange={setLag} />
      days
    </Setting>
  );
}

export function DefaultMatch({ view: { settings } }: Props) {
  const saving = useSaving();
  const setting = useSetting();
  const [match, setMatch] = useState<MatchType>(settings.defaultMatch);
  return (
    <Setting
      name="Match type"
      says="What a choice of words in Sift begins with, and what a pasted line without a match type is read as. What stands already stays as it is."
      saving={saving}
      isChanged={match !== settings.defaultMatch}
      onSave={() =>
        void saving.save(setting({ defaultMatch: match }, { defaultMatch: settings.defaultMatch }))
      }
      onLeave={() => setMatch(settings.defaultMatch)}
    >
      A new negative is
      <select
        aria-label="Default match type"
        className={FIELD}
        value={match}
        onChange={(e) => setMatch(e.target.value as MatchType)}
      >
        {MATCH_TYPES.map((type) => (
          <option key={type}>{type}</option>
        ))}
      </select>
      at first
    </Setting>
  );
}

export function Keeper({ view: { settings } }: Props) {
  const saving = useSaving();
  const setting = useSetting();
  const was = settings.keeperConversions;
  const [isOn, setOn] = useState(was !== null);
  const [from, setFrom] = useState(String(was ?? 1));
  const wanted = isOn ? Number(from.replace(',', '.')) : null;
  return (
    <Setting
      name="Protection"
      says="Counted in all days that are kept, not only in the window. A change that would stop a protected term is held back until somebody gives a reason. Terms that people keep are protected whatever is set here."
      saving={saving}
      isChanged={wanted !== was}
      onSave={() => void saving.save(setting({ keeperConversions: wanted }, { keeperConversions: was }))}
      onLeave={() => {
        setOn(was !== null);
        setFrom(String(was ?? 1));
      }}
    >
      <label className="flex items-center gap-1">
        <Check checked={isOn} onChange={(e) => setOn(e.target.checked)} />
        Protect search terms
      </label>
      from
      <NumberField label="Conversions that protect a term" value={from} onChange={setFrom} disabled={!isOn} />
      {from === '1' ? 'conversion' : 'conversions'} on
    </Setting>
  );
}

/** A number as it is typed. */
export function NumberField({
  label,
  value,
  onChange,
  disabled,
  wide,
  placeholder,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  disabled?: boolean;
  wide?: boolean;
  placeholder?: string;
}) {
  return (
    <input
      aria-label={label}
      inputMode="decimal"
      className={`${FIELD} ${wide ? 'w-20' : 'w-14'} text-right`}
      disabled={disabled}
      placeholder={placeholder}
      value={value}
      onChange={(e) => onChange(e.target.value)}
    />
  );
}
