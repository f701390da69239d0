import { serve } from '@/app/api/_handle/handle';

export const POST = serve('POST lists/rules', async ({ ask, slug, personId, body }) => ({
  id: await ask('keepHangRule', slug, personId, body),
}));
