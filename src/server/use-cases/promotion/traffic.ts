import { group } from 'd3-array';
import type { MatchType, PromotionPart, PromotionPlan } from '@/core';
import type { PlanView } from '@/contracts/promotion';
import { isServing } from '../../compute/serving';
import { keyAt } from '../../compute/window-columns';
import { weighRows } from '../../compute/workbench';
import type { Open } from '../open-workbench';
import type { Converting } from './find-promotions';
import { planningOf } from './planning';
import { namesOf } from './say-parts';

/** A term with its plan, as it is asked for. */
export type Planned = Converting & {
  plan: PromotionPlan;
  /** null: none can be reckoned, and none was given */
  bidMicros: number | null;
  isOut: (part: PromotionPart) => boolean;
};

/** What is to be made, without what was taken out. */
export const newParts = ({ plan, isOut }: Planned) => plan.parts.filter((part) => !isOut(part));

/** Ad groups that serve the term, and that the plan does not keep from it: it goes on being served there. */
export function whereItStays(open: Open, one: Planned): PlanView['stays'] {
  const { snapshot, draft } = open;
  const { served } = snapshot;
  const kept = new Set(
    newParts(one).flatMap(({ kind, adGroupId }) => (kind === 'negative' ? adGroupId : [])),
  );
  const serving = one.rows.filter((r) => {
    const g = served.adGroupOf[r]!;
    return draft.gate.stopCount(r) === 0 && isServing(snapshot, g) && !kept.has(served.adGroups[g]!.id);
  });
  return [...group(serving, (r) => served.adGroups[served.adGroupOf[r]!]!.id)].map(([id, of]) => ({
    ...namesOf(open, id),
    weight: weighRows(snapshot, of),
  }));
}

/** What each seat would get, and each ad group would leave, by the open queries of the window. */
export function foreseeTraffic(
  open: Open,
  planned: readonly Planned[],
): Pick<PlanView, 'gets' | 'leaves' | 'nowhere'> {
  const { snapshot, draft } = open;
  const { planner } = planningOf(open);
  const { terms, rows, served } = snapshot;
  // A query that gets an exact keyword of its own goes there, whatever other plans say of it.
  const own = new Map(
    planned.flatMap((one) => {
      const part = [...newParts(one), ...one.plan.standing].find(
        (p) => p.kind === 'keyword' && p.at === 'exact',
      );
      return part && !one.plan.idle.includes('exact')
        ? [[`${one.group.key} ${one.term}`, part] as const]
        : [];
    }),
  );
  const taken = new Map<number, { match: MatchType; adGroupId: string } | null>();
  for (const one of planned) {
    const parts = newParts(one);
    const plan = { ...one.plan, parts };
    for (const { kind, match, adGroupId } of parts) {
      if (kind !== 'negative') continue;
      for (const r of draft.gate.reached({ text: one.term, match }, { kind: 'adGroup', id: adGroupId })) {
        if (draft.gate.stopCount(r) > 0 || !isServing(snapshot, served.adGroupOf[r]!)) continue;
        const text = keyAt(terms, rows.termOf[r]!);
        const exact = own.get(`${one.group.key} ${text}`);
        if (exact) {
          taken.set(r, { match: 'exact', adGroupId: exact.adGroupId });
          continue;
        }
        if (taken.get(r)) continue;
        const [fate] = planner.foresee(plan, [{ text, adGroupId }]);
        const seat = fate === 'stays' || fate === 'nowhere' ? undefined : one.group.seats[fate!];
        taken.set(r, seat ? { match: fate as MatchType, adGroupId: seat.adGroupId } : null);
      }
    }
  }
  return sumTraffic(open, taken);
}

function sumTraffic(
  open: Open,
  taken: ReadonlyMap<number, { match: MatchType; adGroupId: string } | null>,
): Pick<PlanView, 'gets' | 'leaves' | 'nowhere'> {
  const { snapshot } = open;
  const { terms, rows, served } = snapshot;
  const gets = new Map<string, number[]>();
  const leaves = new Map<string, number[]>();
  const nowhere: number[] = [];
  const add = (sums: Map<string, number[]>, key: string, r: number) => {
    const of = sums.get(key);
    if (of) of.push(r);
    else sums.set(key, [r]);
  };
  for (const [r, seat] of taken) {
    add(leaves, served.adGroups[served.adGroupOf[r]!]!.id, r);
    if (seat) add(gets, `${seat.match} ${seat.adGroupId}`, r);
    else nowhere.push(r);
  }
  const weigh = (of: readonly number[]) => weighRows(snapshot, of);
  return {
    gets: [...gets].map(([key, of]) => {
      const [match, ...id] = key.split(' ');
      return { match: match as MatchType, ...namesOf(open, id.join(' ')), weight: weigh(of) };
    }),
    leaves: [...leaves].map(([id, of]) => ({ ...namesOf(open, id), weight: weigh(of) })),
    nowhere: {
      ...weigh(nowhere),
      first: [...new Set(nowhere.map((r) => keyAt(terms, rows.termOf[r]!)))].slice(0, 3),
    },
  };
}
