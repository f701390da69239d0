'use client';

import { useQuery } from '@tanstack/react-query';
import { counted } from '@/core';
import type { RulesView } from '@/contracts/rules';
import { useRoutes } from '@/screens/frame/data/routes';
import { useMay } from '@/screens/frame/account-context';
import { Waiting } from '@/screens/frame/waiting';
import { Button } from '@/ui/button';
import { formatCount } from '@/ui/format';
import { ErrorText } from '@/ui/said';
import { TabbedView } from '@/ui/tabs';
import { ActsView } from './acts/acts-view';
import { FindingsView, useFindings } from './findings/findings-view';
import { RuleList } from './list/rule-list';
import { useRuleActions } from './list/use-rule-actions';
import { ReadyRules } from './ready/ready-rules';
import { OpenRule } from './sentence/open-rule';
import { SetsView } from './sets/sets-view';
import { SHOWN, useRulesUrl, type Shown } from './rules-url';

const NAMES: Record<Shown, string> = {
  findings: 'Findings',
  rules: 'Rules',
  sets: 'Sets',
  did: 'What they did',
  ready: 'Ready ones',
};
const ASKED = ['GET rules', 'GET rules/findings'] as const;

/** What repeats is proposed by rules: sentences that are tried on the past before they may propose anything. */
export function RulesScreen() {
  const [url, setUrl] = useRulesUrl();
  const { query } = useRoutes();
  const asked = useQuery(query('GET rules'));
  const findings = useFindings();
  const { setStates } = useRuleActions();
  const { may } = useMay('prepare');
  const view = asked.data;
  const on = view?.rules.filter(({ state }) => state === 'on') ?? [];
  const counts: Record<Shown, number | undefined> = {
    findings: findings.data?.counts.open,
    rules: view?.rules.length,
    sets: view?.sets.length,
    did: undefined,
    ready: view?.ready.length,
  };
  const begin = (name: string) => void setUrl({ shown: 'rules', rule: null, begin: name });
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line bg-paper px-4 py-2">
        <h1 className="font-title text-title font-bold">Rules</h1>
        {view && <p className="text-table text-soft">{sayAll(view, on.length, counts.findings)}</p>}
        <span className="ml-auto flex gap-1.5">
          <Button
            disabled={on.length === 0 || !may}
            onClick={() =>
              void setStates(
                on.map(({ id }) => ({ id, state: 'off' })),
                `${counted(on.length, 'rule')} switched off`,
              )
            }
          >
            All rules off
          </Button>
          <Button tone="main" disabled={!may} onClick={() => begin('')}>
            New rule
          </Button>
        </span>
      </header>
      <TabbedView
        label="Show"
        className="px-3"
        tabs={SHOWN.map((value) => ({
          ...{ value, name: NAMES[value] },
          count: counts[value] === undefined ? '' : formatCount(counts[value]),
        }))}
        value={url.shown}
        onChange={(shown) => void setUrl({ shown, rule: null, begin: null, pile: 'open' })}
      >
        <Waiting query={asked} routes={ASKED} />
        {asked.error ? (
          <ErrorText error={asked.error} isWhole />
        ) : url.shown === 'findings' ? (
          <FindingsView asked={findings} rules={view?.rules} />
        ) : url.shown === 'sets' ? (
          view && <SetsView view={view} />
        ) : url.shown === 'did' ? (
          <ActsView />
        ) : url.shown === 'ready' ? (
          <ReadyRules view={view} onBegin={begin} />
        ) : view && (url.rule !== null || url.begin !== null) ? (
          <OpenRule key={keyOf(url.rule, url.begin, view)} view={view} />
        ) : (
          <RuleList view={view} onOpen={(rule) => void setUrl({ rule, begin: null })} />
        )}
      </TabbedView>
    </div>
  );
}

/** What was typed into a sentence holds until another one is open, or another version came. */
const keyOf = (rule: number | null, begin: string | null, { rules }: RulesView) =>
  `${rule} ${rules.find(({ id }) => id === rule)?.version} ${begin}`;

function sayAll({ rules }: RulesView, on: number, open = 0): string {
  if (rules.length === 0) return 'None yet: begin from a ready one, or write one of your own.';
  const wait =
    open === 0 ? 'no finding waits' : `${counted(open, 'finding')} ${open === 1 ? 'waits' : 'wait'}`;
  return `${counted(rules.length, 'rule')}, ${formatCount(on)} on; ${wait}.`;
}
