import { isStop, type RuleAction } from '@/core';

/** What a trial says of terms: a rule that stops them saves and loses; one that does not is told what came after its evening. */
export type TrialWords = {
  /** as in “would have … 12 terms”, and beside a number of terms */
  did: string;
  cost: string;
  brought: string;
  /** the terms that converted later */
  soldLater: string;
};

const STOPS: TrialWords = {
  did: 'stopped',
  cost: 'saved',
  brought: 'lost',
  soldLater: 'wrongly stopped',
};
const TELLS: Omit<TrialWords, 'did'> = {
  cost: 'cost since',
  brought: 'brought since',
  soldLater: 'sold since',
};

/** The words for what a rule does. @example trialWords({ do: 'keep' }).did // 'kept open' */
export function trialWords(then: RuleAction): TrialWords {
  if (isStop(then)) return STOPS;
  return {
    ...TELLS,
    did: then.do === 'keep' ? 'kept open' : then.do === 'set aside' ? 'set aside' : 'named',
  };
}
