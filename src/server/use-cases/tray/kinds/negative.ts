import { rollup } from 'd3';
import {
  checkNegative,
  changeKey,
  normalise,
  placeKey,
  productCodeTest,
  type ChangeOf,
  type Place,
} from '@/core';
import { derivedFrom } from '../../../compute/derived';
import type { StructureAnswer } from '@/contracts/platform';
import { isNotGiven, sayNotGiven } from '../../../compute/serving';
import type { ElementStates } from '../../../repositories/structure/outside-changes';
import type { Mirror } from '../../../repositories/structure/structure';
import type { KnownList } from '../../lists/known-lists';
import type { Open } from '../../open-workbench';
import { isFound, type KindWork, type PlatformIds, type WorkFor } from './kind';
import { cellsOfPlace } from './sheet-cells';

type Kind = 'add negative' | 'remove negative';
type Negative = ChangeOf<Kind>;

const cells: KindWork<Negative>['sheet']['cells'] = ({ text, match, place }, open) => ({
  ...{ Text: text, 'Match type': match },
  ...cellsOfPlace(open, place),
});

export const negativeWork: WorkFor<Kind> = {
  'add negative': {
    refuse: refuseNegative,
    isSoAlready: (change, open) =>
      open.draft.gate.holds(change, change.place)
        ? `“${change.text}” (${change.match}) stands there already.`
        : undefined,
    translate,
    find({ place, text, match }, mirror) {
      if (holds(mirror, place, text, match)) return 'there';
      return holds(mirror, place, text) ? 'different' : 'missing';
    },
    findOutside,
    sheet: { task: 'Add the negative', status: 'live', cells },
    shownBy: () => 'negative',
  },
  'remove negative': {
    isSoAlready: (change, open) =>
      open.draft.gate.holds(change, change.place)
        ? undefined
        : `“${change.text}” (${change.match}) does not stand there.`,
    translate,
    find: ({ place, text, match }, mirror) => isFound(!holds(mirror, place, text, match)),
    sheet: { task: 'Remove the negative', status: 'removed', cells },
    shownBy: () => 'negative',
    dropUnnamed(change, gone, mirror) {
      const key = changeKey(change);
      const twins = mirror.negatives.filter((n) => changeKey({ kind: 'remove negative', ...n }) === key);
      gone.negativeIds.push(...twins.map((n) => n.id));
    },
  },
};

function refuseNegative(change: Negative, open: Open, list: KnownList | undefined): string | undefined {
  const { account, snapshot } = open;
  const refusal = checkNegative(change, account.limits, productCodeTest(account.productCodePattern));
  if (refusal) return refusal.message;
  const { kind, id } = change.place;
  if (kind === 'campaign' && !snapshot.campaign.has(id!)) return 'This campaign is not there any more.';
  if (kind === 'adGroup' && !snapshot.adGroup.has(id!)) return 'This ad group is not there any more.';
  if (isNotGiven(open.snapshot, change.place)) return sayNotGiven(kind);
  return list?.holds === 'placements'
    ? `${list.name} holds placements, so no negative can stand in it.`
    : undefined;
}

function translate({ kind, text, match, place }: Negative, ids: PlatformIds) {
  switch (place.kind) {
    case 'account':
      return { kind, text, match, place: { kind: 'account' as const, id: null } };
    case 'list':
      return { kind, text, match, place: { kind: place.kind, id: ids.list! } };
    case 'campaign':
    case 'adGroup':
      return { kind, text, match, place: { kind: place.kind, id: ids[place.kind](place.id!) } };
  }
}

/** Place and text → the match types in which it stands there. */
const matchesIn = derivedFrom(({ negatives }: Mirror): ReadonlyMap<string, Set<Negative['match']>> =>
  rollup(
    negatives,
    (twins) => new Set(twins.map(({ match }) => match)),
    ({ place, text }) => textAtPlace(place, text),
  ),
);

const textAtPlace = (place: Place, text: string) => `${placeKey(place)} ${normalise(text)}`;

function holds(mirror: Mirror, place: Place, text: string, match?: Negative['match']): boolean {
  const matches = matchesIn(mirror).get(textAtPlace(place, text));
  return matches !== undefined && (match === undefined || matches.has(match));
}

function findOutside(answer: StructureAnswer, before: ElementStates, after: ElementStates): Negative[] {
  return answer.negatives.flatMap(({ id, status }) => {
    const [was, is] = [before.negatives.get(id), after.negatives.get(id)];
    const negative = is ?? was;
    if (!negative || (status !== 'removed') === (was !== undefined)) return [];
    const { text, match, place } = negative;
    return [{ kind: was ? 'remove negative' : 'add negative', text, match, place } as const];
  });
}
