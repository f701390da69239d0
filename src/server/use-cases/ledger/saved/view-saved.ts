import { sum } from 'd3';
import { rowsActedOn, shiftDay } from '@/core';
import type { SavedOfChange, SavedSoFar } from '@/contracts/saved';
import { Refusal, type Deps } from '../../deps';
import { requireAccount } from '../../open-workbench';
import type { ActingChange } from './acting';
import { figuresOf, likelyOf, predictedADay } from './figures';
import { otherFormsOf } from './other-forms';
import { reckonOf, type Saved } from './reckon';

/** What everything that was sent saved so far, and each change (rules 13.4). */
export async function viewSavedSoFar(deps: Deps, slug: string): Promise<SavedSoFar> {
  const saved = await reckonOf(deps, await requireAccount(deps, slug));
  if (!saved) return { soFar: null, changes: [] };
  const all = saved.changes;
  return {
    soFar: {
      ...figuresOf(saved, all),
      since: saved.periods.starts[Math.min(...all.map(({ from }) => from))]!,
      ...{ trays: new Set(all.map(({ sent }) => sent.setId)).size, changes: all.length },
    },
    changes: all.map((acting) => {
      const { weeks: _, ...figures } = figuresOf(saved, [acting]);
      return { id: acting.sent.id, ...figures };
    }),
  };
}

/** @throws Refusal when the change stops nothing, or no data have come since it was sent */
export async function viewSavedOfChange(deps: Deps, slug: string, changeId: number): Promise<SavedOfChange> {
  const account = await requireAccount(deps, slug);
  const saved = await reckonOf(deps, account);
  const acting = saved?.changes.find(({ sent }) => sent.id === changeId);
  if (!saved || !acting) throw new Refusal('Nothing is known yet of what this change saved.', 404);
  const { sent, until } = acting;
  const parts = saved.partsOf.get(acting)!;
  const ofTray = saved.changes.filter((other) => other.sent.setId === sent.setId);
  const figures = figuresOf(saved, [acting]);
  const aDay = predictedADay(acting);
  const expected = sum(parts, (part) => part.expectedMicros);
  return {
    ...figures,
    to: until === Infinity ? saved.newest : shiftDay(saved.periods.starts[until] ?? saved.newest, -1),
    isTakenBack: until !== Infinity,
    isGone: isGone(saved, acting),
    likely: likelyOf(acting, figures.days),
    trafficMicros: aDay && Math.round(expected - aDay.stopped * figures.days),
    backMicros: Math.round(sum(parts, (part) => part.backMicros)),
    backPredictedMicros: aDay && Math.round((aDay.stopped - aDay.net) * figures.days),
    stillMicros: Math.round(sum(parts, (part) => part.stillMicros)),
    otherForms: await otherFormsOf(deps, account, saved, acting),
    tray: { ...figuresOf(saved, ofTray), changes: ofTray.length, sentDay: sent.sentDay },
  };
}

/** Whether some of what a change stopped is open again, and nobody here took it back. */
function isGone({ snapshot }: Saved, { sent, until }: ActingChange): boolean {
  if (until !== Infinity || sent.state !== 'there') return false;
  return rowsActedOn(sent.change, snapshot.gate).some((row) => snapshot.gate.stopCount(row) === 0);
}
