import type { Rule, RuleAction } from './rule';

/**
 * Whether something shuts a term out.
 * @example isStop({ do: 'tell' }) // false
 */
export const isStop = ({ do: what }: RuleAction): boolean => what === 'stop' || what === 'stop in list';

/**
 * Whether a rule stops terms as phrases, and with each of them what holds it.
 * @example isPhrase({ do: 'stop', at: 'campaign', as: 'phrase' }) // true
 */
export const isPhrase = (then: RuleAction): boolean => 'as' in then && then.as === 'phrase';

/**
 * Whether a rule may act by itself. What it keeps open, sets aside or promotes is for somebody to say, and a term that is stopped as a
 * phrase stops more than was looked at.
 * @example mayActByItself({ then: { do: 'keep' } }) // false
 */
export function mayActByItself({ about, then }: Pick<Rule, 'about' | 'then'>): boolean {
  switch (then.do) {
    case 'stop':
    case 'stop in list':
      return about === 'words' || !isPhrase(then);
    case 'pause':
    case 'set bid':
    case 'raise budget':
    case 'hang':
      return true;
    case 'keep':
    case 'set aside':
    case 'promote':
    case 'tell':
      return false;
  }
}

/**
 * Whether what a rule does is foreseen to save something, which it can be held to (rules 13.4).
 * @example isPromising({ do: 'pause' }) // false
 */
export const isPromising = (then: RuleAction): boolean => isStop(then) || then.do === 'hang';

/**
 * Whether two rules want opposite things of what both find: one shuts a term out, the other keeps it open or waits for more; one
 * pauses a keyword or lowers its bid, the other raises it.
 * @example opposes({ do: 'stop', at: 'campaign' }, { do: 'keep' }) // true
 */
export function opposes(one: RuleAction, other: RuleAction): boolean {
  const [side, otherSide] = [sideOf(one), sideOf(other)];
  return side !== null && otherSide !== null && side !== otherSide;
}

/** Whether less is to be spent on it, or as much or more; null where a rule only tells. */
function sideOf(action: RuleAction): 'less' | 'more' | null {
  switch (action.do) {
    case 'stop':
    case 'stop in list':
    case 'pause':
    case 'hang':
      return 'less';
    case 'keep':
    case 'set aside':
    case 'promote':
    case 'raise budget':
      return 'more';
    case 'set bid':
      return action.way === 'lower' ? 'less' : 'more';
    case 'tell':
      return null;
  }
}
