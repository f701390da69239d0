import * as v from 'valibot';
import { DaySchema, ElementNameSchema, NamedSchema, StoredNumberSchema } from './common';
import { RuleSchema, ruleOf, whereOf, WhereSchema } from './rule-sentence';

/** Rules on search terms, and what they would have done. */

/** A draft looks at nothing; a ready one is there to begin others from; one that is removed is kept for what it did. */
export const RULE_STATES = ['draft', 'on', 'off', 'ready', 'removed'] as const;
export type RuleState = (typeof RULE_STATES)[number];

const RuleNameSchema = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'A rule needs a name.'),
  v.maxLength(80, 'A name may hold 80 characters.'),
);

const SetNameSchema = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'A set needs a name.'),
  v.maxLength(80, 'A name may hold 80 characters.'),
);

const RuleSetSchema = v.strictObject({
  name: SetNameSchema,
  /** where its rules look at most; null: wherever each says */
  where: v.nullable(WhereSchema),
  /** ids, in the order that says which wins */
  rules: v.pipe(v.array(StoredNumberSchema), v.maxLength(500, 'A set has at most 500 rules.')),
});
export type RuleSet = v.InferOutput<typeof RuleSetSchema>;

/** Rules as a file: open JSON, in which campaigns and lists stand by their names, so that other accounts can read it. */
export const RuleFileSchema = v.strictObject({
  holds: v.literal(
    'rules of Gate Post',
    'This is no file of rules: “holds” should say “rules of Gate Post”.',
  ),
  rules: v.pipe(
    v.array(
      v.strictObject({
        ...{ name: RuleNameSchema, rule: ruleOf(ElementNameSchema) },
        /** name of its set; those of a set stand in their order */
        set: v.optional(SetNameSchema),
      }),
    ),
    v.minLength(1, 'The file holds no rule.'),
    v.maxLength(200, 'No more than 200 rules in a file.'),
  ),
  /** where the rules of a set look at most, for sets that say so */
  sets: v.optional(
    v.pipe(
      v.array(v.strictObject({ name: SetNameSchema, where: whereOf(ElementNameSchema) })),
      v.maxLength(100, 'No more than 100 sets.'),
    ),
  ),
});
export type RuleFile = v.InferOutput<typeof RuleFileSchema>;
export const BringRulesSchema = v.object({
  text: v.pipe(v.string(), v.maxLength(2_000_000, 'A file of rules has at most 2 MB.')),
});
export const BroughtRulesSchema = v.strictObject({
  ...{ said: v.string(), ruleIds: v.array(v.number()) },
  /** sets as they were before; null where the file has none */
  setsBefore: v.nullable(v.array(RuleSetSchema)),
});
/** Which rules are saved: their ids, parted by commas; all where nothing is said. */
export const RuleFileQuerySchema = v.object({
  rules: v.optional(
    v.pipe(
      v.string(),
      v.regex(/^\d{1,9}(,\d{1,9}){0,199}$/, 'Name rules by their numbers, parted by commas.'),
      v.transform((text) => text.split(',').map(Number)),
    ),
  ),
});

export const NewRuleSchema = v.object({
  ...{ name: RuleNameSchema, rule: RuleSchema, state: v.picklist(['draft', 'on', 'ready']) },
  /** of a ready one: the reason for its numbers */
  why: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(300)), ''),
});
/** A rule that is changed becomes its next version. */
export const NextVersionSchema = v.object({
  ...{ name: RuleNameSchema, rule: RuleSchema },
  /** the version that was changed: where another came meanwhile, nothing is */
  version: StoredNumberSchema,
  why: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(300)), ''),
});
export const RuleStatesSchema = v.object({
  rules: v.pipe(
    v.array(v.object({ id: StoredNumberSchema, state: v.picklist(RULE_STATES) })),
    v.minLength(1),
    v.maxLength(1_000),
  ),
});
export const RuleSavedSchema = v.strictObject({ ruleId: v.number(), version: v.number(), said: v.string() });
export const RuleStatesSaidSchema = v.strictObject({
  said: v.string(),
  was: v.array(v.strictObject({ id: v.number(), state: v.picklist(RULE_STATES) })),
});

