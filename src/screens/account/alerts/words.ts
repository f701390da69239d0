import { listed } from '@/core';
import { ALERT_KINDS, type AlertKind, type AlertTarget } from '@/contracts/alerts';

export const KIND_NAMES: Record<AlertKind, string> = {
  rule: 'what rules find or report',
  load: 'files that were not loaded',
  drift: 'what others change on the platform',
  tray: 'changes not sent or not taken',
  target: 'weeks that miss the target',
};
export const WAY_NAMES = { mail: 'by mail to', hook: 'by a web hook at' } as const;

/** @param minutes since midnight @returns such as 08:05 */
export const timeOf = (minutes: number) =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
/** @param time such as 08:05 @returns minutes since midnight */
export const minutesOf = (time: string) => {
  const [hours = 0, minutes = 0] = time.split(':').map(Number);
  return 60 * hours + minutes;
};

/** Where somebody is told, of what, and when. */
export function sayTarget({ way, address, kinds, quiet, digestAt, isOn }: AlertTarget): string {
  const what =
    kinds.length === ALERT_KINDS.length ? 'everything' : listed(kinds.map((kind) => KIND_NAMES[kind]));
  const when = digestAt === null ? 'at once' : `once a day at ${timeOf(digestAt)}`;
  const night = quiet === null ? '' : `, not from ${timeOf(quiet.from)} to ${timeOf(quiet.to)}`;
  return `${WAY_NAMES[way]} ${address}: ${what}, ${when}${night}${isOn ? '' : ' (off)'}`;
}
