'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Rule } from '@/core';
import type { ReadyRule, RuleLine, RulesView } from '@/contracts/rules';
import { useRoutes } from '@/screens/frame/data/routes';
import { Waiting } from '@/screens/frame/waiting';
import { Button } from '@/ui/button';
import { EmptyState, ErrorText } from '@/ui/said';
import { beginOf } from '../ready/ready-rules';
import { useRulesUrl } from '../rules-url';
import { RulesAgainst } from '../trial/rules-against';
import { TrialChart } from '../trial/trial-chart';
import { TrialLines } from '../trial/trial-lines';
import { RuleInHand } from './rule-in-hand';
import { Sentence } from './sentence';

const ASKED = ['POST rules/trial'] as const;
/** Where a sentence begins that begins from none: the threshold that most people know. */
const EMPTY: Pick<ReadyRule, 'name' | 'rule'> = {
  name: '',
  rule: {
    when: [
      { of: 'clicks', is: 'at least', value: 15 },
      { of: 'conversions', is: 'at most', value: 0 },
    ],
    ...{ lookBack: { days: 30, lagDays: 2 }, where: { is: 'everywhere', campaigns: [] } },
    ...{ then: { do: 'stop', at: 'ad group' }, how: { is: 'by approval' }, often: 'after each report' },
  },
};

/** A rule that is written: its sentence, and what it would have done on all days that are kept. */
export function OpenRule({ view }: { view: RulesView }) {
  const [url, setUrl] = useRulesUrl();
  const stored = view.rules.find(({ id }) => id === url.rule);
  const ready = view.ready.find((one) => beginOf(one) === url.begin);
  const back = () => void setUrl({ rule: null, begin: null });
  if (url.rule !== null && !stored) {
    return (
      <EmptyState>
        There is no such rule any more. <Button onClick={back}>To the rules</Button>
      </EmptyState>
    );
  }
  return (
    <Opened
      view={view}
      stored={stored}
      first={stored ?? ready ?? EMPTY}
      onKept={(rule) => void setUrl({ rule, begin: null })}
      onBack={back}
    />
  );
}

type Props = {
  view: RulesView;
  stored: RuleLine | undefined;
  first: { name: string; rule: Rule };
  onKept: (ruleId: number) => void;
  onBack: () => void;
};

function Opened({ view, stored, first, onKept, onBack }: Props) {
  const { query } = useRoutes();
  const [rule, setRule] = useState(first.rule);
  const asked = useQuery({
    // How it comes about changes nothing of what it would have found.
    ...query('POST rules/trial', {
      body: { rule: { ...rule, how: { is: 'by approval' } }, ...(stored && { ruleId: stored.id }) },
    }),
    placeholderData: keepPreviousData,
    gcTime: 60_000,
  });
  const trial = asked.data;
  return (
    <>
      <div className="min-h-0 flex-1 overflow-y-auto">
        <Sentence rule={rule} view={view} isKept={stored !== undefined} onChange={setRule} />
        <Waiting query={asked} routes={ASKED} />
        {asked.error ? (
          <ErrorText error={asked.error} isWhole />
        ) : trial?.waitsFor ? (
          <p className="px-4 py-3 text-rust">It can not be tried: it names {trial.waitsFor}.</p>
        ) : trial && trial.from === null ? (
          <EmptyState>No day is known yet: bring a report first.</EmptyState>
        ) : (
          trial && (
            <div className={asked.isPlaceholderData ? 'opacity-60' : ''} aria-busy={asked.isPlaceholderData}>
              <RulesAgainst against={trial.against} rule={rule} />
              <TrialChart trial={trial} then={rule.then} />
              <TrialLines trial={trial} rule={rule} onTake={(next) => setRule({ ...next, how: rule.how })} />
            </div>
          )
        )}
      </div>
      <RuleInHand stored={stored} first={first} rule={rule} trial={trial} onKept={onKept} onBack={onBack} />
    </>
  );
}
