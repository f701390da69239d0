import type { Group, GroupedIdea, GroupsView } from '@/contracts/groups';

/** A row of the table of groups: a group, or an idea below the group that is open; null is what is left over. */
export type GroupRow =
  | { kind: 'group'; group: Group }
  | { kind: 'left'; count: number }
  | { kind: 'idea'; group: Group | null; idea: GroupedIdea };

/** Tells a group from another: a proposed one may have the name of one that was taken. */
export const keyOfGroup = ({ name, isProposed }: Group): string => `${isProposed ? '?' : '='}${name}`;
export const LEFT = 'left';

/** What tells a row from the others. */
export function keyOfRow(row: GroupRow): string {
  if (row.kind === 'left') return LEFT;
  return row.kind === 'group' ? keyOfGroup(row.group) : `idea ${row.idea.text}`;
}

/** The groups with the ideas of those that are open, and what is left over at the end. */
export function rowsOf({ groups, left }: GroupsView, opened: ReadonlySet<string>): GroupRow[] {
  const ofGroups = groups.flatMap((group): GroupRow[] => [
    { kind: 'group', group },
    ...(opened.has(keyOfGroup(group))
      ? group.ideas.map((idea): GroupRow => ({ kind: 'idea', group, idea }))
      : []),
  ]);
  if (left.length === 0) return ofGroups;
  const ofLeft = opened.has(LEFT) ? left.map((idea): GroupRow => ({ kind: 'idea', group: null, idea })) : [];
  return [...ofGroups, { kind: 'left', count: left.length }, ...ofLeft];
}

/** The ideas of the sheet that an idea in a group stands for. */
export const keysOf = ({ text, keys }: GroupedIdea): string[] => keys ?? [text];
export const keysOfAll = (ideas: readonly GroupedIdea[]): string[] => ideas.flatMap(keysOf);
