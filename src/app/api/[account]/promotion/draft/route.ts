import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST promotion/draft', async ({ ask, slug, personId, body }) => ({
  outcomes: await ask('draftPromotions', slug, personId, body),
}));
