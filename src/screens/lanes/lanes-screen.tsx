'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { counted } from '@/core';
import type { LanePlan, LanesView, ShownLanes } from '@/contracts/lanes';
import { useMay } from '@/screens/frame/account-context';
import { inDays, useDays } from '@/screens/frame/data/days';
import { useRoutes } from '@/screens/frame/data/routes';
import { useMoney } from '@/screens/frame/money';
import { Waiting } from '@/screens/frame/waiting';
import { Button } from '@/ui/button';
import { formatCount } from '@/ui/format';
import { Picker } from '@/ui/picker';
import { ErrorText } from '@/ui/said';
import { TabbedView } from '@/ui/tabs';
import { EntryTermsView } from './entry-terms-view';
import { SHOWN, useLanesUrl, type Shown } from './lanes-url';
import { LeaksView } from './leaks-view';
import { PlanDialog } from './plan-dialog';
import { TiersFlow } from './tiers-flow';
import { TiersView } from './tiers-view';
import { useLanePlans, type LanePlans } from './use-lane-plans';
import { WhereForm } from './where-form';

const NAMES: Record<Shown, string> = { leaks: 'Leaks', terms: 'Entry terms', tiers: 'Tiers by this plan' };

/** Tiers of campaigns that could serve the same queries: who is to serve which, who really did, and what mends it. */
export function LanesScreen() {
  const [url, setUrl] = useLanesUrl();
  const [days] = useDays();
  const { query } = useRoutes();
  const plans = useLanePlans();
  const [writing, setWriting] = useState<{ plan: LanePlan | null }>();
  const asked = useQuery({
    ...query('GET lanes', { query: { ...(url.plan !== null && { plan: url.plan }), ...inDays(days) } }),
    placeholderData: keepPreviousData,
  });
  const view = asked.data;
  const shown = view?.shown;
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-y-auto">
      <Head
        {...{ view, plans }}
        onPlan={(plan) => void setUrl({ plan })}
        onWrite={(plan) => setWriting({ plan })}
      />
      <Waiting query={asked} routes={['GET lanes']} />
      {asked.error ? (
        <ErrorText error={asked.error} isWhole />
      ) : shown ? (
        <ShownPlan
          key={shown.key}
          {...{ shown, plans }}
          tab={url.shown}
          onTab={(tab) => void setUrl({ shown: tab })}
        />
      ) : (
        view && <Nothing />
      )}
      {writing && view && (
        <PlanDialog
          plan={writing.plan}
          {...{ plans, campaigns: view.campaigns, freeName: freeName(view) }}
          onClose={() => setWriting(undefined)}
          onKept={(key) => void setUrl({ plan: key })}
        />
      )}
    </div>
  );
}

function freeName({ plans }: LanesView): string {
  const names = new Set(plans.map(({ name }) => name));
  let number = 1;
  while (names.has(`Lanes ${number}`)) number += 1;
  return `Lanes ${number}`;
}

const Nothing = () => (
  <p className="px-4 py-3 text-table text-soft">
    No campaigns are in tiers yet. Make a plan, or choose seats for a group in Promote: seats are lanes by
    match type.
  </p>
);

type HeadProps = {
  view: LanesView | undefined;
  plans: LanePlans;
  onPlan: (key: string | null) => void;
  onWrite: (plan: LanePlan | null) => void;
};

function Head({ view, plans, onPlan, onWrite }: HeadProps) {
  const money = useMoney();
  const { may } = useMay('prepare');
  const shown = view?.shown;
  const of = (by: ShownLanes['by']) =>
    (view?.plans ?? []).filter((one) => one.by === by).map(({ key, name }) => ({ key, says: name }));
  return (
    <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-line bg-paper px-4 py-2">
      <h1 className="font-title text-title font-bold">Lanes</h1>
      {shown && (
        <>
          <Picker
            label="The lane plan that is shown"
            trigger={shown.name}
            groups={[
              { name: 'Plans', items: of('entry terms') },
              { name: 'Seats of a group, by match type', items: of('match type') },
            ]}
            chosen={shown.key}
            onPick={onPlan}
          />
          <p className="text-table text-soft">
            {counted(shown.tiers.length, 'tier')}, by {shown.by}.
            {shown.budget && (
              <>
                {' '}
                Budget shared: <b>{money(shown.budget.micros)} a day</b>.
              </>
            )}
          </p>
        </>
      )}
      <span className="ml-auto flex gap-1.5">
        {shown?.plan && (
          <>
            <Button disabled={!may} onClick={() => onWrite(shown.plan)}>
              Change
            </Button>
            <Button
              disabled={!may}
              onClick={() => void plans.keep(shown.plan, null).then((key) => key === null && onPlan(null))}
            >
              Remove
            </Button>
          </>
        )}
        {view && (
          <Button disabled={!may} onClick={() => onWrite(null)}>
            New plan
          </Button>
        )}
      </span>
    </header>
  );
}

type ShownProps = { shown: ShownLanes; plans: LanePlans; tab: Shown; onTab: (tab: Shown) => void };

function ShownPlan({ shown, plans, tab, onTab }: ShownProps) {
  const counts: Record<Shown, number> = {
    leaks: shown.leaks.count,
    terms: shown.entryTerms.length,
    tiers: shown.tiers.length,
  };
  return (
    <>
      <Faults {...{ shown, plans }} />
      <TiersFlow shown={shown} />
      <WhereForm shown={shown} />
      <TabbedView
        label="Show"
        className="px-3"
        tabs={SHOWN.map((value) => ({ value, name: NAMES[value], count: formatCount(counts[value]) }))}
        value={tab}
        onChange={onTab}
      >
        {tab === 'terms' ? (
          <EntryTermsView {...{ shown, plans }} />
        ) : tab === 'tiers' ? (
          <TiersView shown={shown} />
        ) : (
          <LeaksView {...{ shown, plans }} />
        )}
      </TabbedView>
    </>
  );
}

/** What is wrong with the plan as a whole, and what mends it. */
function Faults({ shown, plans }: Pick<ShownProps, 'shown' | 'plans'>) {
  const { faults, missing, sharing, ordering } = shown;
  const { may } = useMay('prepare');
  if (faults.length + missing.length === 0) return null;
  return (
    <div className="flex flex-col gap-1 border-b border-line px-4 py-1.5 text-table">
      {faults.map((fault) => (
        <p key={fault}>{fault}</p>
      ))}
      {missing.length > 0 && (
        <p className="text-rust">
          {counted(missing.length, 'negative')} {missing.length === 1 ? 'is' : 'are'} missing that should keep
          queries for later tiers.
        </p>
      )}
      <p className="flex flex-wrap gap-1.5 empty:hidden">
        {missing.length > 0 && (
          <Button
            disabled={!may}
            onClick={() => void plans.put(shown, missing, `the negatives that ${shown.name} needs`)}
          >
            Put all that are missing in the tray
          </Button>
        )}
        {sharing.length > 0 && (
          <Button disabled={!may} onClick={() => void plans.put(shown, sharing, 'one budget for all tiers')}>
            Let all tiers pay out of one budget
          </Button>
        )}
        {ordering.length > 0 && (
          <Button
            disabled={!may}
            onClick={() => void plans.put(shown, ordering, 'priorities in the order of the tiers')}
          >
            Ask them in this order
          </Button>
        )}
      </p>
    </div>
  );
}
