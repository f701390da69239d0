import { serve } from '@/app/api/_handle/handle';
import { setDailyFetch } from '@/server/use-cases/intake/fetch-report';

export const POST = serve('POST platform/daily', ({ deps, slug, body }) =>
  setDailyFetch(deps, slug, body.daily),
);
