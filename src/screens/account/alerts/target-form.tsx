import { useState, type FormEvent } from 'react';
import * as v from 'valibot';
import { ALERT_KINDS, AlertTargetSchema, WAYS, type AlertKind, type AlertTarget } from '@/contracts/alerts';
import { Button } from '@/ui/button';
import { Check } from '@/ui/check';
import { Fault, FIELD } from '@/ui/form';
import { optionsIn, Select } from '@/ui/select';
import { KIND_NAMES, minutesOf, timeOf, WAY_NAMES } from './words';

type FormProps = {
  first: AlertTarget;
  isKept: boolean;
  onSet: (target: AlertTarget) => Promise<unknown>;
  onLeave: () => void;
};

/** Where somebody is told, of what, and when. */
export function TargetForm({ first, isKept, onSet, onLeave }: FormProps) {
  const [target, setTarget] = useState(first);
  const [fault, setFault] = useState<string>();
  const set = (part: Partial<AlertTarget>) => setTarget({ ...target, ...part });
  async function submit(event: FormEvent) {
    event.preventDefault();
    const read = v.safeParse(AlertTargetSchema, target);
    setFault(read.success ? undefined : read.issues[0].message);
    if (read.success) await onSet(read.output);
  }
  const turn = (kind: AlertKind) =>
    set({ kinds: ALERT_KINDS.filter((one) => target.kinds.includes(one) !== (one === kind)) });
  return (
    <form
      noValidate
      aria-label={isKept ? `Change: ${first.address}` : 'Tell somebody'}
      className="my-1 flex basis-full flex-col gap-1.5 border-l-[3px] border-line px-3"
      onSubmit={(event) => void submit(event)}
      onKeyDown={(event) => event.key === 'Escape' && !event.defaultPrevented && onLeave()}
    >
      <p className="flex flex-wrap items-center gap-1.5">
        {isKept ? (
          WAY_NAMES[target.way]
        ) : (
          <Select
            look="word"
            label="By mail or by a web hook"
            options={optionsIn(WAYS, WAY_NAMES)}
            value={target.way}
            onChange={(way) => set({ way })}
          />
        )}
        <input
          autoFocus
          aria-label="Address"
          className={`${FIELD} w-72`}
          maxLength={400}
          value={target.address}
          onChange={(event) => set({ address: event.target.value })}
        />
        <label className="flex items-center gap-1">
          <Check checked={target.isOn} onChange={(event) => set({ isOn: event.target.checked })} /> on
        </label>
      </p>
      <fieldset className="flex flex-wrap gap-x-3">
        <legend className="sr-only">Told of</legend>
        {ALERT_KINDS.map((kind) => (
          <label key={kind} className="flex items-center gap-1">
            <Check checked={target.kinds.includes(kind)} onChange={() => turn(kind)} /> {KIND_NAMES[kind]}
          </label>
        ))}
      </fieldset>
      <p className="flex flex-wrap items-center gap-1.5">
        <label className="flex items-center gap-1">
          <Check
            checked={target.digestAt !== null}
            onChange={(event) => set({ digestAt: event.target.checked ? 8 * 60 : null })}
          />
          once a day
        </label>
        {target.digestAt !== null && (
          <Time
            label="Time of the digest"
            value={target.digestAt}
            onChange={(digestAt) => set({ digestAt })}
          />
        )}
        <label className="ml-3 flex items-center gap-1">
          <Check
            checked={target.quiet !== null}
            onChange={(event) => set({ quiet: event.target.checked ? { from: 20 * 60, to: 7 * 60 } : null })}
          />
          quiet hours
        </label>
        {target.quiet !== null && (
          <>
            <Time
              label="Quiet from"
              value={target.quiet.from}
              onChange={(from) => set({ quiet: { ...target.quiet!, from } })}
            />
            to
            <Time
              label="Quiet to"
              value={target.quiet.to}
              onChange={(to) => set({ quiet: { ...target.quiet!, to } })}
            />
          </>
        )}
        <span className="text-soft">by the clock of {target.timeZone}</span>
      </p>
      {fault !== undefined && <Fault>{fault}</Fault>}
      <p className="flex gap-1.5">
        <Button type="submit" tone="main">
          {isKept ? 'Set' : 'Tell'}
        </Button>
        <Button onClick={onLeave}>Leave</Button>
      </p>
    </form>
  );
}

type TimeProps = { label: string; value: number; onChange: (minutes: number) => void };

const Time = ({ label, value, onChange }: TimeProps) => (
  <input
    type="time"
    aria-label={label}
    className={FIELD}
    value={timeOf(value)}
    onChange={(event) => event.target.value !== '' && onChange(minutesOf(event.target.value))}
  />
);
