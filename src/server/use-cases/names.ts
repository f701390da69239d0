import { isNewListId, listMadeBy, nameKeyword, type Change, type Names } from '@/core';
import type { Mirror } from '../repositories/structure/structure';

/** Names of the lists that changes make, by their ids. */
function namesOfMade(changes: readonly Change[]): ReadonlyMap<string, string> {
  return new Map(
    changes.flatMap((change) => listMadeBy(change) ?? []).map((made) => [made.listId, made.name]),
  );
}

type Named = { name: string };
type Elements = {
  campaign: ReadonlyMap<string, Named>;
  adGroup: ReadonlyMap<string, Named>;
  keyword: ReadonlyMap<string, { text: string; match: string }>;
  mirror: Pick<Mirror, 'lists'>;
};

/**
 * Names of elements, lists that changes make among them.
 * @param gone names of lists that were removed, by their ids
 */
export function namesIn(
  { campaign, adGroup, keyword, mirror }: Elements,
  changes: readonly Change[],
  currency: string,
  gone: ReadonlyMap<string, string> = new Map(),
): Names {
  const made = namesOfMade(changes);
  const lists = new Map(mirror.lists.map((l) => [l.id, l.name]));
  return {
    campaign: (id) => campaign.get(id)?.name,
    adGroup: (id) => adGroup.get(id)?.name,
    list(id) {
      const name = lists.get(id) ?? made.get(id);
      if (name !== undefined) return name;
      if (isNewListId(id)) return 'a list not made yet';
      return gone.has(id) ? `${gone.get(id)} (removed)` : undefined;
    },
    keyword: (id) => nameKeyword(keyword.get(id)),
    currency,
  };
}

/** The names in a mirror that no snapshot holds yet. */
export function namesInMirror(
  mirror: Mirror,
  ...rest: [Change[], string, ReadonlyMap<string, string>]
): Names {
  const byId = <E extends { id: string }>(all: readonly E[]) => new Map(all.map((one) => [one.id, one]));
  const { campaigns, adGroups, keywords } = mirror;
  const elements = { campaign: byId(campaigns), adGroup: byId(adGroups), keyword: byId(keywords), mirror };
  return namesIn(elements, ...rest);
}

/** Names that are known, and those of the lists that changes would make. */
export function namesWithMade({ names }: { names: Names }, changes: readonly Change[]): Names {
  const made = namesOfMade(changes);
  if (made.size === 0) return names;
  return { ...names, list: (id) => made.get(id) ?? names.list(id) };
}
