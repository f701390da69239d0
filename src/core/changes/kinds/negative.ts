import { placeKey } from '../../gate';
import { normalise } from '../../text';
import type { ChangeOf } from '../change';
import type { Limits } from '../limits';
import { describePlace } from '../names';
import { keyOfKeyword } from './element';
import type { Filled, KindRules, RulesFor } from './kind';

type Kind = 'add negative' | 'remove negative';

const both = {
  key: ({ place, match, text }) => `negative|${placeKey(place)}|${match}|${normalise(text)}`,
  list: ({ place }) => (place.kind === 'list' ? (place.id ?? undefined) : undefined),
  alters: ({ place }) => (place.kind === 'list' ? (place.id ?? undefined) : undefined),
  place: ({ place }) => place,
  rowsIn: (change, gate, place) => gate.reached(change, place),
  restore(change, gate, account) {
    const { text, match, place } = change;
    const opened = new Set(gate.removeNegative({ text, match }, place).reopened);
    const stopped = new Set<number>();
    for (const twin of account.twinsAt(change, place))
      for (const r of gate.addNegative(twin, place).stopped) stopped.add(r);
    return {
      stopped: [...stopped].filter((r) => !opened.has(r)),
      reopened: [...opened].filter((r) => !stopped.has(r)),
    };
  },
} satisfies Partial<KindRules<ChangeOf<Kind>>>;

/** A negative at a place. */
export const negativeRules: RulesFor<Kind> = {
  'add negative': {
    ...both,
    does: 'stops',
    inverse: (change) => ({ ...change, kind: 'remove negative' }),
    say: ({ text, match, place, leavesTo }, names) =>
      `Stop “${text}” (${match}) in ${describePlace(place, names)}${leavesTo?.[0] ? `, for ${leavesTo[0].adGroup} to serve it` : ''}`,
    // Without the keyword that is made for it, nothing would serve what it stops.
    needs: ({ text, leavesTo }) => leavesTo?.[0] && keyOfKeyword({ ...leavesTo[0], text }),
    stopsIn: ({ place }) => place,
    brings: ({ text, match }) => [{ text, match }],
    apply: (change, gate) => gate.addNegative(change, change.place),
    fills: ({ place }, count, limits) => fillsPlace(place, count.negatives(place), limits),
  },
  'remove negative': {
    ...both,
    does: 'opens',
    inverse: (change) => ({ ...change, kind: 'add negative' }),
    say: ({ text, match, place }, names) =>
      `Let “${text}” (${match}) through again in ${describePlace(place, names)}`,
    apply: (change, gate) => gate.removeNegative(change, change.place),
  },
};

/** Campaigns and ad groups have no limit. */
function fillsPlace(place: ChangeOf<Kind>['place'], used: number, limits: Limits): Filled | undefined {
  switch (place.kind) {
    case 'account':
      return { what: 'negatives', place, used, most: limits.accountNegatives };
    case 'list':
      return { what: 'negatives', place, used, most: limits.listNegatives };
    case 'campaign':
    case 'adGroup':
      return undefined;
  }
}
