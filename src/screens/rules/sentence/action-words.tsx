'use client';

import type { Rule } from '@/core';
import type { RulesView } from '@/contracts/rules';
import { useAccount } from '@/screens/frame/account-context';
import { Select, type Option } from '@/ui/select';
import { Figure } from './word-fields';

type Then = Rule['then'];
type Props = {
  about: Rule['about'];
  then: Then;
  lists: RulesView['lists'];
  onChange: (then: Then) => void;
};

/** So many more clicks, where a rule begins to set aside. */
const FIRST_MORE = 20;
/** By how much a rule begins to raise a budget, and up to what. */
export const FIRST_BUDGET = { byShare: 0.2, mostMicros: 100_000_000 };
/** Bids between which a rule begins to set one. */
const FIRST_BIDS = { leastMicros: 100_000, mostMicros: 2_000_000 };

/** What is proposed for what a rule finds. */
export function ActionWords({ about, then, lists, onChange }: Props) {
  const stops: Option[] = [
    { key: 'ad group', says: 'stop it in its ad groups' },
    { key: 'campaign', says: 'stop it in its campaigns' },
    ...(about === 'words' ? [{ key: 'account', says: 'stop it in the account' }] : []),
    ...lists.map(({ id, name }) => ({ key: `list ${id}`, says: `stop it in the list ${name}` })),
  ];
  const ofTerms: Option[] = [
    ...stops,
    { key: 'keep', says: 'keep it open' },
    { key: 'set aside', says: 'set it aside' },
    { key: 'promote', says: 'promote it to its seats' },
  ];
  const hangs: Option[] = [
    { key: 'hang', says: 'hang it there' },
    ...lists.map(({ id, name }) => ({ key: `hang ${id}`, says: `hang it there, if it is ${name}` })),
  ];
  const ofAll = {
    terms: ofTerms,
    keywords: OF_KEYWORDS,
    words: stops,
    campaigns: OF_CAMPAIGNS,
    lists: hangs,
  };
  const ways = [...ofAll[about ?? 'terms'], { key: 'tell', says: 'only tell' }];
  return (
    <>
      <Select
        look="word"
        label="What is proposed"
        value={keyOf(then)}
        placeholder="choose a list: the one that it names is gone"
        options={ways}
        onChange={(key) => onChange(actionOf(key))}
      />
      {then.do === 'raise budget' && <BudgetWords then={then} onChange={onChange} />}
      {then.do === 'set bid' && <BidWords then={then} onChange={onChange} />}
      {(then.do === 'stop' || then.do === 'stop in list') && about === undefined && (
        <Select
          look="word"
          label="As exact or as phrase"
          value={then.as ?? 'exact'}
          options={AS}
          onChange={(as) => onChange(stoppedAs(then, as))}
        />
      )}
      {then.do === 'promote' && (
        <Select
          look="word"
          label="Where it runs now"
          value={then.atSource ? 'with' : 'without'}
          options={AT_SOURCE}
          onChange={(key) => onChange({ ...then, atSource: key === 'with' })}
        />
      )}
      {then.do === 'set aside' && (
        <span className="inline-flex flex-wrap items-baseline gap-x-1.5">
          until it has
          <Figure
            label="More clicks until it comes back"
            value={then.moreClicks}
            least={1}
            most={100_000}
            onChange={(moreClicks) => onChange({ ...then, moreClicks })}
          />
          more clicks
        </span>
      )}
    </>
  );
}

const AS = [
  { key: 'exact', says: 'as exact' },
  { key: 'phrase', says: 'as phrase, with all that holds it' },
] as const satisfies readonly Option[];

type Stop = Extract<Then, { do: 'stop' | 'stop in list' }>;
const stoppedAs = ({ as: _, ...then }: Stop, as: 'exact' | 'phrase'): Then =>
  as === 'phrase' ? { ...then, as } : then;

const AT_SOURCE: readonly Option[] = [
  { key: 'with', says: 'and stop it where it misses its target' },
  { key: 'without', says: 'and leave it where it runs' },
];

const OF_KEYWORDS: readonly Option[] = [
  { key: 'pause', says: 'pause it' },
  { key: 'lower', says: 'lower its bid to what pays' },
  { key: 'raise', says: 'raise its bid to what pays' },
];

const OF_CAMPAIGNS: readonly Option[] = [{ key: 'raise budget', says: 'raise its budget' }];

type BidAction = Extract<Then, { do: 'set bid' }>;

/** Between which bids; whoever types a floor above the ceiling moves the ceiling, too. */
function BidWords({ then, onChange }: { then: BidAction; onChange: (then: Then) => void }) {
  const { currency } = useAccount().summary;
  const bid = (label: string, micros: number, put: (micros: number) => BidAction) => (
    <Figure
      label={`${label}, in ${currency}`}
      value={micros / 1e6}
      most={1_000_000}
      places={2}
      onChange={(value) => onChange(put(Math.round(value * 1e6)))}
    />
  );
  return (
    <span className="inline-flex flex-wrap items-baseline gap-x-1.5">
      between
      {bid('The least bid', then.leastMicros, (leastMicros) => ({
        ...{ ...then, leastMicros, mostMicros: Math.max(leastMicros, then.mostMicros) },
      }))}
      and
      {bid('The highest bid', then.mostMicros, (mostMicros) => ({
        ...{ ...then, mostMicros, leastMicros: Math.min(mostMicros, then.leastMicros) },
      }))}
      {currency}
    </span>
  );
}

type BudgetAction = Extract<Then, { do: 'raise budget' }>;

/** By how much, and to what at most. */
function BudgetWords({ then, onChange }: { then: BudgetAction; onChange: (then: Then) => void }) {
  const { currency } = useAccount().summary;
  return (
    <span className="inline-flex flex-wrap items-baseline gap-x-1.5">
      by
      <Figure
        label="By how much, in per cent"
        value={Math.round(100 * then.byShare)}
        least={1}
        most={1_000}
        onChange={(percent) => onChange({ ...then, byShare: percent / 100 })}
      />
      % to
      <Figure
        label={`The highest budget of a day, in ${currency}`}
        value={then.mostMicros / 1e6}
        most={1_000_000}
        places={2}
        onChange={(value) => onChange({ ...then, mostMicros: Math.round(value * 1e6) })}
      />
      {currency} a day at most
    </span>
  );
}

function keyOf(then: Then): string {
  switch (then.do) {
    case 'stop':
      return then.at;
    case 'stop in list':
      return `list ${then.list}`;
    case 'hang':
      return then.list === null ? 'hang' : `hang ${then.list}`;
    case 'set bid':
      return then.way;
    case 'keep':
    case 'set aside':
    case 'promote':
    case 'pause':
    case 'raise budget':
    case 'tell':
      return then.do;
  }
}

function actionOf(key: string): Then {
  switch (key) {
    case 'ad group':
    case 'campaign':
    case 'account':
      return { do: 'stop', at: key };
    case 'keep':
    case 'pause':
    case 'tell':
      return { do: key };
    case 'lower':
    case 'raise':
      return { do: 'set bid', way: key, ...FIRST_BIDS };
    case 'raise budget':
      return { do: key, ...FIRST_BUDGET };
    case 'hang':
      return { do: key, list: null };
    case 'set aside':
      return { do: key, moreClicks: FIRST_MORE };
    case 'promote':
      return { do: key, atSource: true };
    default:
      return key.startsWith('hang ')
        ? { do: 'hang', list: key.slice('hang '.length) }
        : { do: 'stop in list', list: key.slice('list '.length) };
  }
}
