import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST sift/batch/draft', async ({ ask, slug, personId, body }) => ({
  outcomes: await ask('draftBatch', slug, personId, body),
}));
