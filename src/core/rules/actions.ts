import type { RuleAction } from './rule';

/**
 * Whether something shuts a term out.
 * @example isStop({ do: 'tell' }) // false
 */
export const isStop = ({ do: what }: RuleAction): boolean => what === 'stop' || what === 'stop in list';

/**
 * Whether two rules want opposite things of a term that both find: one shuts it out, the other keeps it open or waits for more.
 * @example opposes({ do: 'stop', at: 'campaign' }, { do: 'keep' }) // true
 */
export function opposes(one: RuleAction, other: RuleAction): boolean {
  const holdsOpen = ({ do: what }: RuleAction) => what === 'keep' || what === 'set aside';
  return (isStop(one) && holdsOpen(other)) || (isStop(other) && holdsOpen(one));
}
