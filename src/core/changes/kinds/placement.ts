import { GONE } from '../names';
import type { ChangeOf } from '../change';
import type { KindRules, RulesFor } from './kind';

type Kind = 'add placement' | 'remove placement';

const both = {
  key: ({ listId, address }) => `placement|${listId}|${address}`,
  list: ({ listId }) => listId,
  alters: ({ listId }) => listId,
  restore: ({ listId, address }, gate, account) =>
    account.holdsPlacement(listId, address)
      ? gate.addPlacement(listId, address)
      : gate.removePlacement(listId, address),
} satisfies Partial<KindRules<ChangeOf<Kind>>>;

/** A site, an app or a channel in a placement list (rules 2.6). It stops no query. */
export const placementRules: RulesFor<Kind> = {
  'add placement': {
    ...both,
    does: 'stops',
    inverse: (change) => ({ ...change, kind: 'remove placement' }),
    say: ({ address, listId }, names) => `Shut out ${address} in list ${names.list(listId) ?? GONE}`,
    apply: ({ listId, address }, gate) => gate.addPlacement(listId, address),
    fills: ({ listId }, count, limits) => ({
      what: 'placements',
      place: { kind: 'list', id: listId },
      used: count.placements(listId),
      most: limits.listPlacements,
    }),
  },
  'remove placement': {
    ...both,
    does: 'opens',
    inverse: (change) => ({ ...change, kind: 'add placement' }),
    say: ({ address, listId }, names) =>
      `Let ${address} show our ads again in list ${names.list(listId) ?? GONE}`,
    apply: ({ listId, address }, gate) => gate.removePlacement(listId, address),
  },
};
