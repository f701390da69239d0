import { counted, listed, type Condition, type Rule } from '@/core';
import { formatCount } from '@/ui/format';

/** What a sentence needs to be said: amounts, and names of what it names by id. */
export type Saying = {
  money: (micros: number) => string;
  campaign: (id: string) => string;
  list: (id: string) => string;
};

const MEASURE_NAMES = {
  ...{ clicks: 'clicks', impressions: 'impressions', conversions: 'conversions' },
  ...{ costMicros: 'cost', valueMicros: 'value', searches: 'searches' },
} as const;

/** A condition in a few words. @example sayCondition({ of: 'clicks', is: 'at least', value: 15 }, money) // '15 clicks or more' */
export function sayCondition(condition: Condition, money: Saying['money']): string {
  if (condition.of === 'fault') return `at fault with ${Math.round(1_000 * condition.probability) / 10} %`;
  if (condition.of === 'ad groups') return `cost ${condition.is} ${condition.times} × what its ad groups pay`;
  if (condition.of === 'target') return `cost ${condition.is} ${condition.times} × its target`;
  if (condition.of === 'evidence') return `${Math.round(100 * condition.probability)} % sure to miss`;
  if (condition.of === 'words') return `${condition.is}: ${few(condition.words)}`;
  if (condition.of === 'kind') return condition.is === 'codes' ? 'product codes' : 'words only';
  if (condition.of === 'age')
    return `seen first ${counted(condition.days, 'day')} ago or ${condition.is === 'at least' ? 'earlier' : 'later'}`;
  if (condition.of === 'budget')
    return `${Math.round(100 * condition.share)} % of its budget ${condition.is === 'at least' ? 'or more' : 'or less'}`;
  const { of, is, value } = condition;
  if (of === 'costMicros' || of === 'valueMicros')
    return `${MEASURE_NAMES[of]} of ${money(value)} ${is === 'at least' ? 'or more' : 'or less'}`;
  const single = of === 'searches' ? 'search' : MEASURE_NAMES[of].slice(0, -1);
  const name = value === 1 ? single : MEASURE_NAMES[of];
  if (is === 'at least') return `${formatCount(value)} ${name} or more`;
  return value === 0 ? `no ${single}` : `${formatCount(value)} ${name} or fewer`;
}

const few = (names: readonly string[]) => listed(names.slice(0, 3), names.length);

/** What a rule is about, to be counted. */
export const thingOf = ({ about }: Rule): string => THINGS[about ?? 'terms'];
const THINGS = { terms: 'term', keywords: 'keyword', words: 'word', campaigns: 'campaign', lists: 'list' };
const SUBJECTS = {
  keywords: 'keywords: ',
  words: 'words at fault: ',
  campaigns: 'campaigns: ',
  lists: 'lists where they do not hang: ',
};

/** A rule as one sentence. */
export function sayRule(rule: Rule, saying: Saying): string {
  const { about, when, lookBack, where, then, how, often } = rule;
  const what = about === undefined ? '' : SUBJECTS[about];
  const conditions = when.map((one) => sayCondition(one, saying.money)).join(', ');
  const ago = lookBack.lagDays === 0 ? '' : ` that end ${counted(lookBack.lagDays, 'day')} ago`;
  return `${what}${conditions} in ${counted(lookBack.days, 'day')}${ago}, ${sayWhere(where, saying)}: ${sayAction(then, saying)}, ${often}${sayHow(how, saying.money)}`;
}

/** Where a rule or a set looks. */
export function sayWhere(
  { is, campaigns, labels = [], productGroups = [], servedBy = [] }: Rule['where'],
  saying: Saying,
): string {
  const named = few([
    ...campaigns.map(saying.campaign),
    ...labels.map((label) => `label ${label}`),
    ...productGroups.map((group) => `product group ${group}`),
  ]);
  const place = is === 'everywhere' ? 'everywhere' : is === 'in' ? `in ${named}` : `but in ${named}`;
  return servedBy.length === 0 ? place : `${place}, served by ${servedBy.join(' or ')} keywords`;
}

const sayHow = (how: Rule['how'], money: Saying['money']) =>
  how.is === 'by approval'
    ? ''
    : `, by itself: ${counted(how.bounds.changesADay, 'change')} and ${money(how.bounds.costADayMicros)} a day at most`;

const sayAs = ({ as }: { as?: 'phrase' }) => (as === 'phrase' ? ' as phrase' : '');
const STOPS = {
  'ad group': 'stop it in its ad groups',
  campaign: 'stop it in its campaigns',
  account: 'stop it in the account',
};

/** What is proposed. */
export function sayAction(then: Rule['then'], { list, money }: Pick<Saying, 'list' | 'money'>): string {
  switch (then.do) {
    case 'stop':
      return `${STOPS[then.at]}${sayAs(then)}`;
    case 'stop in list':
      return `stop it in the list ${list(then.list)}${sayAs(then)}`;
    case 'keep':
      return 'keep it open';
    case 'set aside':
      return `set it aside until it has ${counted(then.moreClicks, 'more click')}`;
    case 'promote':
      return `promote it to its seats${then.atSource ? ', and stop it where it misses its target' : ''}`;
    case 'pause':
      return 'pause it';
    case 'set bid':
      return `${then.way} its bid to what pays, ${money(then.leastMicros)} to ${money(then.mostMicros)}`;
    case 'raise budget':
      return `raise its budget by ${Math.round(100 * then.byShare)} %, to ${money(then.mostMicros)} a day at most`;
    case 'hang':
      return then.list === null ? 'hang it there' : `hang the list ${list(then.list)} there`;
    case 'tell':
      return 'only tell';
  }
}