const RuleLineSchema = v.strictObject({
  ...{
    id: v.number(),
    name: v.string(),
    state: v.picklist(RULE_STATES),
    version: v.number(),
    rule: RuleSchema,
  },
  /** who made the version, when, and why */
  ...{ by: v.string(), at: v.string(), why: v.string() },
  /** why it waits: what it names is gone; null where it does not */
  waitsFor: v.nullable(v.string()),
  /** why it did nothing when it wanted to act by itself, or stopped itself; null where it did not */
  trouble: v.nullable(v.string()),
  /** the name of the set that it is in; null: of none */
  set: v.nullable(v.string()),
  /** the last evening on which it looked; null: never */
  looked: v.nullable(v.string()),
  /** findings that wait for somebody */
  open: v.number(),
});
export type RuleLine = v.InferOutput<typeof RuleLineSchema>;

const ReadyRuleSchema = v.strictObject({
  ...{ name: v.string(), rule: RuleSchema, reason: v.string() },
  /** of one that somebody here kept; null where Gate Post brings it */
  ruleId: v.nullable(v.number()),
});
export type ReadyRule = v.InferOutput<typeof ReadyRuleSchema>;

/** All sets of an account: they take the place of those that were. */
export const RuleSetsSchema = v.object({
  sets: v.pipe(v.array(RuleSetSchema), v.maxLength(100, 'No more than 100 sets.')),
});

export const RulesViewSchema = v.strictObject({
  rules: v.array(RuleLineSchema),
  sets: v.array(RuleSetSchema),
  /** ready ones: those of one's own, and ours with their numbers for this account */
  ready: v.array(ReadyRuleSchema),
  /** that a sentence can name */
  ...{ campaigns: v.array(NamedSchema), lists: v.array(NamedSchema) },
  ...{ labels: v.array(v.string()), productGroups: v.array(v.string()) },
});
export type RulesView = v.InferOutput<typeof RulesViewSchema>;

/** What a rule was before, the newest version first. */
export const RuleVersionsViewSchema = v.strictObject({
  versions: v.array(
    v.strictObject({
      ...{ version: v.number(), name: v.string(), rule: RuleSchema },
      ...{ by: v.string(), at: v.string(), why: v.string() },
    }),
  ),
});

export type RuleVersionsView = v.InferOutput<typeof RuleVersionsViewSchema>;

export const TryRuleSchema = v.object({
  rule: RuleSchema,
  /** of the rule that is tried, where it is kept already */
  ruleId: v.optional(StoredNumberSchema),
});

const WouldStopSchema = v.strictObject({
  ...{ term: v.string(), day: DaySchema },
  ...{ clicks: v.nullable(v.number()), costMicros: v.nullable(v.number()) },
  ...{ savedMicros: v.number(), lostConversions: v.number(), lostMicros: v.number() },
});
export type WouldStopLine = v.InferOutput<typeof WouldStopSchema>;

const TrialLineSchema = v.strictObject({
  ...{ rule: RuleSchema, isOwn: v.boolean() },
  /** terms that it would have stopped; with what that saved, and lost */
  ...{ terms: v.number(), savedMicros: v.number(), lostConversions: v.number(), lostMicros: v.number() },
  /** stopped, and converted later: those that brought most first */
  wrong: v.strictObject({ total: v.number(), first: v.array(WouldStopSchema) }),
});
export type TrialLine = v.InferOutput<typeof TrialLineSchema>;

/** What a rule would have done day by day. */
export const TrialViewSchema = v.strictObject({
  from: v.nullable(DaySchema),
  to: v.nullable(DaySchema),
  /** of each day from the first on, micro-units */
  ...{ savedMicros: v.array(v.number()), lostMicros: v.array(v.number()) },
  /** terms that were stopped on that day */
  stops: v.array(v.number()),
  /** the day on which most was lost beyond what was saved; null where there is none */
  worst: v.nullable(v.strictObject({ day: DaySchema, savedMicros: v.number(), lostMicros: v.number() })),
  /** up to this day what came late is known too early: the first report brought these days at once; null: of none */
  approximateTo: v.nullable(DaySchema),
  /** the rule between two neighbours, the looser one first */
  lines: v.array(TrialLineSchema),
  /** stopped by the rule itself, those that cost most later first */
  stopped: v.array(WouldStopSchema),
  /** rules that are switched on and want the opposite of terms that this one would have found */
  against: v.array(
    v.strictObject({
      ...{
        rule: v.string(),
        does: v.picklist(['stop', 'keep', 'set aside', 'promote', 'pause', 'lower', 'raise']),
      },
      ...{ terms: v.number(), first: v.array(v.string()) },
    }),
  ),
  /** why it waits; null where it does not */
  waitsFor: v.nullable(v.string()),
});
export type TrialView = v.InferOutput<typeof TrialViewSchema>;
