import { counted, listed } from '@/core';
import type { NextThing } from '@/contracts/today';

type Kind = NextThing['kind'];

/** What a thing is called, where it is done, and how one goes there. */
export type Way = { says: string; screen: string; path: string; press: string };

const SAYS: Record<Kind, (count: number) => string> = {
  'words at fault': (count) => `${counted(count, 'word')} at fault`,
  'terms that miss': (count) =>
    `${counted(count, 'term')} that surely ${count === 1 ? 'misses' : 'miss'} the target`,
  'send the tray': (count) => `${counted(count, 'change')} in the tray, not sent`,
  'send again': (count) => `${counted(count, 'change')} that failed`,
  'decide findings': (count) => `${counted(count, 'finding')} of rules to decide`,
  'look at rules': (count) =>
    `${counted(count, 'rule')} that ${count === 1 ? 'stopped itself, or waits' : 'stopped themselves, or wait'}`,
  'look at others': (count) => `${counted(count, 'change')} made by others on the platform`,
  'target missed': () => 'A week missed the target',
  'load files': (count) => `${counted(count, 'file')} brought and not loaded`,
  'set a target': () => 'No target is set: what misses it can not be told',
};

const WHERE: Record<Kind, Omit<Way, 'says'>> = {
  'words at fault': { screen: 'Sift', path: 'sift?show=pass', press: 'Go through them' },
  'terms that miss': { screen: 'Sift', path: 'sift?show=pass', press: 'Go through them' },
  'send the tray': { screen: 'Tray', path: '', press: 'Look at them and send' },
  'send again': { screen: 'Tray', path: '', press: 'Look at them and send' },
  'decide findings': { screen: 'Rules', path: 'rules', press: 'Say yes or no' },
  'look at rules': { screen: 'Rules', path: 'rules?shown=rules', press: 'See why' },
  'look at others': { screen: 'Lists', path: 'lists', press: 'Take over or undo' },
  'target missed': { screen: 'Sift', path: 'sift', press: 'See what cost too much' },
  'load files': { screen: 'Intake', path: 'intake', press: 'To the files' },
  'set a target': { screen: 'Account', path: 'account', press: 'Set one' },
};

/** An empty path: it is done on the page from which the tray is sent. */
export const wayOf = ({ kind, count }: NextThing): Way => ({ ...WHERE[kind], says: SAYS[kind](count) });

/** What a thing is worth, in words; nothing where that is not known. @param days how many are looked at */
export function sayWorth(
  { kind, worthMicros, first, count }: NextThing,
  days: number,
  money: (micros: number) => string,
): string {
  const here = `in ${days === 1 ? 'this day' : `these ${days} days`}`;
  if (worthMicros === null)
    return listed(
      first.map(({ text }) => text),
      count,
    );
  return kind === 'send the tray'
    ? `would have stopped ${money(worthMicros)} ${here}`
    : `${money(worthMicros)} ${here}`;
}
