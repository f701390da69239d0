import * as v from 'valibot';
import { DaysQuerySchema, DoneSchema, SaidSchema } from '../common';
import { GateAnswerSchema, GateQuerySchema } from '../gate';
import { LedgerPageSchema, LedgerQuerySchema, UndoneTogetherSchema, UndoTogetherSchema } from '../ledger';
import { StoredSchema } from '../lists';
import { PutBackOutcomeSchema, PutBackSchema, StandingQuerySchema, StandingViewSchema } from '../standing';
import { TrayOutlookSchema } from '../outlook';
import { PutUpSchema, SecondLookSchema, YesSchema } from '../second-look';
import { SavedOfChangeSchema, SavedSoFarSchema } from '../saved';
import {
  ReadResultsQuerySchema,
  ResultsBackSchema,
  ResultsReadSchema,
  ResultsSchema,
  ResultsStoredSchema,
  SheetQuerySchema,
  SheetRecipeSchema,
  SheetRecipesSchema,
  SheetRowsSchema,
} from '../sheets';
import {
  BackRequestSchema,
  CommentSchema,
  DraftOutcomeSchema,
  DraftOutcomesSchema,
  DraftRequestSchema,
  EndDateOutcomeSchema,
  EndDateSchema,
  RemovedChangesSchema,
  RemoveRequestSchema,
  SendRequestSchema,
  SentOutcomeSchema,
  TrayCheckSchema,
  TrayQuerySchema,
  TrayViewSchema,
} from '../tray';
import { PARTS, routesOf, STOPPING } from './route';

/** A change that is sent, or said to be done, is in force or nearly; rules and findings follow it. */
const SENT = ['draft', 'structure', 'rules', 'elsewhere', 'ledger'] as const;

/** What was sent, and the days since. */
const SAVING = ['ledger', 'facts', 'structure'] as const;

