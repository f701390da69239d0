import { serve } from '@/app/api/_handle/handle';
import { viewAlerts } from '@/server/use-cases/alerts/set-targets';

export const GET = serve('GET alerts', ({ deps, slug }) => viewAlerts(deps, slug));
