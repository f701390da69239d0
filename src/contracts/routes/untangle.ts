import * as v from 'valibot';
import { DoneSchema } from '../common';
import {
  DuplicateDecisionsSchema,
  DuplicateSheetQuerySchema,
  DuplicatesQuerySchema,
  DuplicatesViewSchema,
  HandsOverQuerySchema,
  HandsOverViewSchema,
} from '../duplicates';
import {
  ConflictsQuerySchema,
  ConflictsViewSchema,
  MendsQuerySchema,
  MendsViewSchema,
  MisspeltViewSchema,
  NeedlessViewSchema,
  PileQuerySchema,
} from '../untangle';
import {
  OverlapsQuerySchema,
  OverlapsViewSchema,
  SeatingsQuerySchema,
  SeatingsViewSchema,
} from '../overlaps';
import { KnotBackSchema, KnotSchema, KnotsLookSchema, LeaveKnotSchema } from '../knots';
import { SmallerSetQuerySchema, SmallerSetViewSchema, SmallerViewSchema } from '../smaller';
import { routesOf, SIFTING, STOPPING } from './route';

export const untangleRoutes = routesOf({
  'GET untangle': {
    ...{
      role: 'look',
      query: ConflictsQuerySchema,
      answer: ConflictsViewSchema,
      from: [...SIFTING, 'knots'],
    },
  },
  /** the ways out of one conflict, each with what it would open */
  'GET untangle/mends': { role: 'look', query: MendsQuerySchema, answer: MendsViewSchema, from: SIFTING },
  /** negatives that others make needless, as the tray leaves the account */
  'GET untangle/needless': {
    ...{ role: 'look', query: PileQuerySchema, answer: NeedlessViewSchema, from: [...STOPPING, 'knots'] },
  },
  /** negatives that stop nothing, and were meant to say something else */
  'GET untangle/misspelt': {
    ...{ role: 'look', query: PileQuerySchema, answer: MisspeltViewSchema, from: [...SIFTING, 'knots'] },
  },
  /** keywords that compete with each other, as the tray leaves the account */
  'GET untangle/duplicates': {
    ...{
      role: 'look',
      query: DuplicatesQuerySchema,
      answer: DuplicatesViewSchema,
      from: [...STOPPING, 'knots'],
    },
  },
  /** what each of some keywords would take over from the others */
  'GET untangle/duplicates/hand-over': {
    ...{ role: 'look', query: HandsOverQuerySchema, answer: HandsOverViewSchema, from: STOPPING },
  },
  'GET untangle/duplicates/sheet': {
    ...{ role: 'look', query: DuplicateSheetQuerySchema, answer: 'file' },
  },
  /** reads only: nothing of the file is stored */
  'POST untangle/duplicates/read-sheet': {
    ...{ role: 'look', query: v.object({ size: v.optional(v.string()) }), body: 'file' },
    answer: DuplicateDecisionsSchema,
  },
  /** search terms that several ad groups serve, as the tray leaves the account */
  'GET untangle/overlaps': {
    ...{ role: 'look', query: OverlapsQuerySchema, answer: OverlapsViewSchema, from: [...STOPPING, 'knots'] },
  },
  /** the ways to give one of them to one ad group alone */
  'GET untangle/overlaps/seatings': {
    ...{ role: 'look', query: SeatingsQuerySchema, answer: SeatingsViewSchema, from: SIFTING },
  },
  /** lists and campaigns whose negatives could be fewer and stop the same, as the tray leaves the account */
  'GET untangle/smaller': { role: 'look', answer: SmallerViewSchema, from: SIFTING },
  'GET untangle/smaller/set': {
    ...{ role: 'look', query: SmallerSetQuerySchema, answer: SmallerSetViewSchema, from: SIFTING },
  },
  /** notes that a person looks, and tells which knots came since the look before, and how it went */
  'POST untangle/look': { role: 'look', answer: KnotsLookSchema, changes: [] },
  'POST untangle/left': {
    ...{ role: 'prepare', body: LeaveKnotSchema, answer: DoneSchema, changes: ['knots', 'ledger'] },
  },
  'DELETE untangle/left': {
    ...{ role: 'prepare', body: KnotSchema, answer: KnotBackSchema, changes: ['knots', 'ledger'] },
  },
});
