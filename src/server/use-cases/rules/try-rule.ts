import { max, sum } from 'd3';
import { neighboursOf, shiftDay, tryRules, type Rule, type Trial, type WouldStop } from '@/core';
import type { TrialLine, TrialView, WouldStopLine } from '@/contracts/rules';
import { dayOf } from '../../compute/facts/facts';
import { progressOf } from '../../compute/progress';
import { loadRuleFacts, type RuleFacts } from '../../compute/rules/term-facts';
import { judging, missingOf, toTried } from '../../compute/rules/tried-rules';
import { findFirstReportEnd } from '../../repositories/intake/reports';
import type { Deps } from '../deps';
import { openWorkbench, requireAccount } from '../open-workbench';

/** The most terms that are named. */
const MOST_NAMED = 500;
/** Of a neighbour, the most that are named as wrongly stopped. */
const MOST_WRONG = 20;

/**
 * What a rule would have done on each day that is kept, and what two neighbours of it would have: seeing only the days of its
 * look-back as the loads of that time had them, and by the targets of today. Nothing is written.
 */
export async function tryRule(deps: Deps, slug: string, rule: Rule): Promise<TrialView> {
  const account = await requireAccount(deps, slug);
  const { snapshot } = await openWorkbench(deps, account);
  const { dataDays, mirror } = snapshot;
  const waitsFor = missingOf(rule, mirror);
  if (dataDays === null || waitsFor !== null) return { ...NOTHING, waitsFor };
  const loaded = await loadRuleFacts(deps.db, account.id);
  const neighbours = neighboursOf(rule);
  const evenings = { from: dayOf(dataDays.from), to: dayOf(dataDays.to) };
  const trials = tryRules(
    loaded.facts,
    toTried(
      neighbours.map((one) => one.rule),
      mirror,
      loaded.terms,
    ),
    evenings,
    judging(snapshot, account, loaded.facts),
    progressOf('trial'),
  );
  const own = trials[neighbours.findIndex(({ isOwn }) => isOwn)]!;
  const lineOf = toLine(loaded, dataDays.from, evenings.from);
  const stops = Array.from(own.savedMicros, () => 0);
  for (const { day } of own.stopped) stops[day - evenings.from]! += 1;
  return {
    ...dataDays,
    ...{ savedMicros: [...own.savedMicros], lostMicros: [...own.lostMicros], stops },
    worst: worstOf(own, dataDays.from),
    approximateTo: await findFirstReportEnd(deps.db, account.id),
    lines: neighbours.map((one, i) => trialLine(one, trials[i]!, lineOf)),
    stopped: own.stopped
      .toSorted((a, b) => b.savedMicros - a.savedMicros)
      .slice(0, MOST_NAMED)
      .map(lineOf),
    waitsFor,
  };
}

const NOTHING: Omit<TrialView, 'waitsFor'> = {
  ...{ from: null, to: null, savedMicros: [], lostMicros: [], stops: [], worst: null },
  ...{ approximateTo: null, lines: [], stopped: [] },
};

const toLine =
  ({ terms }: RuleFacts, firstDay: string, first: number) =>
  ({ termId, day, sums, savedMicros, lostConversions, lostMicros }: WouldStop): WouldStopLine => ({
    ...{ term: terms.keyOf(termId), day: shiftDay(firstDay, day - first) },
    ...{ clicks: known(sums.clicks), costMicros: known(sums.costMicros) },
    ...{ savedMicros, lostConversions, lostMicros },
  });

const known = (figure: number) => (Number.isNaN(figure) ? null : figure);

function trialLine(
  { rule, isOwn }: { rule: Rule; isOwn: boolean },
  { stopped }: Trial,
  lineOf: (stop: WouldStop) => WouldStopLine,
): TrialLine {
  const wrong = stopped
    .filter(({ lostConversions }) => lostConversions > 0)
    .sort((a, b) => b.lostConversions - a.lostConversions || b.lostMicros - a.lostMicros);
  return {
    ...{ rule, isOwn, terms: stopped.length },
    savedMicros: sum(stopped, (one) => one.savedMicros),
    lostConversions: sum(stopped, (one) => one.lostConversions),
    lostMicros: sum(stopped, (one) => one.lostMicros),
    wrong: { total: wrong.length, first: wrong.slice(0, MOST_WRONG).map(lineOf) },
  };
}

/** The day on which most was lost beyond what was saved. */
function worstOf({ savedMicros, lostMicros }: Trial, firstDay: string): TrialView['worst'] {
  const over = Array.from(lostMicros, (lost, i) => lost - savedMicros[i]!);
  const most = max(over) ?? 0;
  if (most <= 0) return null;
  const i = over.indexOf(most);
  return { day: shiftDay(firstDay, i), savedMicros: savedMicros[i]!, lostMicros: lostMicros[i]! };
}
