import type { RuleAction } from '@/core';

/** What a trial says: what ends is saved and lost; what goes on is told what came after its evening. */
export type TrialWords = {
  /** as in “would have … 12 terms”, and beside a number of them */
  did: string;
  cost: string;
  brought: string;
  /** those that converted later */
  soldLater: string;
  /** whether that ends what it is done to, so that conversions are lost */
  ends: boolean;
};

const ENDS: Omit<TrialWords, 'did' | 'soldLater'> = { cost: 'saved', brought: 'lost', ends: true };
const GOES_ON: Omit<TrialWords, 'did'> = {
  ...{ cost: 'cost since', brought: 'brought since', soldLater: 'sold since', ends: false },
};

/** The words for what a rule does. @example trialWords({ do: 'keep' }).did // 'kept open' */
export function trialWords(then: RuleAction): TrialWords {
  switch (then.do) {
    case 'stop':
    case 'stop in list':
      return { ...ENDS, did: 'stopped', soldLater: 'wrongly stopped' };
    case 'hang':
      return { ...ENDS, did: 'hung', soldLater: 'wrongly hung' };
    case 'pause':
      return { ...ENDS, did: 'paused', soldLater: 'wrongly paused' };
    case 'keep':
      return { ...GOES_ON, did: 'kept open' };
    case 'set aside':
      return { ...GOES_ON, did: 'set aside' };
    case 'promote':
      return { ...GOES_ON, did: 'promoted' };
    case 'set bid':
    case 'raise budget':
      return { ...GOES_ON, did: 'changed' };
    case 'tell':
      return { ...GOES_ON, did: 'named' };
  }
}
