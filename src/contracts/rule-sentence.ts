import * as v from 'valibot';
import {
  isPhrase,
  isStop,
  mayActByItself,
  MEASURES,
  OFFERED_FROM,
  OFTEN,
  SERVED_BY,
  type Condition,
  type KeywordAction,
  type Rule,
  type Where,
} from '@/core';
import { ElementNameSchema } from './common';
import { MoreClicksSchema } from './decisions';

/** A rule on search terms: a sentence of chosen parts. */

const number = (most: number, says: string) =>
  v.pipe(v.number(says), v.minValue(0, says), v.maxValue(most, says));
const wholeDays = (least: number, says: string) =>
  v.pipe(v.number(says), v.integer(says), v.minValue(least, says), v.maxValue(400, says));
const IdSchema = v.pipe(v.string(), v.minLength(1), v.maxLength(80));

const ConditionSchema = v.variant('of', [
  v.strictObject({
    of: v.picklist(MEASURES),
    is: v.picklist(['at least', 'at most']),
    value: number(1e15, 'A figure is 0 or more.'),
  }),
  v.strictObject({
    of: v.picklist(['target', 'ad groups']),
    is: v.picklist(['above', 'below']),
    times: number(1_000, 'So many times: 0 to 1,000.'),
  }),
  v.strictObject({
    ...{ of: v.literal('budget'), is: v.picklist(['at least', 'at most']) },
    share: number(100, 'A share of the budget is 0 to 10,000 %.'),
  }),
  v.strictObject({
    ...{ of: v.literal('evidence'), is: v.literal('at least') },
    probability: number(1, 'How sure is 0 to 1.'),
  }),
  v.strictObject({
    ...{ of: v.literal('fault'), is: v.literal('at least') },
    probability: v.pipe(
      number(1, 'How sure is 0 to 1.'),
      v.minValue(OFFERED_FROM, 'A word is at fault from 80 % on.'),
    ),
  }),
  v.strictObject({
    ...{ of: v.literal('age'), is: v.picklist(['at least', 'at most']) },
    days: wholeDays(1, 'A term was seen first 1 to 400 days ago.'),
  }),
  v.strictObject({
    ...{ of: v.literal('searches'), is: v.picklist(['at least', 'at most']) },
    value: number(1e12, 'Searches a month are 0 or more.'),
  }),
  v.strictObject({ of: v.literal('kind'), is: v.picklist(['words', 'codes']) }),
  v.strictObject({
    ...{ of: v.literal('words'), is: v.picklist(['any of', 'none of']) },
    words: v.pipe(
      v.array(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(80))),
      v.minLength(1, 'Name a word.'),
      v.maxLength(200, 'No more than 200 words.'),
    ),
  }),
]);

/** Within what a rule acts by itself. */
const BoundsSchema = v.strictObject({
  changesADay: v.pipe(
    v.number('Changes a day: 1 to 10,000.'),
    v.integer('Changes a day: 1 to 10,000.'),
    v.minValue(1, 'Changes a day: 1 to 10,000.'),
    v.maxValue(10_000, 'Changes a day: 1 to 10,000.'),
  ),
  costADayMicros: number(1e15, 'A cost is 0 or more.'),
  leastKept: number(1, 'The least share that must come is 0 to 100 %.'),
});

/** @param named as of ruleOf */
export const whereOf = (named: v.GenericSchema<string, string>): v.GenericSchema<Where, Where> =>
  v.strictObject({
    is: v.picklist(['everywhere', 'in', 'not in']),
    campaigns: v.pipe(v.array(named), v.maxLength(5_000)),
    labels: v.optional(v.pipe(v.array(ElementNameSchema), v.maxLength(200))),
    productGroups: v.optional(v.pipe(v.array(ElementNameSchema), v.maxLength(1_000))),
    servedBy: v.optional(v.array(v.picklist(SERVED_BY))),
  });

const OF_KEYWORDS: readonly string[] = ['pause', 'set bid'] satisfies KeywordAction['do'][];

const AsSchema = v.optional(v.literal('phrase'));

/** Conditions that mean nothing for what a rule is about. */
export const NOT_ASKED: Record<'terms' | NonNullable<Rule['about']>, readonly Condition['of'][]> = {
  terms: ['fault', 'budget'],
  keywords: ['fault', 'kind', 'budget'],
  words: ['evidence', 'kind', 'searches', 'budget'],
  campaigns: ['fault', 'evidence', 'kind', 'searches', 'words', 'ad groups', 'age'],
  lists: ['fault', 'evidence', 'kind', 'searches', 'words', 'ad groups', 'budget'],
};

