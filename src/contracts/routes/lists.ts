import * as v from 'valibot';
import { DoneSchema } from '../common';
import { AccountWideViewSchema, EntriesHealthSchema, EntriesViewSchema } from '../list-entries';
import {
  CellAnswerSchema,
  CompareViewSchema,
  CouldBeViewSchema,
  HangingsAnswerSchema,
  HangingsQuerySchema,
  HistoryViewSchema,
  ListsBesideSchema,
  ListsHealthSchema,
  ListsViewSchema,
  NewHangRuleSchema,
  OutsideSchema,
  ReadListFileSchema,
  RuleExceptionSchema,
  StoppedSchema,
  StoredSchema,
  ThemesViewSchema,
} from '../lists';
import { TwoDaysSchema } from '../days';
import { EditOutcomeSchema, EditPlanSchema, EditRequestSchema } from '../list-edits';
import { DraftOutcomesSchema } from '../tray';
import { routesOf, STOPPING } from './route';

const cell = v.object({ list: v.optional(v.string(), ''), campaign: v.optional(v.string(), '') });

export const listRoutes = routesOf({
  'GET lists': { role: 'look', answer: ListsViewSchema, from: [...STOPPING, 'rules', 'elsewhere'] },
  'GET lists/health': { role: 'look', answer: ListsHealthSchema, from: STOPPING },
  'GET lists/beside': { role: 'look', query: TwoDaysSchema, answer: ListsBesideSchema, from: STOPPING },
  'GET lists/could-be': { role: 'look', answer: CouldBeViewSchema, from: STOPPING },
  'GET lists/account-wide': { role: 'look', answer: AccountWideViewSchema, from: STOPPING },
  'GET lists/[list]': { role: 'look', answer: EntriesViewSchema, from: STOPPING },
  'GET lists/[list]/health': { role: 'look', answer: EntriesHealthSchema, from: STOPPING },
  'GET lists/[list]/history': {
    ...{ role: 'look', answer: HistoryViewSchema, from: ['structure', 'elsewhere'] },
  },
  'GET lists/[list]/themes': { role: 'look', answer: ThemesViewSchema, from: STOPPING },
  'GET lists/[list]/compare': {
    ...{ role: 'look', query: v.object({ with: v.optional(v.string(), '') }), answer: CompareViewSchema },
    from: STOPPING,
  },
  'GET lists/[list]/file': {
    role: 'look',
    query: v.object({
      as: v.optional(v.picklist(['csv', 'xlsx', 'json'], 'A list is saved as csv, xlsx or json.'), 'csv'),
    }),
    answer: 'file',
  },
  'GET lists/cell': {
    ...{ role: 'look', query: cell, answer: CellAnswerSchema, from: [...STOPPING, 'verdicts'] },
  },
  'GET lists/cell/before': { role: 'look', query: cell, answer: StoppedSchema, from: STOPPING },
  /** asks only; the lists and campaigns may be too many for an address */
  'POST lists/hangings': {
    ...{ role: 'look', body: HangingsQuerySchema, answer: HangingsAnswerSchema },
    from: [...STOPPING, 'verdicts'],
  },
  /** asks only: what an edit would come to */
  'POST lists/plan': {
    ...{ role: 'look', body: EditRequestSchema, answer: EditPlanSchema },
    from: [...STOPPING, 'verdicts', 'elsewhere'],
  },
  'POST lists/edit': {
    ...{ role: 'prepare', body: EditRequestSchema, answer: EditOutcomeSchema },
    changes: ['draft', 'rules', 'elsewhere', 'ledger'],
  },
  /** reads only: nothing of the file is stored */
  'POST lists/read-file': {
    ...{ role: 'look', query: v.object({ size: v.optional(v.string()) }), body: 'file' },
    answer: ReadListFileSchema,
  },
  'POST lists/rules': {
    ...{ role: 'prepare', body: NewHangRuleSchema, answer: StoredSchema, changes: ['rules', 'ledger'] },
  },
  /** leaves a campaign out of a rule, or lets it be under the rule again */
  'POST lists/rules/[rule]': {
    ...{ role: 'prepare', body: RuleExceptionSchema, answer: DoneSchema, changes: ['rules', 'ledger'] },
  },
  'DELETE lists/rules/[rule]': { role: 'prepare', answer: DoneSchema, changes: ['rules', 'ledger'] },
  /** takes over what somebody else changed in a list */
  'POST lists/versions/[version]': {
    ...{ role: 'prepare', answer: DoneSchema, changes: ['elsewhere', 'ledger'] },
  },
  /** the same outside lists */
  'POST elsewhere/take-over': {
    ...{ role: 'prepare', body: OutsideSchema, answer: DoneSchema, changes: ['elsewhere', 'ledger'] },
  },
  'POST elsewhere/undo': {
    ...{ role: 'prepare', body: OutsideSchema, answer: DraftOutcomesSchema },
    changes: ['draft', 'elsewhere', 'ledger'],
  },
});
