import { MATCH_TYPES } from '../gate';
import type { Bounds } from './bounds';

/**
 * A rule, as a sentence of chosen parts: *when* a search term, a word at fault, a keyword, a campaign or a list has figures in a look-back, *where* it ran, *then* what
 * is proposed, *how* it comes about, and *how often* the rule looks.
 */
export type Rule = {
  /** search terms unless it says otherwise */
  about?: 'keywords' | 'words' | 'campaigns' | 'lists';
  /** all of them hold */
  when: readonly Condition[];
  lookBack: LookBack;
  where: Where;
  then: RuleAction;
  how: How;
  often: (typeof OFTEN)[number];
};

/** Whether somebody says yes to what the rule finds, or it acts by itself within bounds. */
export type How = { is: 'by approval' } | { is: 'by itself'; bounds: Bounds };

export const OFTEN = ['after each report', 'daily', 'weekly'] as const;

/** So many days, which end some days before the newest one because conversions come late. */
export type LookBack = { days: number; lagDays: number };

export const MEASURES = ['clicks', 'impressions', 'costMicros', 'conversions', 'valueMicros'] as const;
export type Measure = (typeof MEASURES)[number];

/** What sums of a look-back decide. */
export type SumCondition =
  | { of: Measure; is: 'at least' | 'at most'; value: number }
  /** what it cost against so many times what its conversions may cost; without a conversion, against what one may cost */
  | { of: 'target'; is: 'above' | 'below'; times: number }
  /** the same against what conversions cost in its ad groups as a whole, whatever the target is */
  | { of: 'ad groups'; is: 'above' | 'below'; times: number }
  /** what a campaign costs a day, as a share of its budget of a day as it is now */
  | { of: 'budget'; is: 'at least' | 'at most'; share: number }
  /** how sure it is that the term misses its target (rules 7.3) */
  | { of: 'evidence'; is: 'at least'; probability: number };

/** So many days before the evening the term was seen first. */
export type AgeCondition = { of: 'age'; is: 'at least' | 'at most'; days: number };

/** What a term is by itself, whatever it brought. */
export type TermCondition =
  /** any of the words, or none of them, whatever their form */
  | { of: 'words'; is: 'any of' | 'none of'; words: readonly string[] }
  /** whether the marketplace reports words, or a product code */
  | { of: 'kind'; is: 'words' | 'codes' }
  /** searches a month, by what research knows of the term */
  | { of: 'searches'; is: 'at least' | 'at most'; value: number };

/** How sure it is that a word is at fault, from `OFFERED_FROM` on (rules 7.12). */
export type FaultCondition = { of: 'fault'; is: 'at least'; probability: number };

export type Condition = SumCondition | AgeCondition | TermCondition | FaultCondition;

/** Everything, what is named, or everything but what is named; of it what some keywords served. */
export type Where = {
  is: 'everywhere' | 'in' | 'not in';
  /** ids */
  campaigns: readonly string[];
  /** names; campaigns that have one of these labels */
  labels?: readonly string[];
  /** names; ad groups that are in one of these */
  productGroups?: readonly string[];
  /** what keywords of these match types served; of any, and of none that is known, where none is named */
  servedBy?: readonly ServedBy[];
};

export const SERVED_BY = [...MATCH_TYPES, 'automatic'] as const;
export type ServedBy = (typeof SERVED_BY)[number];

/** What is proposed for a term, or a word. A list is given by its id; only a word is stopped in the account. A term is stopped as
 * exact unless it says otherwise, a word always as a phrase. */
export type RuleAction =
  | { do: 'stop'; at: 'ad group' | 'campaign' | 'account'; as?: 'phrase' }
  | { do: 'stop in list'; list: string; as?: 'phrase' }
  | { do: 'keep' }
  | { do: 'set aside'; moreClicks: number }
  /** keywords in the seats of its groups (rules 11.2); atSource: with the negatives where it ran and misses its target (11.4) */
  | { do: 'promote'; atSource: boolean }
  | KeywordAction
  | CampaignAction
  | ListAction
  | { do: 'tell' };

/** What is proposed for a keyword. */
export type KeywordAction =
  | { do: 'pause' }
  /** the bid that pays by what the rule saw (rules 7.8), where that is lower, or higher, than now; from the least to the most, micro-units */
  | { do: 'set bid'; way: 'lower' | 'raise'; leastMicros: number; mostMicros: number };

/** What is proposed for a campaign: a budget that is higher by a share of what it is, up to the most, micro-units a day. */
export type CampaignAction = { do: 'raise budget'; byShare: number; mostMicros: number };

/** A list is hung on the campaign where it does not hang; null: whichever list it is. */
export type ListAction = { do: 'hang'; list: string | null };
