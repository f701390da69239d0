import { codeKey } from '@/core';
import type { Structure } from '@/contracts/platform';
import {
  noonOf,
  placeExists,
  refuse,
  take,
  type AccountInWork,
  type ActionsFor,
  type PlatformChangeOf,
} from './kind';

type Kind = 'exclude product' | 'readmit product';
type Exclusion = Structure['exclusions'][number];

export const productActions: ActionsFor<Kind> = {
  async 'exclude product'(change, account) {
    const { code, place } = change;
    if (!placeExists(account, place))
      return refuse('no such place', 'The place of the exclusion is not there.');
    if (find(account, change)) return refuse('stands there', `${code} is excluded there already.`);
    const exclusion: Exclusion = {
      ...{ id: account.newId('X'), code: code.trim(), place },
      ...{ createdAt: noonOf(account), status: 'live' },
    };
    account.structure.exclusions.push(exclusion);
    await account.put('exclusions', exclusion);
    return { id: exclusion.id };
  },

  async 'readmit product'(change, account) {
    const exclusion = find(account, change);
    if (!exclusion) return refuse('not there', `${change.code} is not excluded there.`);
    take(account.structure.exclusions, exclusion);
    await account.put('exclusions', { ...exclusion, status: 'removed' });
    return { id: exclusion.id };
  },
};

function find({ structure }: AccountInWork, { code, place }: PlatformChangeOf<Kind>): Exclusion | undefined {
  return structure.exclusions.find(
    (e) => e.place.kind === place.kind && e.place.id === place.id && codeKey(e.code) === codeKey(code),
  );
}
