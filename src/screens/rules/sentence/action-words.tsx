'use client';

import type { Rule } from '@/core';
import type { RulesView } from '@/contracts/rules';
import { Select, type Option } from '@/ui/select';
import { Figure } from './word-fields';

type Then = Rule['then'];
type Props = { then: Then; lists: RulesView['lists']; onChange: (then: Then) => void };

/** So many more clicks, where a rule begins to set aside. */
const FIRST_MORE = 20;

/** What is proposed for what a rule finds. */
export function ActionWords({ then, lists, onChange }: Props) {
  const ways: Option[] = [
    { key: 'ad group', says: 'stop it in its ad groups' },
    { key: 'campaign', says: 'stop it in its campaigns' },
    ...lists.map(({ id, name }) => ({ key: `list ${id}`, says: `stop it in the list ${name}` })),
    { key: 'keep', says: 'keep it open' },
    { key: 'set aside', says: 'set it aside' },
    { key: 'tell', says: 'only tell' },
  ];
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

function keyOf(then: Then): string {
  switch (then.do) {
    case 'stop':
      return then.at;
    case 'stop in list':
      return `list ${then.list}`;
    case 'keep':
    case 'set aside':
    case 'tell':
      return then.do;
  }
}

function actionOf(key: string): Then {
  switch (key) {
    case 'ad group':
    case 'campaign':
      return { do: 'stop', at: key };
    case 'keep':
    case 'tell':
      return { do: key };
    case 'set aside':
      return { do: key, moreClicks: FIRST_MORE };
    default:
      return { do: 'stop in list', list: key.slice('list '.length) };
  }
}
