import { AlertsViewSchema, AlertTargetSchema, RemoveTargetSchema, TargetKeptSchema } from '../alerts';
import { SaidSchema } from '../common';
import { routesOf } from './route';

export const alertRoutes = routesOf({
  'GET alerts': {
    ...{ role: 'own', answer: AlertsViewSchema },
    from: ['settings', 'facts', 'findings', 'elsewhere', 'files'],
  },
  'POST alerts/targets': {
    ...{ role: 'own', body: AlertTargetSchema, answer: TargetKeptSchema, changes: ['settings', 'ledger'] },
  },
  'PUT alerts/targets/[target]': {
    ...{ role: 'own', body: AlertTargetSchema, answer: SaidSchema, changes: ['settings', 'ledger'] },
  },
  /** tells somebody no more, or again */
  'DELETE alerts/targets/[target]': {
    ...{ role: 'own', body: RemoveTargetSchema, answer: SaidSchema, changes: ['settings', 'ledger'] },
  },
});
