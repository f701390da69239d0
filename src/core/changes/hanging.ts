import type { Place } from '../gate';

/**
 * The place where a list acts that hangs on a campaign (or, null, on the whole account).
 * @example hangingPlace(null) // { kind: 'account', id: null }
 */
export function hangingPlace(campaignId: string | null): Place {
  return campaignId === null ? { kind: 'account', id: null } : { kind: 'campaign', id: campaignId };
}

/**
 * Whether a list hangs on a campaign by itself, or (null) on the whole account.
 * @example isHungOn(['c1'], 'c1') // true
 */
export function isHungOn(hungOn: readonly string[] | 'account' = [], campaignId: string | null): boolean {
  if (hungOn === 'account' || campaignId === null) return hungOn === 'account' && campaignId === null;
  return hungOn.includes(campaignId);
}
