'use client';

import { X } from 'lucide-react';
import type { Condition, Measure, Rule } from '@/core';
import { NOT_ASKED } from '@/contracts/rule-sentence';
import { useAccount } from '@/screens/frame/account-context';
import { optionsOf, Select, type Option } from '@/ui/select';
import { Figure, WordsField } from './word-fields';

type Props = {
  condition: Condition;
  onChange: (condition: Condition) => void;
  /** undefined where it is the only one */
  onRemove: (() => void) | undefined;
};

/** A condition as words of the sentence. */
export function ConditionWords({ condition, onChange, onRemove }: Props) {
  return (
    <span className="inline-flex flex-wrap items-baseline gap-x-1.5">
      <Words condition={condition} onChange={onChange} />
      {onRemove && (
        <button
          type="button"
          aria-label={`Take out: ${KIND_NAMES[kindOf(condition)]}`}
          className="inline-grid size-6 place-items-center self-center text-soft hover:text-rust"
          onClick={onRemove}
        >
          <X size={12} aria-hidden />
        </button>
      )}
    </span>
  );
}

function Words({ condition, onChange }: Omit<Props, 'onRemove'>) {
  if (condition.of === 'target' || condition.of === 'ad groups') {
    const what = condition.of === 'target' ? 'its target' : 'what its ad groups pay';
    return (
      <>
        costs
        <Select
          look="word"
          label={`Above or below ${what}`}
          value={condition.is}
          options={[
            { key: 'above', says: 'more than' },
            { key: 'below', says: 'less than' },
          ]}
          onChange={(is) => onChange({ ...condition, is })}
        />
        <Figure
          label={`Times ${what}`}
          value={condition.times}
          most={1_000}
          places={2}
          onChange={(times) => onChange({ ...condition, times })}
        />
        × {what}
      </>
    );
  }
  if (condition.of === 'evidence' || condition.of === 'fault')
    return (
      <>
        {condition.of === 'fault' ? 'is so with' : 'misses its target with'}
        <Figure
          label="How sure, in per cent"
          least={condition.of === 'fault' ? 80 : 0}
          value={Math.round(1_000 * condition.probability) / 10}
          most={100}
          places={1}
          onChange={(percent) => onChange({ ...condition, probability: percent / 100 })}
        />
        % or more
      </>
    );
  if (condition.of === 'budget')
    return (
      <>
        spends
        <Figure
          label="Of its budget, in per cent"
          value={Math.round(1_000 * condition.share) / 10}
          most={10_000}
          places={1}
          onChange={(percent) => onChange({ ...condition, share: percent / 100 })}
        />
        % of its budget
        <Select
          look="word"
          label="At least or at most: of its budget"
          value={condition.is}
          options={[
            { key: 'at least', says: 'or more' },
            { key: 'at most', says: 'or less' },
          ]}
          onChange={(is) => onChange({ ...condition, is })}
        />
      </>
    );
  if (condition.of === 'words')
    return (
      <>
        holds
        <Select
          look="word"
          label="Any or none of the words"
          value={condition.is}
          options={optionsOf(['any of', 'none of'] as const)}
          onChange={(is) => onChange({ ...condition, is })}
        />
        <WordsField
          label="Words and runs, parted by commas"
          words={condition.words}
          onChange={(words) => onChange({ ...condition, words })}
        />
      </>
    );
  if (condition.of === 'kind')
    return (
      <>
        is
        <Select
          look="word"
          label="Words or product codes"
          value={condition.is}
          options={[
            { key: 'words', says: 'words, no product code' },
            { key: 'codes', says: 'a product code' },
          ]}
          onChange={(is) => onChange({ ...condition, is })}
        />
      </>
    );
  if (condition.of === 'age')
    return (
      <>
        was seen first
        <Figure
          label="Days since it was seen first"
          value={condition.days}
          least={1}
          most={400}
          onChange={(days) => onChange({ ...condition, days })}
        />
        days ago
        <Select
          look="word"
          label="At least or at most: days since it was seen first"
          value={condition.is}
          options={[
            { key: 'at least', says: 'or earlier' },
            { key: 'at most', says: 'or later' },
          ]}
          onChange={(is) => onChange({ ...condition, is })}
        />
      </>
    );
  return <FigureWords condition={condition} onChange={onChange} />;
}

