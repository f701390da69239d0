import type { PlatformChange, Structure } from '@/contracts/platform';

/** The account while a batch is applied to it. */
export type AccountInWork = {
  /** as the changes before this one leave it */
  structure: Structure;
  today: string;
  /** Stores an element as it is now. */
  put(kind: keyof Structure, element: Structure[keyof Structure][number]): Promise<void>;
  /** An id that no element has yet. @example newId('N') // 'N17' */
  newId(letter: string): string;
  /** The id of an element that a change may name by the key of the change that makes it; null where it was not made. */
  resolve(id: string): Promise<string | null>;
};

export type Applied = { id: string | null } | { refused: string; text: string };

type Kind = PlatformChange['kind'];
/** The changes of a kind, where several kinds may share a schema. */
export type PlatformChangeOf<K extends Kind> = PlatformChange extends infer C
  ? C extends { kind: infer Kinds }
    ? K extends Kinds
      ? C & { kind: K }
      : never
    : never
  : never;

/** What the platform does for some kinds of change, each under its name. */
export type ActionsFor<K extends Kind> = {
  [One in K]: (change: PlatformChangeOf<One>, account: AccountInWork) => Promise<Applied>;
};

export function refuse(refused: string, text: string): Extract<Applied, { refused: string }> {
  return { refused, text };
}

/** A time of day in progress. */
export const noonOf = ({ today }: AccountInWork) => `${today}T12:00:00Z`;

export function placeExists(
  { structure }: AccountInWork,
  { kind, id }: Structure['negatives'][number]['place'],
): boolean {
  if (kind === 'account') return true;
  const among = { campaign: 'campaigns', adGroup: 'adGroups', list: 'lists' } as const;
  return structure[among[kind]].some((element) => element.id === id);
}

/** Takes an element out of those that stand. */
export function take<T>(all: T[], element: T): void {
  all.splice(all.indexOf(element), 1);
}
