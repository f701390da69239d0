import { codeKey, placeKey, productCodeTest, type ChangeOf } from '@/core';
import type { StructureAnswer } from '@/contracts/platform';
import type { ElementStates } from '../../../repositories/structure/outside-changes';
import type { Mirror } from '../../../repositories/structure/structure';
import { isFound, type KindWork, type PlatformIds, type WorkFor } from './kind';
import { cellsOfPlace } from './sheet-cells';

type Kind = 'exclude product' | 'readmit product';
type Product = ChangeOf<Kind>;

const cells: KindWork<Product>['sheet']['cells'] = ({ code, place }, open) => ({
  'Product code': code,
  ...cellsOfPlace(open, place),
});

export const productWork: WorkFor<Kind> = {
  'exclude product': {
    refuse({ code, place: { kind, id } }, { account, snapshot }) {
      const isCode = productCodeTest(account.productCodePattern);
      if (!isCode(code)) return `“${code}” is no product code of this account.`;
      if (kind === 'campaign' && snapshot.campaign.has(id!)) return undefined;
      return kind === 'adGroup' && snapshot.adGroup.has(id!)
        ? undefined
        : 'A product is excluded in a campaign or an ad group, and this one is not there.';
    },
    isSoAlready: ({ code, place }, { draft }) =>
      draft.gate.excludes(code, place) ? `${code} is excluded there already.` : undefined,
    translate,
    find: (change, mirror) => isFound(isExcluded(change, mirror)),
    findOutside,
    sheet: { task: 'Exclude the product', status: 'live', cells },
    shownBy: () => null,
  },
  'readmit product': {
    isSoAlready: ({ code, place }, { draft }) =>
      draft.gate.excludes(code, place) ? undefined : `${code} is not excluded there.`,
    translate,
    find: (change, mirror) => isFound(!isExcluded(change, mirror)),
    sheet: { task: 'Take back the exclusion of the product', status: 'removed', cells },
    shownBy: () => null,
  },
};

function translate({ kind, code, place }: Product, ids: PlatformIds) {
  return place.kind === 'campaign'
    ? { kind, code, place: { kind: place.kind, id: ids.campaign(place.id!) } }
    : { kind, code, place: { kind: 'adGroup' as const, id: ids.adGroup(place.id!) } };
}

function isExcluded({ code, place }: Product, { exclusions }: Mirror): boolean {
  return exclusions.some((e) => placeKey(e.place) === placeKey(place) && codeKey(e.code) === codeKey(code));
}

function findOutside(answer: StructureAnswer, before: ElementStates, after: ElementStates): Product[] {
  return answer.exclusions.flatMap(({ id, status }) => {
    const [was, is] = [before.exclusions.get(id), after.exclusions.get(id)];
    const exclusion = is ?? was;
    if (!exclusion || (status !== 'removed') === (was !== undefined)) return [];
    const { code, place } = exclusion;
    return [{ kind: was ? 'readmit product' : 'exclude product', code, place } as const];
  });
}