export const trayRoutes = routesOf({
  'GET tray': {
    ...{ role: 'look', query: TrayQuerySchema, answer: TrayViewSchema, from: [...STOPPING, 'verdicts'] },
  },
  'POST tray': {
    ...{ role: 'prepare', body: DraftRequestSchema, answer: DraftOutcomesSchema },
    changes: ['draft', 'ledger'],
  },
  /** a list that leaves the tray takes its rules with it */
  'DELETE tray': {
    ...{ role: 'prepare', body: RemoveRequestSchema, answer: RemovedChangesSchema },
    changes: ['draft', 'rules', 'ledger'],
  },
  'GET tray/outlook': { role: 'look', query: DaysQuerySchema, answer: TrayOutlookSchema, from: STOPPING },
  /** what is found of the whole tray before it is sent */
  'GET tray/check': { role: 'look', answer: TrayCheckSchema, from: STOPPING },
  'GET tray/sheet': { role: 'look', answer: 'file' },
  'PUT tray/ends': {
    ...{ role: 'prepare', body: EndDateSchema, answer: EndDateOutcomeSchema, changes: ['draft'] },
  },
  'POST tray/comments': {
    ...{ role: 'prepare', body: CommentSchema, answer: StoredSchema, changes: ['draft'] },
  },
  /** takes back what oneself has said */
  'DELETE tray/comments/[comment]': { role: 'prepare', answer: DoneSchema, changes: ['draft'] },
  /** what the tray waits for before it may be sent */
  'GET tray/second-look': {
    ...{ role: 'look', answer: SecondLookSchema, from: [...STOPPING, 'people'] },
  },
  'PUT tray/second-look': {
    ...{ role: 'prepare', body: PutUpSchema, answer: DoneSchema, changes: ['draft', 'ledger'] },
  },
  'DELETE tray/second-look': { role: 'prepare', answer: DoneSchema, changes: ['draft', 'ledger'] },
  'PUT tray/second-look/yes': {
    ...{ role: 'send', body: YesSchema, answer: DoneSchema, changes: ['draft', 'ledger'] },
  },
  'DELETE tray/second-look/yes': { role: 'send', answer: DoneSchema, changes: ['draft', 'ledger'] },
  'POST tray/send': { role: 'send', body: SendRequestSchema, answer: SentOutcomeSchema, changes: SENT },
  'POST tray/sent/[set]/again': { role: 'send', answer: DoneSchema, changes: SENT },
  /** stops the sending after the batch that is on its way; what waits for its time is back in the tray at once */
  'POST tray/sent/[set]/stop': { role: 'send', answer: SaidSchema, changes: SENT },
  'POST tray/sent/[set]/back': {
    ...{ role: 'prepare', body: BackRequestSchema, answer: SaidSchema, changes: SENT },
  },
  /** a person says that a tray which was handed over has been carried out; or that it was not after all */
  'POST tray/sent/[set]/done': { role: 'send', answer: DoneSchema, changes: SENT },
  'DELETE tray/sent/[set]/done': { role: 'send', answer: DoneSchema, changes: SENT },
  'GET tray/sent/[set]/sheet': {
    ...{ role: 'look', query: SheetQuerySchema, answer: 'file' },
  },
  /** the first rows of its sheet, by column */
  'GET tray/sent/[set]/rows': { role: 'look', answer: SheetRowsSchema, from: ['draft', 'structure'] },
  /** reads only: nothing of the file is stored */
  'POST tray/sent/[set]/read-results': {
    ...{ role: 'look', query: ReadResultsQuerySchema, body: 'file', answer: ResultsReadSchema },
  },
  /** what a result sheet says */
  'POST tray/sent/[set]/results': {
    ...{ role: 'send', body: ResultsSchema, answer: ResultsStoredSchema, changes: SENT },
  },
  'DELETE tray/sent/[set]/results': {
    ...{ role: 'send', body: ResultsBackSchema, answer: DoneSchema, changes: SENT },
  },
  'GET sheet-recipes': { role: 'look', answer: SheetRecipesSchema, from: ['settings'] },
  'POST sheet-recipes': {
    ...{ role: 'prepare', body: SheetRecipeSchema, answer: StoredSchema, changes: ['settings', 'ledger'] },
  },
  'DELETE sheet-recipes/[recipe]': {
    ...{ role: 'prepare', answer: v.strictObject({ recipe: SheetRecipeSchema }) },
    changes: ['settings', 'ledger'],
  },
  'GET gate': { role: 'look', query: GateQuerySchema, answer: GateAnswerSchema, from: STOPPING },
  'GET ledger': {
    ...{ role: 'look', query: LedgerQuerySchema, answer: LedgerPageSchema },
    from: ['ledger', 'draft', 'facts', 'structure', 'people'],
  },
  /** what everything that was sent saved, and one change: held against what was predicted */
  'GET ledger/saved': { role: 'look', answer: SavedSoFarSchema, from: SAVING },
  'GET ledger/saved/[change]': { role: 'look', answer: SavedOfChangeSchema, from: SAVING },
  /** the account at the end of a day, beside how it is now */
  'GET standing': {
    ...{ role: 'look', query: StandingQuerySchema, answer: StandingViewSchema },
    from: ['structure', 'settings'],
  },
  'POST standing/back': {
    ...{ role: 'prepare', body: PutBackSchema, answer: PutBackOutcomeSchema },
    changes: ['draft', 'rules', 'ledger'],
  },
  'POST ledger/[change]/undo': {
    ...{ role: 'prepare', answer: DraftOutcomeSchema, changes: ['draft', 'rules', 'ledger'] },
  },
  'POST ledger/[change]/undo-together': {
    ...{ role: 'prepare', body: UndoTogetherSchema, answer: UndoneTogetherSchema },
    changes: ['draft', 'rules', 'ledger'],
  },
  'POST ledger/entries/[entry]/undo': { role: 'prepare', answer: SaidSchema, changes: PARTS },
});
