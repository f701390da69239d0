import type { Pulse } from '@/contracts/decisions';
import { PARTS, ROUTES, type Part, type Route, type WriteName } from '@/contracts/routes';
import { readVersions, VERSIONS_HEADER } from '@/contracts/versions';

/** What this browser knows of each account: its versions, and the parts that decisions from here have changed. */
const known = new Map<string, Pulse>();
const changed = new Map<string, Set<Part>>();

/**
 * Notes the answer of a decision: its parts are to be asked for again. Where the versions before it are not those that
 * are known here, somebody else has changed something too, and everything is to be asked for again. The versions stay
 * unknown then, so that the next pulse asks even where nothing is asked for after the decision.
 */
export function noteDecision(account: string, name: WriteName, headers: Headers): void {
  const versions = readVersions(headers.get(VERSIONS_HEADER));
  const seen = known.get(account);
  const isAlone = versions !== undefined && (seen === undefined || isSame(seen, versions.before));
  const { changes = PARTS }: Route = ROUTES[name];
  note(account, isAlone ? changes : PARTS);
  if (versions && isAlone) known.set(account, newest(seen, versions.after));
}

function note(account: string, parts: readonly Part[]): void {
  changed.set(account, new Set([...(changed.get(account) ?? []), ...parts]));
}

/** The parts that were changed since this was asked last; all, where nothing from here did. */
export function takeChanged(account: string): readonly Part[] {
  const parts = changed.get(account);
  changed.delete(account);
  return parts ? [...parts] : PARTS;
}

/** Notes the versions of an account. @returns whether somebody else has changed something since they were known */
export function notePulse(account: string, pulse: Pulse): boolean {
  const seen = known.get(account);
  known.set(account, newest(seen, pulse));
  return seen !== undefined && (pulse.data > seen.data || pulse.decisions > seen.decisions);
}

const isSame = (a: Pulse, b: Pulse) => a.data === b.data && a.decisions === b.decisions;

/** Answers may overtake each other; versions only rise. */
function newest(seen: Pulse | undefined, pulse: Pulse): Pulse {
  return {
    data: Math.max(seen?.data ?? 0, pulse.data),
    decisions: Math.max(seen?.decisions ?? 0, pulse.decisions),
  };
}
