import { serve } from '@/app/api/_handle/handle';
import { lookAtToday } from '@/server/use-cases/today/what-is-new';

export const POST = serve('POST today/look', async ({ deps, ask, slug, personId }) =>
  ask('viewNews', slug, await lookAtToday(deps, slug, personId)),
);
