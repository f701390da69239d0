import type { Pulse } from './decisions';

/** The header by which the answer of a decision brings the versions of the account with it. */
export const VERSIONS_HEADER = 'gatepost-versions';

/** @example sayVersions({ data: 1, decisions: 7 }, { data: 1, decisions: 8 }) // '1 7 1 8' */
export function sayVersions(before: Pulse, after: Pulse): string {
  return [before.data, before.decisions, after.data, after.decisions].join(' ');
}

/** @returns undefined where the header is missing, or of another version of Gate Post */
export function readVersions(header: string | null): { before: Pulse; after: Pulse } | undefined {
  if (!/^\d+ \d+ \d+ \d+$/.test(header ?? '')) return undefined;
  const [data, decisions, newData, newDecisions] = header!.split(' ').map(Number) as [
    number,
    number,
    number,
    number,
  ];
  return { before: { data, decisions }, after: { data: newData, decisions: newDecisions } };
}
