import {
  LanePlanSaidSchema,
  LanesQuerySchema,
  LanesViewSchema,
  SetLanePlanSchema,
  WhereQuerySchema,
  WhereSchema,
} from '../lanes';
import { routesOf, STOPPING } from './route';

export const laneRoutes = routesOf({
  /** the lane plans, and one of them beside how queries really went */
  'GET lanes': {
    ...{ role: 'look', query: LanesQuerySchema, answer: LanesViewSchema },
    from: [...STOPPING, 'lanes'],
  },
  'PUT lanes': {
    ...{ role: 'prepare', body: SetLanePlanSchema, answer: LanePlanSaidSchema, changes: ['lanes', 'ledger'] },
  },
  'GET lanes/where': {
    ...{ role: 'look', query: WhereQuerySchema, answer: WhereSchema },
    from: [...STOPPING, 'lanes'],
  },
});
