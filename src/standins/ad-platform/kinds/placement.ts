import { cleanPlacement } from '@/core';
import type { Structure } from '@/contracts/platform';
import { STANDIN_LIMITS } from '../limits';
import { noonOf, refuse, take, type ActionsFor } from './kind';
import { findList } from './list';

type Placement = Structure['placements'][number];

export const placementActions: ActionsFor<'add placement' | 'remove placement'> = {
  async 'add placement'({ listId, address }, account) {
    const list = await findList(account, listId);
    if (!list) return refuse('no such list', 'The list is not there.');
    if (list.holds !== 'placements')
      return refuse('no placements here', `${list.name} holds words, so no placement can stand in it.`);
    const cleaned = cleanPlacement(address);
    if (cleaned === undefined)
      return refuse('no address', `“${address}” is no address of a site, an app or a channel.`);
    const there = account.structure.placements.filter((p) => p.listId === list.id);
    if (there.some((p) => p.address === cleaned))
      return refuse('stands there', `${cleaned} stands there already.`);
    const most = STANDIN_LIMITS.listPlacements;
    if (there.length >= most)
      return refuse('too many placements', `This list takes ${most} placements, and holds as many.`);
    const placement: Placement = {
      ...{ id: account.newId('P'), address: cleaned, listId: list.id },
      ...{ createdAt: noonOf(account), status: 'live' },
    };
    account.structure.placements.push(placement);
    await account.put('placements', placement);
    return { id: placement.id };
  },

  async 'remove placement'({ listId, address }, account) {
    const { placements } = account.structure;
    const [id, cleaned] = [await account.resolve(listId), cleanPlacement(address)];
    const placement = placements.find((p) => p.listId === id && p.address === cleaned);
    if (!placement) return refuse('not there', `${address} does not stand there.`);
    take(placements, placement);
    await account.put('placements', { ...placement, status: 'removed' });
    return { id: placement.id };
  },
};
