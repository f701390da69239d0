import type { MatchType, Place } from '../gate';

/**
 * Everything that can be asked of an ad platform. A change names what it is about by content (place, text, match
 * type), not by the id of a row, so that its inverse can be told from the change alone. What holds for each kind
 * stands in `kinds/`.
 * Lists that do not exist yet are named by the id that their 'make list' change gives them (`new:` and a key).
 */
export type Change =
  | { kind: 'add negative'; text: string; match: MatchType; place: Place; leavesTo?: OwnKeyword[] }
  | { kind: 'remove negative'; text: string; match: MatchType; place: Place; leavesTo?: OwnKeyword[] }
  | { kind: 'make list'; listId: string; name: string; holds?: ListContent }
  | { kind: 'remove list'; listId: string; name: string; holds?: ListContent }
  | { kind: 'rename list'; listId: string; name: string; was: string }
  /** the campaign null is the whole account */
  | { kind: 'hang list'; listId: string; campaignId: string | null }
  | { kind: 'take down list'; listId: string; campaignId: string | null }
  /** a site, an app or a channel (rules 2.6), as `cleanPlacement` writes it */
  | { kind: 'add placement'; address: string; listId: string }
  | { kind: 'remove placement'; address: string; listId: string }
  | { kind: 'exclude product'; code: string; place: Place }
  | { kind: 'readmit product'; code: string; place: Place }
  /** the bid is the most that a click may cost, micro-units; `wasMicros` is what it was */
  | { kind: 'set bid'; keywordId: string; bidMicros: number; wasMicros: number }
  | { kind: 'pause keyword'; keywordId: string }
  | { kind: 'run keyword'; keywordId: string }
  /** the most that a campaign may cost a day, micro-units; `wasMicros` is what it was */
  | { kind: 'set budget'; campaignId: string; budgetMicros: number; wasMicros: number }
  /** a campaign of those that are asked one after another; `was` is the priority that it had */
  | { kind: 'set priority'; campaignId: string; priority: Priority; was: Priority }
  | ({ kind: 'share budget' } & SharedBudget)
  | ({ kind: 'leave budget' } & SharedBudget)
  /** elements that the platform does not have yet are named as people name them; amounts in micro-units */
  | { kind: 'add campaign'; name: string; budgetMicros: number }
  | { kind: 'remove campaign'; name: string; budgetMicros: number }
  | { kind: 'add ad group'; campaign: string; name: string }
  | { kind: 'remove ad group'; campaign: string; name: string }
  | ({ kind: 'add keyword' } & NewKeyword)
  | ({ kind: 'remove keyword' } & NewKeyword);

/** How early a campaign is asked among those that could serve the same query, the first first. */
export const PRIORITIES = ['high', 'medium', 'low'] as const;
export type Priority = (typeof PRIORITIES)[number];

/** A campaign that pays out of a budget with others; amounts in micro-units. */
type SharedBudget = {
  campaignId: string;
  /** name of the budget: one that others have already, or a new one */
  budget: string;
  /** the most that all of them may cost a day */
  budgetMicros: number;
  /** the most that the campaign may cost a day while it pays by itself */
  ownMicros: number;
};

/** A keyword in an ad group, both by their names. */
type NewKeyword = {
  campaign: string;
  adGroup: string;
  text: string;
  match: MatchType;
  /** the most that a click may cost, micro-units */
  bidMicros: number;
};

/**
 * The keyword that says what a routing negative says, to which the negative leaves what it stops (rules 11.5). Campaign and
 * ad group are named as people name them: the keyword may be made together with the negative.
 */
export type OwnKeyword = { campaign: string; adGroup: string; match: MatchType };

/** What a shared list holds; words where nothing is said. */
export type ListContent = 'words' | 'placements';

export type ChangeKind = Change['kind'];

/** The changes of some kinds. */
export type ChangeOf<K extends ChangeKind> = Extract<Change, { kind: K }>;

/**
 * The id of a list that is still in the tray, by which the changes that need the list name it.
 * @example newListId('1f') // 'new:1f'
 */
export function newListId(key: string): string {
  return `new:${key}`;
}

/**
 * Whether a list id names a list that the platform does not have yet.
 * @example isNewListId('7') // false
 */
export function isNewListId(listId: string): boolean {
  return listId.startsWith('new:');
}

/**
 * The key of the change that makes a list, from the id of that list.
 * @example keyOfNewList('new:1f') // '1f'
 */
export function keyOfNewList(listId: string): string {
  return listId.slice('new:'.length);
}
