'use client';

import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { useEffect, useRef, useState, type FormEvent, type ReactNode } from 'react';
import type { Where } from '@/core';
import type { RuleLine, RuleSet, RulesView } from '@/contracts/rules';
import { useMay } from '@/screens/frame/account-context';
import { InHand } from '@/screens/frame/in-hand';
import { Button, Key } from '@/ui/button';
import { focusWork } from '@/ui/focus-work';
import { TextField } from '@/ui/form';
import { Picker } from '@/ui/picker';
import { WhereWords } from '../sentence/where-words';
import type { useSets } from './use-sets';

type Props = {
  set: RuleSet;
  view: RulesView;
  actions: ReturnType<typeof useSets>;
  fieldId: string;
  /** it was just made */
  isToBeNamed: boolean;
  onInHand: () => void;
  onRenamed: (name: string) => void;
};

const EVERYWHERE: Where = { is: 'everywhere', campaigns: [] };

/** The set in hand: its name, where its rules look at most, and their order. */
export function SetInHand({ set, view, actions, fieldId, isToBeNamed, onInHand, onRenamed }: Props) {
  const { may } = useMay('prepare');
  const [name, setName] = useState(set.name);
  const [fault, setFault] = useState<string>();
  // While nothing is named yet, a place is only chosen here.
  const [begun, setBegun] = useState<Where>();
  useEffect(() => {
    if (!isToBeNamed) return;
    document.getElementById(fieldId)?.focus();
    onInHand();
  }, [isToBeNamed, fieldId, onInHand]);
  const others = view.sets.filter((one) => one !== set);
  function rename(event: FormEvent) {
    event.preventDefault();
    const next = name.trim();
    const isTaken = others.some((one) => one.name === next);
    setFault(next === '' ? 'A set needs a name.' : isTaken ? 'Another set is called so.' : undefined);
    if (next === '' || isTaken || next === set.name) return;
    onRenamed(next); // it stays in hand, wherever it stands then
    focusWork();
    void actions.change(set, { ...set, name: next }, `${set.name} is called ${next}`);
  }
  function look(next: Where) {
    setBegun(next);
    const isNamed = [next.campaigns, next.labels ?? [], next.productGroups ?? []].some(
      (one) => one.length > 0,
    );
    if (next.is !== 'everywhere' && !isNamed) return;
    const where = next.is === 'everywhere' ? null : next;
    void actions
      .change(set, { ...set, where }, `${set.name} looks elsewhere`)
      .then(() => setBegun(undefined));
  }
  return (
    <InHand
      title={set.name}
      actions={
        <div className="flex flex-wrap items-center gap-1.5">
          {may && others.length > 0 && (
            <Picker
              label="Swap it for another set"
              trigger="Swap for"
              groups={[{ name: 'Sets', items: others.map((one) => ({ key: one.name, says: one.name })) }]}
              chosen={null}
              onPick={(key) =>
                void actions.swap(
                  set,
                  others.find((one) => one.name === key)!,
                )
              }
            />
          )}
          <Button disabled={!may} onClick={() => void actions.remove(set)}>
            Remove <Key>Del</Key>
          </Button>
        </div>
      }
    >
      <div className="mt-1 flex flex-col gap-2 text-table">
        <form aria-label="Name of the set" onSubmit={rename}>
          <TextField
            id={fieldId}
            label="Name"
            value={name}
            maxLength={80}
            fault={fault}
            readOnly={!may}
            onChange={(event) => setName(event.target.value)}
            onKeyDown={(event) => event.key === 'Escape' && focusWork()}
          />
        </form>
        <p className="flex flex-wrap items-baseline gap-x-1.5">
          Its rules look <WhereWords where={begun ?? set.where ?? EVERYWHERE} view={view} onChange={look} />
        </p>
        <Order set={set} view={view} actions={actions} mayChange={may} />
      </div>
    </InHand>
  );
}

type OrderProps = Pick<Props, 'set' | 'view' | 'actions'> & { mayChange: boolean };

/** Its rules, the first first. */
function Order({ set, view, actions, mayChange }: OrderProps) {
  const inOrder = set.rules.flatMap((id) => view.rules.find((rule) => rule.id === id) ?? []);
  const put = (rules: readonly RuleLine[], said: string) =>
    actions.change(set, { ...set, rules: rules.map(({ id }) => id) }, said);
  const list = useRef<HTMLOListElement>(null);
  async function move(from: number, to: number) {
    const { id, name } = inOrder[from]!;
    const moved = inOrder.toSpliced(from, 1).toSpliced(to, 0, inOrder[from]!);
    if (!(await put(moved, `“${name}” is number ${to + 1} of ${set.name}`))) return;
    // A row that moves lets go of the focus.
    const steps = list.current?.querySelectorAll<HTMLButtonElement>(`[data-rule="${id}"] button:enabled`);
    steps?.[to < from ? 0 : steps.length - 2]?.focus();
  }
  const left = view.rules.filter(({ id }) => !set.rules.includes(id));
  return (
    <>
      <ol ref={list} aria-label="Rules in their order" className="flex flex-col">
        {inOrder.map((rule, i) => (
          <li
            key={rule.id}
            data-rule={rule.id}
            className="flex items-center gap-1 border-b border-line py-0.5"
          >
            <span className="w-5 text-right text-soft">{i + 1}</span>
            <span className="min-w-0 flex-1 truncate" title={rule.name}>
              {rule.name}
            </span>
            <Step
              label={`Before: ${rule.name}`}
              isOff={!mayChange || i === 0}
              onPress={() => void move(i, i - 1)}
            >
              <ArrowUp size={12} aria-hidden />
            </Step>
            <Step
              label={`After: ${rule.name}`}
              isOff={!mayChange || i === inOrder.length - 1}
              onPress={() => void move(i, i + 1)}
            >
              <ArrowDown size={12} aria-hidden />
            </Step>
            <Step
              label={`Take out: ${rule.name}`}
              isOff={!mayChange}
              onPress={() => void put(inOrder.toSpliced(i, 1), `“${rule.name}” is in no set`)}
            >
              <X size={12} aria-hidden />
            </Step>
          </li>
        ))}
      </ol>
      {mayChange && (
        <p>
          <Picker
            label="Add a rule"
            trigger="Add a rule"
            groups={[
              {
                name: 'Rules',
                items: left.map(({ id, name, set: other }) => ({
                  ...{ key: String(id), says: other === null ? name : `${name} (from ${other})` },
                })),
              },
            ]}
            chosen={null}
            onPick={(key) => {
              const rule = left.find(({ id }) => String(id) === key)!;
              void put([...inOrder, rule], `“${rule.name}” is in ${set.name}`);
            }}
          />
        </p>
      )}
    </>
  );
}

type StepProps = { label: string; isOff: boolean; onPress: () => void; children: ReactNode };

const Step = ({ label, isOff, onPress, children }: StepProps) => (
  <button
    type="button"
    aria-label={label}
    disabled={isOff}
    className="inline-grid size-6 place-items-center text-soft hover:text-pine disabled:opacity-30"
    onClick={onPress}
  >
    {children}
  </button>
);
