'use client';

import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { ALERT_KINDS, type AlertsView, type AlertTarget } from '@/contracts/alerts';
import { useMay } from '@/screens/frame/account-context';
import { useRoutes } from '@/screens/frame/data/routes';
import { Button } from '@/ui/button';
import { Fault } from '@/ui/form';
import { ErrorText } from '@/ui/said';
import { settingId } from '../setting';
import { useSaving } from '../use-settings';
import { TargetForm } from './target-form';
import { CameUp, Deliveries } from './what-became';
import { sayTarget } from './words';

type Target = AlertsView['targets'][number];

/** Who is told of what comes up, and what became of it; the owners of the account see it. */
export function Alerts() {
  const { may } = useMay('own');
  const { query } = useRoutes();
  const { data, error } = useQuery({ ...query('GET alerts'), enabled: may, staleTime: 0 });
  const [secret, setSecret] = useState<string | null>(null);
  const { fault, add, change, remove } = useTargets(setSecret);
  const [open, setOpen] = useState<number | 'new' | null>(null);
  const opener = useRef<HTMLElement>(null);
  const more = useRef<HTMLButtonElement>(null);
  if (!may) return null;
  const id = settingId('Alerts');
  const turn = (which: number | 'new', by: HTMLElement) => {
    opener.current = by;
    setOpen((was) => (was === which ? null : which)); // it may be on its way to be closed
  };
  const close = () => {
    opener.current?.focus();
    setOpen(null);
  };
  return (
    <section aria-labelledby={id} className="flex items-start gap-4 border-b border-line px-4 py-2.5">
      <h2 id={id} className="w-[112px] shrink-0 pt-0.5 font-semibold">
        Alerts
      </h2>
      <div className="min-w-0 flex-1">
        <ErrorText error={error} />
        {data?.targets.length === 0 && <p className="pt-0.5">Nobody is told yet.</p>}
        {data && data.targets.length > 0 && (
          <ul aria-label="Who is told">
            {data.targets.map((target) => (
              <li key={target.id} className="flex min-h-7 flex-wrap items-center gap-2">
                <span className={`min-w-0 flex-1 ${target.isOn ? '' : 'text-soft'}`}>
                  {sayTarget(target)}
                </span>
                <Button
                  aria-expanded={open === target.id}
                  aria-label={`Change: ${target.address}`}
                  onClick={(event) => turn(target.id, event.currentTarget)}
                >
                  Change
                </Button>
                <Button
                  tone="quiet"
                  aria-label={`Tell no more: ${target.address}`}
                  onClick={() => {
                    more.current?.focus();
                    void remove(target);
                  }}
                >
                  Tell no more
                </Button>
                {open === target.id && (
                  <TargetForm
                    key={JSON.stringify(target)}
                    first={plain(target)}
                    isKept
                    onSet={async (next) => (await change(target, next)) && close()}
                    onLeave={close}
                  />
                )}
              </li>
            ))}
          </ul>
        )}
        {fault && <Fault>{fault}</Fault>}
        {secret !== null && (
          <p role="status" className="my-1 border-l-[3px] border-pine bg-pine/10 px-2 py-1 text-table">
            The secret by which the hook knows us, told this once: <code className="break-all">{secret}</code>
          </p>
        )}
        <Button
          ref={more}
          aria-expanded={open === 'new'}
          onClick={(event) => turn('new', event.currentTarget)}
        >
          Tell somebody
        </Button>
        {open === 'new' && (
          <TargetForm
            first={firstTarget()}
            isKept={false}
            onSet={async (next) => (await add(next)) && close()}
            onLeave={close}
          />
        )}
        {data && data.alerts.length > 0 && <CameUp alerts={data.alerts} />}
        {data && data.deliveries.length > 0 && <Deliveries view={data} />}
        <p className="mt-0.5 text-table text-soft">
          Each thing comes up once. What is not taken is tried again after ever longer waits, for about a day
          and a half. {data && <Mail mail={data.mail} />}
        </p>
      </div>
    </section>
  );
}

/** Sets who is told, each time with its undo. @param tellSecret is given the secret of a new hook */
function useTargets(tellSecret: (secret: string | null) => void) {
  const { call } = useRoutes();
  const { fault, save } = useSaving();
  const setRemoved = (target: number, isRemoved: boolean) =>
    call('DELETE alerts/targets/[target]', { params: { target }, body: { isRemoved } });
  return {
    fault,
    add: (target: AlertTarget) =>
      save(async () => {
        const { id, said, secret } = await call('POST alerts/targets', { body: target });
        tellSecret(secret);
        return { said, undo: () => setRemoved(id, true) };
      }),
    change: (was: Target, next: AlertTarget) =>
      save(async () => {
        const put = (body: AlertTarget) =>
          call('PUT alerts/targets/[target]', { params: { target: was.id }, body });
        const { said } = await put(next);
        return { said, undo: () => put(plain(was)) };
      }),
    remove: ({ id }: Target) =>
      save(async () => {
        const { said } = await setRemoved(id, true);
        return { said, undo: () => setRemoved(id, false) };
      }),
  };
}

const plain = ({ id: _, by: __, ...target }: Target): AlertTarget => target;
const firstTarget = (): AlertTarget => ({
  ...{ way: 'mail', address: '', kinds: [...ALERT_KINDS], quiet: null, digestAt: null, isOn: true },
  timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
});

/** Where letters go. */
function Mail({ mail }: Pick<AlertsView, 'mail'>) {
  if (mail === null) return 'No mail can be sent from here: GATEPOST_MAIL_URL is not set.';
  if (mail.shownAt === null) return null;
  return (
    <>
      Letters reach nobody until GATEPOST_MAIL_URL is set: the{' '}
      <a className="text-pine underline" href={mail.shownAt} target="_blank" rel="noreferrer">
        stand-in inbox
      </a>{' '}
      shows them.
    </>
  );
}
