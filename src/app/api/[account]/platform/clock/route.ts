import { serve } from '@/app/api/_handle/handle';
import { moveClock } from '@/server/use-cases/intake/fetch-report';

export const POST = serve('POST platform/clock', async ({ deps, slug, body }) => ({
  today: await moveClock(deps, slug, body.days),
}));
