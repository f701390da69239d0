import * as v from 'valibot';
import type { HangRule, ListContent, MatchType, NegativeText } from '@/core';
import {
  ListNameSchema,
  MatchSchema,
  PlaceSchema,
  StoredNumberSchema,
  type Few,
  type Touched,
  type Weight,
} from './common';

/** Shared lists: what the screen Lists shows, and what is asked of it. */

const id = v.pipe(v.string(), v.minLength(1), v.maxLength(80));
const address = v.pipe(v.string(), v.minLength(1), v.maxLength(500));
const entry = v.object({ text: v.pipe(v.string(), v.minLength(1), v.maxLength(500)), match: MatchSchema });
const entries = v.pipe(v.array(entry), v.minLength(1, 'Mark an entry first.'), v.maxLength(20_000));
const words = v.pipe(
  v.array(v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(120))),
  v.maxLength(20),
);

export const HangRuleSchema = v.object({
  nameHolds: v.optional(words, []),
  nameLacks: v.optional(words, []),
  statuses: v.optional(words, []),
  channels: v.optional(words, []),
  labels: v.optional(words, []),
});

export type ListCampaign = {
  id: string;
  name: string;
  status: string;
  channel: string | null;
  labels: string[];
};

/** Live keywords that a list shuts out or narrows, or would if it hung there; only campaigns that have such. */
export type ListHurts = {
  /** indexes into the campaigns */
  campaign: number[];
  keywords: number[];
};

export type ListLine = {
  id: string;
  name: string;
  holds: ListContent;
  /** made in the tray, not sent yet */
  isNew: boolean;
  /** negatives or placements, as the tray leaves it */
  entries: number;
  room: number;
  /** where it hangs as sent: indexes of campaigns, or the whole account */
  hungOn: number[] | 'account';
  /** hanging in the tray; the campaign null is the whole account */
  drafted: { campaign: number | null; hang: boolean }[];
  hurts: ListHurts;
  rules: { id: number; rule: HangRule; said: string; by: string; except: number[] }[];
  /** indexes of the campaigns on which a rule wants it and it does not hang, nor will */
  wanted: number[];
  /** somebody else changed it on the platform, and nobody has looked at that yet */
  waits: boolean;
};

export type ListsView = {
  window: { from: string; to: string; days: number };
  campaigns: ListCampaign[];
  lists: ListLine[];
  accountWide: { used: number; most: number };
  waiting: WaitingVersion[];
  /** what others changed on the platform outside lists, and nobody has looked at yet, the newest first */
  outside: { id: number; at: string; said: string }[];
};

/** What others changed outside lists, to be taken over or undone. */
export const OutsideSchema = v.object({
  ids: v.pipe(v.array(StoredNumberSchema), v.minLength(1), v.maxLength(10_000)),
  /** the undo would stop protected terms, and is wanted for this reason */
  forcedBecause: v.optional(v.pipe(v.string(), v.trim(), v.minLength(3, 'Give a reason.'), v.maxLength(500))),
});

/** What a list stopped, told from the days before it could: what is stopped is never reported. */
export type Stopped = {
  terms: number;
  clicks: number;
  costMicros: number;
  /** of them, those that converted before they were stopped: stopped by mistake, perhaps */
  returningTerms: number;
  conversions: number;
  /** places (an entry on a campaign) that have acted since before the first day of data, so that nothing is known */
  unknown: number;
  known: number;
};

export type ListHealth = {
  stopped: Stopped;
  redundant: number;
  /** isKnown: told by a read-back; else it is the day of the newest entry */
  last: { at: string; by: string | null; isKnown: boolean } | null;
};
export type ListsHealth = { lists: Record<string, ListHealth> };

/** Lists and campaigns whose hanging is thought of: all pairs of them. */
export const HangingsQuerySchema = v.object({
  lists: v.pipe(v.array(id), v.minLength(1), v.maxLength(500)),
  campaigns: v.union([v.literal('account'), v.pipe(v.array(id), v.minLength(1), v.maxLength(5_000))]),
  hang: v.boolean(),
});
export type HangingsQuery = v.InferOutput<typeof HangingsQuerySchema>;

export type HangingsAnswer = {
  /** the changes that it comes to: pairs that are so already are left out */
  changes: number;
  /** what it would stop (or, taken down, open again), each term once */
  weight: Weight;
  touched: Touched;
  protectedTerms: Few<string>;
  /** campaigns where a live keyword would be touched or a converting term stopped, the worst first */
  hurt: Few<{ campaignId: string; name: string; weight: Weight; touched: Touched }>;
};

/** A list on one campaign, and the entries that hurt there. */
export type CellAnswer = {
  list: { id: string; name: string; holds: ListContent };
  campaign: { id: string; name: string };
  hangs: boolean;
  /** 'account': it hangs on the whole account */
  by: 'itself' | 'account' | null;
  /** it hangs only by a person's word so far */
  isSaid: boolean;
  /** since when, where that is known */
  since: string | null;
  /** what is to be known of the campaign before anything is stopped there */
  heed: string | null;
  weight: Weight;
  touched: Touched;
  protectedTerms: Few<string>;
  /** entries that shut out or narrow live keywords there, with the keywords, worst first */
  faults: Few<{ entry: NegativeText; keywords: Touched; stops: Weight }>;
};

