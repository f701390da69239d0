import * as v from 'valibot';
import { DoneSchema } from '../common';
import {
  DailyFetchSchema,
  FetchedSchema,
  IntakeViewSchema,
  ReadDecisionsSchema,
  ReadingAnswerSchema,
  RecipeSchema,
  ReportFilesSchema,
} from '../intake';
import { StoredSchema } from '../lists';
import { ClockAnswerSchema, ClockRequestSchema, FaultsSchema } from '../platform';
import { routesOf } from './route';

/** How large a file is, by the browser that sends it. */
const size = v.optional(v.string());

export const intakeRoutes = routesOf({
  'GET intake': { role: 'look', answer: IntakeViewSchema, from: ['files', 'facts', 'settings'] },
  'PUT intake': {
    ...{ role: 'prepare', query: v.object({ name: v.optional(v.string(), 'report'), size }), body: 'file' },
    ...{ answer: ReportFilesSchema, changes: ['files'] },
  },
  /** null asks for the reading that Gate Post finds by itself, or by a recipe */
  'POST intake/[file]/reading': {
    ...{ role: 'look', body: v.nullable(ReadDecisionsSchema), answer: ReadingAnswerSchema },
    from: ['files', 'facts', 'settings'],
  },
  'POST intake/[file]/load': {
    ...{ role: 'prepare', body: ReadDecisionsSchema, answer: DoneSchema, changes: ['files', 'ledger'] },
  },
  'DELETE intake/[file]/load': { role: 'prepare', answer: DoneSchema, changes: ['files', 'ledger'] },
  'POST intake/[file]/back': { role: 'prepare', answer: DoneSchema, changes: ['files', 'ledger'] },
  'GET intake/[file]/refused': { role: 'look', answer: 'file' },
  'POST intake/recipes': { role: 'prepare', body: RecipeSchema, answer: StoredSchema, changes: ['files'] },
  'DELETE intake/recipes/[recipe]': { role: 'prepare', answer: DoneSchema, changes: ['files'] },
  'POST platform/clock': {
    ...{ role: 'own', body: ClockRequestSchema, answer: ClockAnswerSchema },
    changes: ['structure', 'elsewhere', 'settings', 'ledger'],
  },
  /** what is to go wrong on the stand-in */
  'GET platform/faults': { role: 'look', answer: FaultsSchema, from: ['faults'] },
  'PUT platform/faults': { role: 'own', body: FaultsSchema, answer: FaultsSchema, changes: ['faults'] },
  'POST platform/report': { role: 'prepare', answer: FetchedSchema, changes: ['files', 'ledger'] },
  'POST platform/daily': { role: 'own', body: DailyFetchSchema, answer: DoneSchema, changes: ['files'] },
});
