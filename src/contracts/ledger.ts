import * as v from 'valibot';
import { ChangeSchema, FIGURES, TwoWindowsSchema, WeightSchema } from './common';
import { DaysTextSchema } from './days';

/** What entries tell of. */
export const LEDGER_ABOUT = [
  'change',
  'keep',
  'load',
  'note',
  'tag',
  'view',
  'setting',
  'rule',
  'lanes',
  'research',
  'knot',
] as const;

export const LedgerQuerySchema = v.object({
  /** the entry before which the page begins; the newest where none is named */
  before: v.optional(
    v.pipe(v.string(), v.regex(/^\d{1,10}$/, 'An entry has a number.'), v.transform(Number)),
  ),
  about: v.optional(v.picklist(LEDGER_ABOUT)),
  /** letters that stand in what was done, why, or who did it */
  find: v.optional(v.pipe(v.string(), v.maxLength(200)), ''),
  /** the id of the person who did it, rules, or nobody: what others did on the platform and what happened by itself */
  who: v.optional(
    v.union(
      [v.picklist(['rules', 'nobody']), v.pipe(v.string(), v.regex(/^\d{1,9}$/))],
      'This is nobody here.',
    ),
  ),
  /** the element it is about: its kind and id */
  on: v.optional(
    v.pipe(v.string(), v.regex(/^(campaign|adGroup|list|keyword|rule):\d{1,18}$/, 'This is no element.')),
  ),
  /** a search term: what was decided about it, and what would stop it */
  term: v.optional(v.pipe(v.string(), v.maxLength(500))),
  /** the days that are looked at, and others beside them */
  days: v.optional(DaysTextSchema),
  beside: v.optional(DaysTextSchema),
});

const LedgerLineSchema = v.strictObject({
  ...{ id: v.number(), at: v.string(), who: v.string() },
  about: v.picklist(LEDGER_ABOUT),
  /** whether it can be taken back here: what was sent is taken back by a change in the tray */
  ...{ canUndo: v.boolean(), isUndone: v.boolean() },
  ...{ what: v.string(), why: v.nullable(v.string()) },
  change: v.nullable(
    v.strictObject({
      ...{ id: v.number(), state: v.string(), undo: ChangeSchema },
      ...{ undoneBy: v.nullable(v.picklist(['drafted', 'sent'])), sentDay: v.string() },
      before: v.nullable(
        v.strictObject({ days: v.number(), terms: v.number(), figures: v.strictObject(FIGURES) }),
      ),
      /** what its terms cost where it acts, in the days looked at and in those beside; null where none are asked for */
      beside: v.nullable(TwoWindowsSchema),
      /** null until a report reaches the day it was sent */
      since: v.nullable(
        v.strictObject({
          days: v.number(),
          /** what its terms cost where it acts */
          here: WeightSchema,
          /** what its terms cost elsewhere: they slip through */
          elsewhere: WeightSchema,
          slips: v.array(
            v.strictObject({
              ...{ text: v.string(), adGroup: v.string(), campaign: v.string() },
              ...{ clicks: FIGURES.clicks, costMicros: FIGURES.costMicros },
            }),
          ),
        }),
      ),
    }),
  ),
});
export type LedgerQuery = v.InferOutput<typeof LedgerQuerySchema>;
export type LedgerLine = v.InferOutput<typeof LedgerLineSchema>;
export const LedgerPageSchema = v.strictObject({
  ...{ lines: v.array(LedgerLineSchema), next: v.nullable(v.number()) },
});
export type LedgerPage = v.InferOutput<typeof LedgerPageSchema>;

/** What is undone with a change: its tray, or all that was sent with it and later. */
export const UndoTogetherSchema = v.object({ what: v.picklist(['tray', 'since']) });
/** What was put in the tray by it, so that it can be taken out again. */
export const UndoneTogetherSchema = v.strictObject({ said: v.string(), changeIds: v.array(v.number()) });