type OfFigure = Extract<Condition, { of: Measure | 'searches' }>;

function FigureWords({ condition, onChange }: { condition: OfFigure; onChange: (next: OfFigure) => void }) {
  const { currency } = useAccount().summary;
  const { of, is, value } = condition;
  const isMoney = of === 'costMicros' || of === 'valueMicros';
  const name = KIND_NAMES[of];
  return (
    <>
      has {isMoney && `a ${name} of`}
      <Figure
        label={isMoney ? `A ${name} of, in ${currency}` : `How many ${name}`}
        value={isMoney ? value / 1e6 : value}
        most={1e9}
        places={isMoney || of === 'conversions' ? 2 : 0}
        onChange={(next) => onChange({ ...condition, value: isMoney ? Math.round(next * 1e6) : next })}
      />
      {isMoney ? currency : name}
      <Select
        look="word"
        label={`At least or at most: ${name}`}
        value={is}
        options={[
          { key: 'at least', says: 'or more' },
          { key: 'at most', says: 'or less' },
        ]}
        onChange={(next) => onChange({ ...condition, is: next })}
      />
    </>
  );
}

const KIND_NAMES = {
  ...{ clicks: 'clicks', conversions: 'conversions', costMicros: 'cost', impressions: 'impressions' },
  ...{
    valueMicros: 'value',
    target: 'cost against the target',
    'ad groups': 'cost against its ad groups',
    budget: 'how much of its budget it spends',
    evidence: 'how surely it misses',
    fault: 'how surely it is at fault',
  },
  ...{ words: 'words that it holds', kind: 'words or product codes' },
  ...{ age: 'days since it was seen first', searches: 'searches a month' },
} as const;
type Kind = keyof typeof KIND_NAMES;
const kindOf = ({ of }: Condition): Kind => of;

/** What a condition that is added says at first. */
const FIRST: Record<Kind, Condition> = {
  clicks: { of: 'clicks', is: 'at least', value: 15 },
  conversions: { of: 'conversions', is: 'at most', value: 0 },
  costMicros: { of: 'costMicros', is: 'at least', value: 20_000_000 },
  impressions: { of: 'impressions', is: 'at least', value: 1_000 },
  valueMicros: { of: 'valueMicros', is: 'at most', value: 0 },
  target: { of: 'target', is: 'above', times: 1 },
  'ad groups': { of: 'ad groups', is: 'above', times: 2 },
  budget: { of: 'budget', is: 'at least', share: 0.9 },
  evidence: { of: 'evidence', is: 'at least', probability: 0.95 },
  fault: { of: 'fault', is: 'at least', probability: 0.9 },
  words: { of: 'words', is: 'any of', words: ['free'] },
  kind: { of: 'kind', is: 'words' },
  age: { of: 'age', is: 'at least', days: 14 },
  searches: { of: 'searches', is: 'at least', value: 100 },
};

type AddProps = { about: Rule['about']; onAdd: (condition: Condition) => void };

/** Adds a condition of a kind that means something for what the rule is about. */
export function AddCondition({ about, onAdd }: AddProps) {
  const kinds = Object.keys(KIND_NAMES).filter((key) => !NOT_ASKED[about ?? 'terms'].includes(key as Kind));
  const options = kinds.map((key): Option<Kind> => ({
    key: key as Kind,
    says: KIND_NAMES[key as Kind],
  }));
  return (
    <Select
      look="quiet"
      label="Add a condition"
      placeholder="and …"
      value={null}
      options={options}
      onChange={(kind) => onAdd(FIRST[kind])}
    />
  );
}
