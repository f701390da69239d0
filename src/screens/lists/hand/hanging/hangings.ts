import type { ListLine, ListsView } from '@/contracts/lists';
import { isHungOn } from '@/core';

export type Hanging = { listId: string; campaignId: string | null };

/** Where a list hangs once the tray is sent, by campaign ids. */
export function hungAfterTray({ campaigns }: ListsView, { hungOn, drafted }: ListLine): Set<string | null> {
  const hung = new Set<string | null>(hungOn === 'account' ? [null] : hungOn.map((c) => campaigns[c]!.id));
  for (const { campaign, hang } of drafted) {
    const id = campaign === null ? null : campaigns[campaign]!.id;
    if (hang) hung.add(id);
    else hung.delete(id);
  }
  return hung;
}

/** Those of lists × campaigns that are not so already. */
export function hangingsToMake(
  view: ListsView,
  lists: readonly ListLine[],
  campaignIds: readonly string[],
  hang: boolean,
): Hanging[] {
  return lists.flatMap((list) => {
    const hung = hungAfterTray(view, list);
    if (hung.has(null)) return [];
    return campaignIds
      .filter(
        (id) =>
          isHungOn(
            [...hung].filter((one) => one !== null),
            id,
          ) !== hang,
      )
      .map((campaignId) => ({ listId: list.id, campaignId }));
  });
}