const notAskedIn = ({ about, when }: Pick<Rule, 'about' | 'when'>) =>
  when.find(({ of }) => NOT_ASKED[about ?? 'terms'].includes(of))?.of;

/** @param named how campaigns and lists are named: by ids here, by their names in a file */
export const ruleOf = (named: v.GenericSchema<string, string>): v.GenericSchema<Rule, Rule> =>
  v.pipe(
    v.strictObject({
      about: v.optional(v.picklist(['keywords', 'words', 'campaigns', 'lists'])),
      when: v.pipe(
        v.array(ConditionSchema),
        v.minLength(1, 'A rule needs a condition.'),
        v.maxLength(10, 'A rule has at most 10 conditions.'),
      ),
      lookBack: v.strictObject({
        days: wholeDays(1, 'A rule looks back over 1 to 400 days.'),
        lagDays: wholeDays(0, 'The days end 0 to 400 days ago.'),
      }),
      where: whereOf(named),
      then: v.variant('do', [
        v.strictObject({
          do: v.literal('stop'),
          at: v.picklist(['ad group', 'campaign', 'account']),
          as: AsSchema,
        }),
        v.strictObject({ do: v.literal('stop in list'), list: named, as: AsSchema }),
        v.strictObject({ do: v.literal('keep') }),
        v.strictObject({ do: v.literal('set aside'), moreClicks: MoreClicksSchema }),
        v.strictObject({ do: v.literal('promote'), atSource: v.boolean() }),
        v.strictObject({ do: v.literal('pause') }),
        v.strictObject({
          ...{ do: v.literal('set bid'), way: v.picklist(['lower', 'raise']) },
          ...{
            leastMicros: number(1e12, 'A bid is 0 or more.'),
            mostMicros: number(1e12, 'A bid is 0 or more.'),
          },
        }),
        v.strictObject({
          ...{ do: v.literal('raise budget'), byShare: number(10, 'A budget is raised by 0 to 1,000 %.') },
          mostMicros: number(1e12, 'A budget is 0 or more.'),
        }),
        v.strictObject({ do: v.literal('hang'), list: v.nullable(named) }),
        v.strictObject({ do: v.literal('tell') }),
      ]),
      how: v.variant('is', [
        v.strictObject({ is: v.literal('by approval') }),
        v.strictObject({ is: v.literal('by itself'), bounds: BoundsSchema }),
      ]),
      often: v.picklist(OFTEN),
    }),
    v.check(
      (rule) => mayActByItself(rule) || rule.how.is === 'by approval',
      'A rule that keeps, sets aside, promotes, only tells, or stops terms as phrases, does so after a yes.',
    ),
    v.check(
      ({ about, then }) => then.do === 'tell' || (about === 'keywords') === OF_KEYWORDS.includes(then.do),
      'Keywords are paused or bid for; search terms are stopped, kept open, set aside or promoted.',
    ),
    v.check(
      ({ about, then }) => then.do === 'tell' || (about === 'campaigns') === (then.do === 'raise budget'),
      'Of a campaign the budget is raised, or it is only told; nothing else has one.',
    ),
    v.check(
      ({ about, then }) => then.do === 'tell' || (about === 'lists') === (then.do === 'hang'),
      'A list is hung, or only told; nothing else hangs.',
    ),
    v.check(
      ({ about, where: { servedBy = [], productGroups = [] } }) =>
        !(about === 'campaigns' || about === 'lists') || servedBy.length + productGroups.length === 0,
      'A campaign is looked at as a whole: name campaigns or labels.',
    ),
    v.check(
      ({ about, then }) => about !== 'words' || isStop(then) || then.do === 'tell',
      'Words are stopped, or only told.',
    ),
    v.check(
      ({ about, then }) => about === 'words' || then.do !== 'stop' || then.at !== 'account',
      'A search term is stopped where it ran, or in a list.',
    ),
    v.check(
      ({ then, where }) => !isPhrase(then) || (where.servedBy ?? []).length === 0,
      'A phrase stops what it matches, whatever keyword served it.',
    ),
    v.check(
      ({ about, where }) => about !== 'words' || (where.servedBy ?? []).length === 0,
      'A word is judged by all keywords that served it.',
    ),
    v.check(
      (rule) => notAskedIn(rule) === undefined,
      ({ input }) => `A condition on “${notAskedIn(input)}” means nothing for ${input.about ?? 'terms'}.`,
    ),
    v.check(
      ({ then }) => then.do !== 'set bid' || then.leastMicros <= then.mostMicros,
      'The least bid is above the most.',
    ),
  );
export const RuleSchema = ruleOf(IdSchema);
export const WhereSchema = whereOf(IdSchema);