export type EntryLine = {
  text: string;
  /** null: a placement */
  match: MatchType | null;
  since: string | null;
  /** against what counts as in force; said to be done: in force so far only by a person's word */
  drafted: 'added' | 'removed' | 'said to be done' | null;
  by: string | null;
  /** the search term from which it was made */
  from: string | null;
  /** live keywords that it shuts out or narrows where the list hangs */
  hurts: number;
};
export type EntriesView = {
  list: { id: string; name: string; holds: ListContent; isNew: boolean; room: number };
  /** where a change to it reaches: every campaign by name */
  reaches: { everywhere: boolean; campaigns: string[] };
  entries: EntryLine[];
};
/** What costs more to find of entries; by match type and text. */
export type EntriesHealth = {
  entries: Record<string, { stopped: Stopped; coveredBy: string | null; covers: number; missing: number }>;
};
export const entryKey = (match: MatchType | null, text: string) => `${match ?? 'placement'} ${text}`;

const target = v.union([v.object({ id }), v.object({ make: ListNameSchema })]);

/** Something that is done to lists as one; it comes to changes in the tray. */
export const ListEditSchema = v.variant('do', [
  v.object({
    do: v.literal('paste'),
    into: target,
    holds: v.optional(v.picklist(['words', 'placements']), 'words'),
    text: v.pipe(v.string(), v.maxLength(5_000_000)),
    match: v.optional(MatchSchema),
  }),
  v.object({ do: v.literal('move'), list: id, into: target, entries, keep: v.boolean() }),
  v.object({ do: v.literal('match'), list: id, entries, match: MatchSchema }),
  v.object({ do: v.literal('remove'), list: id, entries }),
  v.object({ do: v.literal('remove placements'), list: id, addresses: v.array(address) }),
  v.object({ do: v.literal('split'), list: id, themes: v.pipe(v.array(v.string()), v.minLength(1)) }),
  v.object({ do: v.literal('merge'), list: id, from: id }),
  v.object({ do: v.literal('drop needless'), list: id }),
  v.object({ do: v.literal('remove list'), list: id }),
  v.object({ do: v.literal('rest'), list: id, campaign: id, without: entries }),
  v.object({
    do: v.literal('gather'),
    name: ListNameSchema,
    entries,
    from: v.pipe(v.array(PlaceSchema), v.minLength(1), v.maxLength(5_000)),
  }),
  v.object({ do: v.literal('put back'), list: id, version: StoredNumberSchema }),
  v.object({ do: v.literal('undo version'), version: StoredNumberSchema }),
]);
export type ListEdit = v.InferOutput<typeof ListEditSchema>;

export const EditRequestSchema = v.object({
  edit: ListEditSchema,
  forcedBecause: v.optional(v.pipe(v.string(), v.trim(), v.minLength(3, 'Give a reason.'), v.maxLength(500))),
});

/** What an edit would come to, before it is put in the tray. */
export type EditPlan = {
  /** in one sentence */
  said: string;
  changes: number;
  /** a few of them in words */
  some: string[];
  /** what lines were not taken, and why */
  refused: Few<{ line: number; raw: string; reason: string }>;
  twice: number;
  /** those that stand there already */
  already: number;
  folded: Few<{ address: string; under: string }>;
  stops: Weight;
  reopens: Weight;
  touched: Touched;
  protectedTerms: Few<string>;
  /** campaigns that it reaches */
  reaches: { everywhere: boolean; campaigns: string[] };
  /** places that would hold more than they may, in words; with them it can not be sent */
  over: string[];
  /** ad groups in which what is in force was compared before and after, for a plan that is to change no answer */
  proof: { adGroups: number; same: boolean; said: string } | null;
};
export type EditOutcome = {
  changeIds: number[];
  said: string;
  heldBack: { count: number; said: string } | null;
  refused: Few<string>;
};

export type CouldBeView = {
  sets: {
    entries: NegativeText[];
    campaigns: { id: string; name: string }[];
    saves: number;
  }[];
};
export type AccountWideView = {
  used: number;
  most: number;
  entries: (NegativeText & {
    since: string | null;
    drafted: 'removed' | 'said to be done' | null;
    coveredBy: string | null;
    stops: Weight;
  })[];
};

export type VersionLine = {
  id: number;
  at: string;
  by: string | null;
  what: 'made' | 'changed' | 'removed';
  state: 'own' | 'waits' | 'taken over' | 'undone';
  /** the difference in words: the name, the counts, the first of each */
  said: string[];
};
export type WaitingVersion = VersionLine & { listId: string; listName: string; isThere: boolean };
export type HistoryView = { list: { id: string; name: string }; versions: VersionLine[] };

export type CompareView = {
  first: { id: string; name: string };
  second: { id: string; name: string };
  onlyFirst: NegativeText[];
  onlySecond: NegativeText[];
  both: NegativeText[];
  covered: { entry: NegativeText; in: 'first' | 'second'; coveredBy: NegativeText }[];
};
export type ThemesView = { parts: { theme: string | null; entries: NegativeText[] }[] };

/** Lists as a file of our own (docs/list-files.md). */
export const ListFileSchema = v.object({
  gatepost: v.literal('lists'),
  version: v.literal(1),
  lists: v.pipe(
    v.array(
      v.object({
        name: ListNameSchema,
        holds: v.optional(v.picklist(['words', 'placements']), 'words'),
        entries: v.optional(v.array(entry), []),
        placements: v.optional(v.array(address), []),
      }),
    ),
    v.minLength(1, 'The file holds no list.'),
  ),
});
export type ListFile = v.InferOutput<typeof ListFileSchema>;
/** A file as lines that can be looked at before they are taken. */
export type ReadListFile = { lists: { name: string | null; holds: ListContent; text: string }[] };

export const NewHangRuleSchema = v.object({ list: id, rule: HangRuleSchema });
export const RuleExceptionSchema = v.object({ campaign: id, isOut: v.boolean() });
