'use client';

import type { ReactNode } from 'react';
import { isPhrase, mayActByItself, OFTEN, type Rule } from '@/core';
import type { RulesView } from '@/contracts/rules';
import { NOT_ASKED } from '@/contracts/rule-sentence';
import { optionsIn, optionsOf, Select } from '@/ui/select';
import { ActionWords, FIRST_BUDGET } from './action-words';
import { AddCondition, ConditionWords } from './condition-words';
import { HowWords } from './how-words';
import { ServedWords, WhereWords } from './where-words';
import { Figure } from './word-fields';

type Props = {
  rule: Rule;
  view: RulesView;
  /** a rule that is kept stays about what it is about */
  isKept: boolean;
  onChange: (rule: Rule) => void;
};

/** A rule as a sentence, each of whose parts can be chosen. */
export function Sentence({ rule, view, isKept, onChange }: Props) {
  const { about, when, lookBack, where, then, often } = rule;
  return (
    <div
      role="group"
      aria-label="The rule"
      className="flex flex-wrap items-baseline gap-x-1.5 gap-y-1.5 border-b border-line px-4 py-3 font-title text-hand leading-7"
    >
      When a{' '}
      {isKept ? (
        SUBJECTS[about ?? 'terms']
      ) : (
        <Select
          look="word"
          label="What it is about"
          value={about ?? 'terms'}
          options={optionsIn(ABOUTS, SUBJECTS)}
          onChange={(next) => onChange(aboutWhat(rule, next))}
        />
      )}
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
      {when.length < 10 && (
        <AddCondition about={about} onAdd={(one) => onChange({ ...rule, when: [...when, one] })} />
      )}
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
      <WhereWords
        where={where}
        view={isOfWhole(about) ? { ...view, productGroups: [] } : view}
        onChange={(next) => onChange({ ...rule, where: next })}
      />
      <Comma />
      {about !== 'words' && !isOfWhole(about) && !isPhrase(then) && (
        <>
          <ServedWords about={about} where={where} onChange={(next) => onChange({ ...rule, where: next })} />
          <Comma />
        </>
      )}
      <ActionWords
        about={about}
        then={then}
        lists={view.lists}
        onChange={(next) => onChange(doing(rule, next))}
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
      {!mayActByItself(rule) ? (
        'after a yes.'
      ) : (
        <HowWords rule={rule} onChange={(how) => onChange({ ...rule, how })} />
      )}
    </div>
  );
}

const ABOUTS = ['terms', 'words', 'keywords', 'campaigns', 'lists'] as const;
type About = (typeof ABOUTS)[number];
const SUBJECTS: Record<About, string> = {
  ...{ terms: 'search term', words: 'word at fault', keywords: 'keyword', campaigns: 'campaign' },
  lists: 'list where it does not hang',
};

/** Campaigns are looked at as wholes, and lists hang on wholes. */
const isOfWhole = (about: Rule['about']) => about === 'campaigns' || about === 'lists';

/** A rule becomes one about something else: what it does is another, what it asks stays as far as it can. */
function aboutWhat({ about: _, ...rule }: Rule, next: About): Rule {
  const when = rule.when.filter(({ of }) => !NOT_ASKED[next].includes(of));
  const asked = { ...rule, when: when.length > 0 ? when : [MANY_CLICKS] };
  const { servedBy: __, ...where } = rule.where;
  const { productGroups: ___, ...whole } = where;
  switch (next) {
    case 'terms':
      return { ...asked, then: { do: 'stop', at: 'ad group' } };
    case 'words':
      return {
        ...asked,
        where,
        about: next,
        then: { do: 'stop', at: 'campaign' },
      };
    case 'keywords':
      return { ...asked, about: next, then: { do: 'pause' }, how: { is: 'by approval' } };
    case 'campaigns':
      return {
        ...asked,
        when: SPENT_WHILE_IT_PAYS,
        where: whole,
        about: next,
        then: { do: 'raise budget', ...FIRST_BUDGET },
        how: { is: 'by approval' },
      };
    case 'lists':
      return {
        ...{ ...asked, where: whole, about: next },
        ...{ then: { do: 'hang', list: null }, how: { is: 'by approval' } },
      };
  }
}
/** A rule does something else: it acts by itself only where that may be, and a phrase is whatever keyword served it. */
function doing(rule: Rule, then: Rule['then']): Rule {
  const { servedBy: _, ...where } = rule.where;
  const next = { ...rule, then, where: isPhrase(then) ? where : rule.where };
  return mayActByItself(next) ? next : { ...next, how: { is: 'by approval' } };
}
const SPENT_WHILE_IT_PAYS: Rule['when'] = [
  { of: 'budget', is: 'at least', share: 0.9 },
  { of: 'target', is: 'below', times: 0.9 },
];
const MANY_CLICKS: Rule['when'][number] = { of: 'clicks', is: 'at least', value: 15 };

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
