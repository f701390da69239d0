import * as v from 'valibot';
import type { RuleAction } from '@/core';
import { ChangeSchema, DaySchema, DaysQuerySchema, StoredNumberSchema } from './common';

/** What rules on search terms propose, and what they did by themselves. */

export const FINDING_PILES = ['open', 'later', 'refused'] as const;
export type FindingPile = (typeof FINDING_PILES)[number];
export const FindingsQuerySchema = v.object({
  ...DaysQuerySchema.entries,
  pile: v.optional(v.picklist(FINDING_PILES), 'open'),
});

const DOES = [
  ...([
    'stop',
    'stop in list',
    'keep',
    'set aside',
    'promote',
    'pause',
    'set bid',
    'raise budget',
    'hang',
    'tell',
  ] as const),
] satisfies RuleAction['do'][];

const FindingSchema = v.strictObject({
  ...{ id: v.number(), ruleId: v.number(), rule: v.string() },
  /** the search term, or the word; of a rule on keywords, the keyword with its match type and ad group; of one on campaigns, its name; of one on lists, the list and the campaign */
  term: v.string(),
  about: v.picklist(['terms', 'keywords', 'words', 'campaigns', 'lists']),
  /** what its rule wants */
  does: v.picklist(DOES),
  /** what the rule saw */
  ...{ clicks: v.nullable(v.number()), costMicros: v.nullable(v.number()) },
  ...{ conversions: v.nullable(v.number()), valueMicros: v.nullable(v.number()) },
  ...{ from: DaySchema, to: DaySchema },
  /** the evening on which it was found */
  foundOn: DaySchema,
  /** what a yes puts in the tray; empty where the rule only tells, or nothing can be stopped */
  changes: v.array(ChangeSchema),
  /** what a yes says of the term, where the rule stops nothing; null where it does, or only tells */
  verdict: v.nullable(
    v.variant('is', [
      v.strictObject({ is: v.literal('kept') }),
      v.strictObject({ is: v.literal('aside'), moreClicks: v.number() }),
    ]),
  ),
  /** where it would be stopped, or what would become of it, in words */
  place: v.string(),
  /** names of the rules that found it and want the opposite */
  against: v.array(v.string()),
  /** why it was refused, by whom, or until when it waits */
  decided: v.nullable(
    v.strictObject({ by: v.string(), at: v.string(), why: v.string(), until: v.nullable(DaySchema) }),
  ),
});
export type Finding = v.InferOutput<typeof FindingSchema>;

export const FindingsViewSchema = v.strictObject({
  counts: v.strictObject(v.entriesFromList(FINDING_PILES, v.number())),
  lines: v.array(FindingSchema),
});
export type FindingsView = v.InferOutput<typeof FindingsViewSchema>;

/** What becomes of findings: they are open again, wait some days, or are refused for a reason. */
export const DecideFindingsSchema = v.pipe(
  v.object({
    ids: v.pipe(v.array(StoredNumberSchema), v.minLength(1, 'Choose a finding.'), v.maxLength(10_000)),
    is: v.picklist(FINDING_PILES),
    why: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(300)), ''),
  }),
  v.check(({ is, why }) => is !== 'refused' || why.length >= 3, 'Give a reason: the rule keeps it.'),
);

/** A yes to findings of rules that keep terms open or set them aside; or the terms are taken back from that. */
export const GiveVerdictsSchema = v.object({
  ids: v.pipe(v.array(StoredNumberSchema), v.minLength(1, 'Choose a finding.'), v.maxLength(10_000)),
  is: v.picklist(['given', 'taken back']),
});

/** What became of what a rule did by itself. */
const ACT_STATES = ['on its way', 'in force', 'refused', 'taken back'] as const;

const KeptSchema = {
  /** what was promised since it acts, and what came; null where nothing is known yet */
  ...{ promisedMicros: v.nullable(v.number()), cameMicros: v.nullable(v.number()) },
  /** over so many days with data */
  days: v.number(),
};
const RuleActSchema = v.strictObject({
  ...{ ruleId: v.number(), rule: v.string(), version: v.number() },
  /** what it was about, as findings call it */
  term: v.string(),
  /** the day on which it was done, by the account's clock */
  day: DaySchema,
  changes: v.number(),
  state: v.picklist(ACT_STATES),
  /** whether it is foreseen to save something */
  isPromising: v.boolean(),
  /** its entry in the Ledger; null where it is not read back yet */
  entry: v.nullable(v.number()),
  ...KeptSchema,
});
export type RuleAct = v.InferOutput<typeof RuleActSchema>;

/** What rules did by themselves, the newest first, and what each promised and brought since it was switched on. */
export const RuleActsSchema = v.strictObject({
  acts: v.array(RuleActSchema),
  rules: v.array(v.strictObject({ ruleId: v.number(), name: v.string(), terms: v.number(), ...KeptSchema })),
});
export type RuleActs = v.InferOutput<typeof RuleActsSchema>;
