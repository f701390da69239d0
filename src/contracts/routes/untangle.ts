import { DoneSchema } from '../common';
import {
  ConflictsQuerySchema,
  ConflictsViewSchema,
  KnotBackSchema,
  KnotSchema,
  LeaveKnotSchema,
  MendsQuerySchema,
  MendsViewSchema,
  NeedlessViewSchema,
} from '../untangle';
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
  'GET untangle/needless': { role: 'look', answer: NeedlessViewSchema, from: STOPPING },
  'POST untangle/left': {
    ...{ role: 'prepare', body: LeaveKnotSchema, answer: DoneSchema, changes: ['knots', 'ledger'] },
  },
  'DELETE untangle/left': {
    ...{ role: 'prepare', body: KnotSchema, answer: KnotBackSchema, changes: ['knots', 'ledger'] },
  },
});
