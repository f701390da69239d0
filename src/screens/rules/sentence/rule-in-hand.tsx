'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { counted, daysBetween, type Rule } from '@/core';
import type { RuleLine, TrialView, WouldStopLine } from '@/contracts/rules';
import { useAccount, useMay } from '@/screens/frame/account-context';
import { useRoutes } from '@/screens/frame/data/routes';
import { InHand } from '@/screens/frame/in-hand';
import { useMoney } from '@/screens/frame/money';
import { Button } from '@/ui/button';
import { TextField } from '@/ui/form';
import { formatConversions, formatCount, formatDay, formatMoment } from '@/ui/format';
import { useRuleActions } from '../list/use-rule-actions';
import { thingOf } from '../say-rule';
import { trialWords } from '../trial/trial-words';

type Props = {
  stored: RuleLine | undefined;
  first: { name: string; rule: Rule };
  rule: Rule;
  trial: TrialView | undefined;
  onKept: (ruleId: number) => void;
  onBack: () => void;
};

/** The rule in hand: what it would have done in words, who was wrongly stopped, and whether it is kept. */
export function RuleInHand({ stored, first, rule, trial, onKept, onBack }: Props) {
  const [name, setName] = useState(first.name);
  const [why, setWhy] = useState('');
  const [fault, setFault] = useState<string>();
  const { isConnected } = useAccount().summary;
  const { may } = useMay('prepare');
  const send = useMay('send');
  // It sends in the name of whoever switches it on.
  const mayAct = rule.how.is === 'by approval' ? may : send.may;
  const { keep, change, setStates } = useRuleActions();
  const isOther =
    stored && (name.trim() !== stored.name || JSON.stringify(rule) !== JSON.stringify(stored.rule));
  const named = () => {
    const isNamed = name.trim() !== '';
    setFault(isNamed ? undefined : 'A rule needs a name.');
    return isNamed;
  };
  async function keepAs(state: 'draft' | 'on') {
    if (!named()) return;
    const id = await keep(name.trim(), rule, { state, why: why.trim() });
    if (id !== null) onKept(id);
  }
  /** To begin others from: what is written stays open. */
  const keepReady = () => named() && void keep(name.trim(), rule, { state: 'ready', why: why.trim() });
  const turn = (one: RuleLine) =>
    setStates(
      [{ id: one.id, state: one.state === 'on' ? 'off' : 'on' }],
      `“${one.name}” switched ${one.state === 'on' ? 'off' : 'on'}`,
    );
  return (
    <InHand
      title={stored?.name ?? 'A new rule'}
      actions={
        <div className="flex flex-wrap items-center gap-1.5">
          {stored ? (
            <>
              {isOther && (
                <Button
                  tone="main"
                  disabled={stored.state === 'on' ? !mayAct : !may}
                  onClick={() => void (named() && change(stored, { name: name.trim(), rule, why }))}
                >
                  Keep as version {stored.version + 1}
                </Button>
              )}
              <Button
                tone={isOther ? 'plain' : 'main'}
                disabled={stored.state === 'on' ? !may : !mayAct}
                onClick={() => void turn(stored)}
              >
                {stored.state === 'on' ? 'Switch it off' : 'Switch it on'}
              </Button>
            </>
          ) : (
            <>
              <Button tone="main" disabled={!mayAct} onClick={() => void keepAs('on')}>
                Switch it on
              </Button>
              <Button disabled={!may} onClick={() => void keepAs('draft')}>
                Keep as a draft
              </Button>
            </>
          )}
          <Button tone="quiet" disabled={!may} onClick={keepReady}>
            Keep as a ready one
          </Button>
          <Button tone="quiet" onClick={onBack}>
            All rules
          </Button>
        </div>
      }
    >
      <div className="mt-1 flex flex-col gap-2 text-table">
        {stored?.trouble != null && <p className="text-rust">{stored.trouble}</p>}
        {!mayAct && may && (
          <p className="text-soft">Only who may send lets a rule act by itself: {send.who}.</p>
        )}
        {rule.how.is === 'by itself' && !isConnected && (
          <p className="text-rust">
            In this account nothing acts by itself: its trays are handed over as sheets, which somebody
            carries out.
          </p>
        )}
        {trial && <Tried trial={trial} rule={rule} />}
        <TextField
          label="Name"
          value={name}
          maxLength={80}
          fault={fault}
          onChange={(event) => setName(event.target.value)}
        />
        {(isOther || !stored) && (
          <TextField
            label={stored ? 'Why it is changed' : 'Why these numbers'}
            value={why}
            maxLength={300}
            fault={undefined}
            onChange={(event) => setWhy(event.target.value)}
          />
        )}
        {stored && <Versions stored={stored} />}
      </div>
    </InHand>
  );
}

/** So many that were wrongly stopped are told in full. */
const MOST_TOLD = 4;

function Tried({ trial: { from, to, lines }, rule }: { trial: TrialView; rule: Rule }) {
  const words = trialWords(rule.then);
  const money = useMoney();
  const own = lines.find(({ isOwn }) => isOwn);
  if (!own || from === null || to === null) return null;
  const { wrong } = own;
  return (
    <>
      <p>
        Would have {words.did} <b>{counted(own.terms, thingOf(rule))}</b> in{' '}
        {counted(daysBetween(from, to) + 1, 'day')}
        {words.ends ? ' and saved ' : ', which cost since '}
        <b>{money(own.savedMicros)}</b>;{' '}
        {wrong.total === 0 ? 'none of them sold later.' : `${formatCount(wrong.total)} of them sold later:`}
      </p>
      {wrong.total > 0 && (
        <ul className="flex flex-col gap-1">
          {wrong.first.slice(0, MOST_TOLD).map((one) => (
            <li key={one.term}>
              <b>{one.term}</b>
              <br />
              <span className="text-small text-soft">
                {words.did} {sayWrong(one)}
              </span>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

const sayWrong = ({ day, clicks, lostConversions }: WouldStopLine) =>
  `on ${formatDay(day)}${clicks === null ? '' : ` after ${counted(clicks, 'click')}`}; ${formatConversions(lostConversions)} ${lostConversions === 1 ? 'conversion' : 'conversions'} since`;

/** What the rule was before, with who changed it and why. */
function Versions({ stored }: { stored: RuleLine }) {
  const { query } = useRoutes();
  const [isOpen, setOpen] = useState(false);
  const { data } = useQuery({
    ...query('GET rules/[rule]', { params: { rule: stored.id } }),
    enabled: isOpen,
  });
  return (
    <details className="text-small text-soft" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>
        Version {stored.version}, by {stored.by}
      </summary>
      <ul>
        {data?.versions.map(({ version, name, by, at, why }) => (
          <li key={version}>
            {version}: {name}, by {by}, {formatMoment(at)}
            {why && `: ${why}`}
          </li>
        ))}
      </ul>
    </details>
  );
}
