import { serve } from '@/app/api/_handle/handle';
import { viewToday } from '@/server/use-cases/today/view-today';

export const GET = serve('GET today', ({ deps, slug, query }) => viewToday(deps, slug, query.days));
