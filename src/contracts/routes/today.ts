import { DaysQuerySchema } from '../common';
import { ForClientSchema } from '../for-client';
import {
  EndingSchema,
  NewsSchema,
  NextAnswerSchema,
  RegretsSchema,
  SavedOfTodaySchema,
  TodaySchema,
} from '../today';
import { routesOf, SIFTING } from './route';

/** What was sent, and the days since. */
const SENT = ['ledger', 'facts', 'structure', 'settings'] as const;

export const todayRoutes = routesOf({
  'GET today': { role: 'look', query: DaysQuerySchema, answer: TodaySchema, from: SENT },
  'GET today/ending': { role: 'look', answer: EndingSchema, from: SENT },
  'GET today/saved': { role: 'look', answer: SavedOfTodaySchema, from: SENT },
  /** what waits on each screen, by what it is worth */
  'GET today/next': {
    ...{ role: 'look', query: DaysQuerySchema, answer: NextAnswerSchema },
    from: [...SIFTING, 'files', 'elsewhere', 'findings'],
  },
  'GET today/regrets': { role: 'look', answer: RegretsSchema, from: SENT },
  /** what was done in a range of days, for the advertiser; and as a workbook */
  'GET today/for-client': {
    ...{ role: 'look', query: DaysQuerySchema, answer: ForClientSchema },
    from: [...SENT, 'verdicts'],
  },
  'GET today/for-client/sheet': { role: 'look', query: DaysQuerySchema, answer: 'file' },
  /** notes that a person looks, and tells what came since the look before */
  'POST today/look': { role: 'look', answer: NewsSchema, changes: [] },
});
