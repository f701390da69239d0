import type { ListCampaign } from '@/contracts/lists';
import { withStatus } from '@/ui/format';
import type { ListsUrl } from '../lists-url';

/** A column of the grid: one campaign, or the campaigns of a folded group. */
export type Column = {
  key: string;
  /** indexes of campaigns */
  campaigns: number[];
  /** what stands at its head */
  label: string;
  /** null: a campaign that shares the first part of its name with no other */
  group: string | null;
  isFolded: boolean;
};

/** Campaigns whose names begin alike, next to each other. */
export type ColumnGroup = {
  name: string;
  first: number;
  length: number;
  campaigns: number;
  isFolded: boolean;
};

/** More campaigns than that are folded until a person opens them. */
const MOST_OPEN = 60;
const SEPARATOR = /\s*[·|/:_–—>]+\s*|\s+-\s+/u;

/** The parts of a campaign's name. @example partsOf('Hives · Starter') // ['Hives', 'Starter'] */
export function partsOf(name: string): string[] {
  return name
    .split(SEPARATOR)
    .map((part) => part.trim())
    .filter((part) => part !== '');
}

export function isShown(
  campaign: ListCampaign,
  { name, status, channel, label }: Pick<ListsUrl, 'name' | 'status' | 'channel' | 'label'>,
): boolean {
  return (
    (name === '' || campaign.name.toLowerCase().includes(name.toLowerCase())) &&
    (status === '' || campaign.status === status) &&
    (channel === '' || campaign.channel === channel) &&
    (label === '' || campaign.labels.includes(label))
  );
}

/**
 * The columns of the campaigns that are shown, folded by the first part of their names.
 * @param shown indexes of campaigns, by name
 * @param turned groups that are not as they would be by themselves
 */
export function columnsOf(
  campaigns: readonly ListCampaign[],
  shown: readonly number[],
  turned: readonly string[],
): { columns: Column[]; groups: ColumnGroup[] } {
  const byFirst = new Map<string, number[]>();
  for (const index of shown) {
    const [first = campaigns[index]!.name] = partsOf(campaigns[index]!.name);
    byFirst.set(first, [...(byFirst.get(first) ?? []), index]);
  }
  const columns: Column[] = [];
  const groups: ColumnGroup[] = [];
  for (const [name, indexes] of byFirst) {
    const isGroup = indexes.length > 1;
    const isFolded = isGroup && shown.length > MOST_OPEN !== turned.includes(name);
    const first = columns.length;
    if (isFolded) {
      columns.push({ key: `group ${name}`, campaigns: indexes, label: name, group: name, isFolded });
    } else {
      for (const index of indexes) {
        const campaign = campaigns[index]!;
        const bare = isGroup ? partsOf(campaign.name).slice(1).join(' · ') || name : campaign.name;
        const label = withStatus({ name: bare, status: campaign.status });
        columns.push({ key: campaign.id, campaigns: [index], label, group: isGroup ? name : null, isFolded });
      }
    }
    if (isGroup)
      groups.push({ name, first, length: columns.length - first, campaigns: indexes.length, isFolded });
  }
  return { columns, groups };
}
