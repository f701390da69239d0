import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST sift/pass/draft', async ({ ask, slug, personId, body }) => ({
  outcomes: await ask('draftPass', slug, personId, body),
}));
