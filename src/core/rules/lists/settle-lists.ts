import { bisectLeft } from 'd3-array';
import type { Judge } from '../meets';
import { settleOnce } from '../settle-trial';
import type { Evenings, Trial } from '../trial';
import type { UnhungFacts } from './facts-of-lists';

/**
 * A trial of a rule that hangs lists: what two of them would stop on a campaign counts for the one that hung there first.
 * @param judgeOf what is held against a target, whose facts are those from `begin` to before `end`
 * @example settleLists({ stopped: [], savedMicros: new Float64Array(5), lostMicros: new Float64Array(5) }, factsOfLists(threeDaysOfSixClicks, [], { campaignOf: () => 7, textOf: () => 'bee hive' }), { evenings: { from: 1, to: 5 }, judgeOf: () => ({}) }).stopped // []
 */
export function settleLists(
  trial: Trial,
  { facts, source }: UnhungFacts,
  { evenings, judgeOf }: { evenings: Evenings; judgeOf(begin: number, end: number): Judge },
): Trial {
  const factsFrom = (id: number) => bisectLeft(facts.termId, id);
  const judges = new Map(
    trial.stopped.map(({ termId: id }) => [id, judgeOf(factsFrom(id), factsFrom(id + 1))] as const),
  );
  const judging = { facts, evenings, judgeOf: (id: number) => judges.get(id)! };
  const isStopped = new Uint8Array(source.reduce((most, f) => Math.max(most, f + 1), 0));
  return settleOnce(trial, judging, ({ termId: id }, count) => {
    for (let f = factsFrom(id), end = factsFrom(id + 1); f < end; f++) {
      if (isStopped[source[f]!] === 1) continue;
      isStopped[source[f]!] = 1;
      count(f);
    }
  });
}
