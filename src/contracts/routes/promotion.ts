import {
  MadeSeatsSchema,
  MakeSeatsSchema,
  OwnKeywordsQuerySchema,
  OwnKeywordsViewSchema,
  PlanRequestSchema,
  PlanViewSchema,
  PromotionsQuerySchema,
  PromotionsSheetQuerySchema,
  PromotionsViewSchema,
  SeatRequestSchema,
  SeatSaidSchema,
} from '../promotion';
import { DraftOutcomesSchema } from '../tray';
import { routesOf, SIFTING, STOPPING } from './route';

export const promotionRoutes = routesOf({
  /** converting terms that are no exact keyword of their group, or lack another part, as the tray leaves the account */
  'GET promotion': {
    ...{ role: 'look', query: PromotionsQuerySchema, answer: PromotionsViewSchema },
    from: [...STOPPING, 'knots', 'research'],
  },
  'GET promotion/sheet': { role: 'look', query: PromotionsSheetQuerySchema, answer: 'file' },
  /** exact keywords that miss their target, by all days that are kept */
  'GET promotion/keywords': {
    ...{ role: 'look', query: OwnKeywordsQuerySchema, answer: OwnKeywordsViewSchema },
    from: [...STOPPING, 'knots'],
  },
  /** what promoting some terms would make, and what each seat would get; nothing is written */
  'POST promotion/plan': { role: 'look', body: PlanRequestSchema, answer: PlanViewSchema, from: SIFTING },
  'POST promotion/draft': {
    ...{ role: 'prepare', body: PlanRequestSchema, answer: DraftOutcomesSchema, changes: ['draft'] },
  },
  'PUT promotion/seat': {
    ...{ role: 'own', body: SeatRequestSchema, answer: SeatSaidSchema, changes: ['settings', 'ledger'] },
  },
  /** in the tray */
  'POST promotion/seats': {
    ...{
      role: 'own',
      body: MakeSeatsSchema,
      answer: MadeSeatsSchema,
      changes: ['settings', 'ledger', 'draft'],
    },
  },
});
