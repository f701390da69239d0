'use client';

import type { ReactNode } from 'react';
import { OFTEN, type Rule } from '@/core';
import type { RulesView } from '@/contracts/rules';
import { Picker } from '@/ui/picker';
import { optionsOf, Select, type Option } from '@/ui/select';
import { AddCondition, ConditionWords } from './condition-words';
import { HowWords } from './how-words';
import { Figure } from './word-fields';

type Props = { rule: Rule; view: RulesView; onChange: (rule: Rule) => void };

/** A rule as a sentence, each of whose parts can be chosen. */
export function Sentence({ rule, view, onChange }: Props) {
  const { when, lookBack, then, often } = rule;
  return (
    <div
      role="group"
      aria-label="The rule"
      className="flex flex-wrap items-baseline gap-x-1.5 gap-y-1.5 border-b border-line px-4 py-3 font-title text-hand leading-7"
    >
      When a search term
      {when.map((condition, i) => (
        <Part key={`${i} ${condition.of}`} before={i === 0 ? '' : i === when.length - 1 ? 'and' : ''}>
          <ConditionWords
            condition={condition}
            onChange={(next) => onChange({ ...rule, when: when.with(i, next) })}
            onRemove={
              when.length > 1
                ? () => onChange({ ...rule, when: when.filter((_, other) => other !== i) })
                : undefined
            }
          />
        </Part>
      ))}
      {when.length < 10 && <AddCondition onAdd={(one) => onChange({ ...rule, when: [...when, one] })} />}
      <Part before="in">
        <Figure
          label="Days that it looks at"
          value={lookBack.days}
          least={1}
          most={400}
          onChange={(days) => onChange({ ...rule, lookBack: { ...lookBack, days } })}
        />
        days that end
        <Figure
          label="Days ago that they end"
          value={lookBack.lagDays}
          most={400}
          onChange={(lagDays) => onChange({ ...rule, lookBack: { ...lookBack, lagDays } })}
        />
        days ago,
      </Part>
      <WhereWords rule={rule} view={view} onChange={onChange} />
      <ActionWords
        then={then}
        lists={view.lists}
        onChange={(next) =>
          // A rule that only tells does nothing by itself.
          onChange({ ...rule, then: next, ...(next.do === 'tell' && { how: { is: 'by approval' } }) })
        }
      />
      <Comma />
      <Select
        look="word"
        label="How often it looks"
        value={often}
        options={optionsOf(OFTEN)}
        onChange={(next) => onChange({ ...rule, often: next })}
      />
      <Comma />
      {then.do === 'tell' ? (
        'after a yes.'
      ) : (
        <HowWords how={rule.how} onChange={(how) => onChange({ ...rule, how })} />
      )}
    </div>
  );
}

/** It stands close to what is chosen before it. */
const Comma = () => <span className="-ml-1">,</span>;

function Part({ before, children }: { before: string; children: ReactNode }) {
  return (
    <span className="inline-flex flex-wrap items-baseline gap-x-1.5">
      {before}
      {children}
    </span>
  );
}

function WhereWords({ rule, view: { campaigns }, onChange }: Props) {
  const { is, campaigns: chosen } = rule.where;
  const set = (where: Rule['where']) => onChange({ ...rule, where });
  const nameOf = (id: string) => campaigns.find((one) => one.id === id)?.name ?? 'one that is gone';
  const turn = (id: string) =>
    set({ is, campaigns: chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id] });
  return (
    <span className="inline-flex flex-wrap items-baseline gap-x-1.5">
      <Select
        look="word"
        label="Where"
        value={is}
        options={[
          { key: 'everywhere', says: 'in all campaigns' },
          { key: 'in', says: 'in these campaigns' },
          { key: 'not in', says: 'in all campaigns but' },
        ]}
        onChange={(next) => set({ is: next, campaigns: next === 'everywhere' ? [] : chosen })}
      />
      {is !== 'everywhere' && (
        <>
          {chosen.map((id) => (
            <button
              key={id}
              type="button"
              title="Take it out"
              className="min-h-6 rounded border border-line px-1.5 text-base hover:border-rust"
              onClick={() => turn(id)}
            >
              {nameOf(id)} ×
            </button>
          ))}
          <Picker
            label="Choose a campaign"
            trigger={chosen.length === 0 ? 'choose' : 'more'}
            groups={[
              {
                name: 'Campaigns',
                items: campaigns
                  .filter(({ id }) => !chosen.includes(id))
                  .map(({ id, name }) => ({ key: id, says: name })),
              },
            ]}
            chosen={null}
            onPick={turn}
          />
        </>
      )}
      <Comma />
    </span>
  );
}

type ActionProps = {
  then: Rule['then'];
  lists: RulesView['lists'];
  onChange: (then: Rule['then']) => void;
};

function ActionWords({ then, lists, onChange }: ActionProps) {
  const ways: Option[] = [
    { key: 'ad group', says: 'stop it in its ad groups' },
    { key: 'campaign', says: 'stop it in its campaigns' },
    ...lists.map(({ id, name }) => ({ key: `list ${id}`, says: `stop it in the list ${name}` })),
    { key: 'tell', says: 'only tell' },
  ];
  const value = then.do === 'tell' ? 'tell' : then.do === 'stop' ? then.at : `list ${then.list}`;
  return (
    <Select
      look="word"
      label="What is proposed"
      value={value}
      placeholder="choose a list: the one that it names is gone"
      options={ways}
      onChange={(key) =>
        onChange(
          key === 'tell'
            ? { do: 'tell' }
            : key === 'ad group' || key === 'campaign'
              ? { do: 'stop', at: key }
              : { do: 'stop in list', list: key.slice('list '.length) },
        )
      }
    />
  );
}
